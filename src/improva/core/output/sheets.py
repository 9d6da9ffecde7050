"""Split a print that is larger than the paper or the platen into overlapping parts."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from ..errors import OutputError
from ..template import Box
from ..units import finite

Size = tuple[float, float]

PAPERS_MM: dict[str, Size] = {
    "letter": (215.9, 279.4),
    "legal": (215.9, 355.6),
    "a4": (210.0, 297.0),
    "a3": (297.0, 420.0),
}
"""ISO 216 for A4 and A3; ANSI/ASME Y14.1 size A for letter; legal is 8.5 × 14 in, the common US office size."""

MARKS_MM = 7.0
"""Margin around the art of a sheet for registration marks and its label, in mm."""

MOST_SHEETS = 400


def spans(length: float, most: float, overlap: float) -> list[tuple[float, float]]:
    """Split a length into as few equal parts as possible, none longer than ``most``, neighbours overlapping by ``overlap``.

    Returns:
        Start and length of each part. They cover the whole, and each overlap is exact.

    Raises:
        OutputError: the overlap leaves nothing of a part.
    """
    if length <= most + 1e-9:
        return [(0.0, length)]
    if most <= overlap:
        raise OutputError(f"An overlap of {overlap:g} mm leaves nothing of a part of {most:.4g} mm: use less overlap.")
    count = math.ceil((length - overlap) / (most - overlap) - 1e-9)
    part = (length + (count - 1) * overlap) / count
    return [(i * (part - overlap), part) for i in range(count)]


@dataclass(frozen=True)
class Part:
    """One part of a print: column and row from the top left, from 0, and its box in mm of the print."""

    column: int
    row: int
    box: Box


@dataclass(frozen=True)
class SheetPlan:
    """How a print is split into sheets.

    Attributes:
        paper_mm: the paper as it is turned.
        margin_mm: what the printer cannot reach at the paper's edges.
        marks_mm: kept free for marks inside the margins; 0 where one sheet is enough.
    """

    size_mm: Size
    paper_mm: Size
    margin_mm: float
    overlap_mm: float
    marks_mm: float
    across: tuple[tuple[float, float], ...]
    down: tuple[tuple[float, float], ...]

    @property
    def parts(self) -> list[Part]:
        """Return all sheets, row by row."""
        return [Part(i, j, (x, y, w, h)) for j, (y, h) in enumerate(self.down) for i, (x, w) in enumerate(self.across)]

    @property
    def sheets(self) -> int:
        """The number of sheets."""
        return len(self.across) * len(self.down)

    @property
    def joins_mm(self) -> float:
        """Total length of the joins, which are taped."""
        return (len(self.across) - 1) * self.size_mm[1] + (len(self.down) - 1) * self.size_mm[0]

    @property
    def turned(self) -> bool:
        """Whether the paper is in landscape orientation."""
        return self.paper_mm[0] > self.paper_mm[1]

    def origin(self, part: Part) -> tuple[float, float]:
        """Return the position of a part's top left corner on the paper: centred."""
        return (self.paper_mm[0] - part.box[2]) / 2, (self.paper_mm[1] - part.box[3]) / 2


def paper_size(text: str) -> Size:
    """Return a paper size by name, or from ``WxHmm``. Raises :class:`OutputError`."""
    known = PAPERS_MM.get(text.lower())
    if known:
        return known
    try:
        w, h = (float(side) for side in text.lower().removesuffix("mm").split("x"))
    except ValueError:
        raise OutputError(f"'{text}' is not a paper: choose {', '.join(PAPERS_MM)}, or write its size as 330x482mm.") from None
    if not (20 <= w <= 10_000 and 20 <= h <= 10_000):
        raise OutputError(f"A paper of {w:g} × {h:g} mm is out of reach: use 20 to 10000 mm a side.")
    return w, h


def _plan(size_mm: Size, paper: Size, margin_mm: float, overlap_mm: float) -> SheetPlan:
    free = [side - 2 * margin_mm for side in paper]
    if all(s <= f + 1e-9 for s, f in zip(size_mm, free, strict=True)):
        return SheetPlan(size_mm, paper, margin_mm, overlap_mm, 0.0, ((0.0, size_mm[0]),), ((0.0, size_mm[1]),))
    room = [side - 2 * MARKS_MM for side in free]
    if min(room) <= 0:
        raise OutputError(f"A margin of {margin_mm:g} mm leaves nothing of the paper: use a smaller one.")
    across, down = (tuple(spans(s, r, overlap_mm)) for s, r in zip(size_mm, room, strict=True))
    return SheetPlan(size_mm, paper, margin_mm, overlap_mm, MARKS_MM, across, down)


def plan_sheets(size_mm: Size, paper_mm: Size, margin_mm: float = 5.0, overlap_mm: float = 10.0) -> SheetPlan:
    """Return the plan with the fewest sheets; among equals, the one with the shortest joins.

    Raises:
        OutputError: margin or overlap leave nothing of the paper, or it would take too many sheets.
    """
    if min(finite(margin_mm, "margin"), finite(overlap_mm, "overlap")) < 0:
        raise OutputError("Margin and overlap cannot be less than nothing: use 0 or more.")
    sheets = []
    problem: OutputError | None = None
    for paper in dict.fromkeys((paper_mm, (paper_mm[1], paper_mm[0]))):
        try:
            sheets.append(_plan(size_mm, paper, margin_mm, overlap_mm))
        except OutputError as none:
            problem = none
    if not sheets:
        raise problem or OutputError("The print cannot be laid on this paper.")
    best = min(sheets, key=lambda plan: (plan.sheets, round(plan.joins_mm, 3), plan.turned))
    if best.sheets > MOST_SHEETS:
        raise OutputError(f"This would take {best.sheets} sheets: choose a larger paper, or fewer than {MOST_SHEETS}.")
    return best


def press_positions(size_mm: Size, platen_mm: Size, overlap_mm: float) -> list[Part]:
    """Return platen positions that heat a whole print, in pressing order.

    Each lies beside the one before it, to and fro, so that only its own overlap is heated twice in a row. The print may
    be turned on the platen where that takes fewer. Common practice, no published source.
    """
    tries = []
    for platen in dict.fromkeys((platen_mm, (platen_mm[1], platen_mm[0]))):
        across, down = (spans(s, p, overlap_mm) for s, p in zip(size_mm, platen, strict=True))
        tries.append((len(across) * len(down), across, down))
    _, across, down = min(tries, key=lambda each: each[0])
    parts = []
    for j, (y, h) in enumerate(down):
        columns: Iterable[tuple[int, tuple[float, float]]] = list(enumerate(across))
        for i, (x, w) in reversed(list(columns)) if j % 2 else columns:
            parts.append(Part(i, j, (x, y, w, h)))
    return parts


def joins(parts: tuple[tuple[float, float], ...]) -> list[float]:
    """The middle of each overlap, where two neighbours are cut and butted."""
    return [(start + (before + length)) / 2 for (before, length), (start, _) in pairwise(parts)]
