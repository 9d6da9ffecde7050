"""Gang sheets: several prints packed on sheets or a roll, with gaps, never overlapping."""

from __future__ import annotations

import math
from dataclasses import dataclass

import rectpack

from ..errors import OutputError
from ..units import finite

UNIT_MM = 0.01
"""Packing works in whole hundredths of a millimetre."""
MOST_PIECES = 2000
MOST_SHEETS = 200
LONGEST_ROLL_MM = 50_000.0

_ALGORITHMS = (
    rectpack.MaxRectsBssf,
    rectpack.MaxRectsBl,
    rectpack.MaxRectsBaf,
    rectpack.SkylineBlWm,
    rectpack.GuillotineBssfSas,
)


@dataclass(frozen=True)
class GangItem:
    """A print to pack: its name, size and number of copies."""

    name: str
    size_mm: tuple[float, float]
    count: int = 1


@dataclass(frozen=True)
class GangSheet:
    """The medium: a sheet, or a roll where ``length_mm`` is None.

    ``margin_mm`` is what the printer cannot reach at every edge, ``gap_mm`` stays free between prints.
    """

    width_mm: float
    length_mm: float | None
    margin_mm: float = 5.0
    gap_mm: float = 3.0
    turn: bool = True

    def __post_init__(self) -> None:
        sides = [self.width_mm, self.length_mm if self.length_mm is not None else self.width_mm]
        if not all(10 <= finite(side, "sheet") <= LONGEST_ROLL_MM for side in sides):
            raise OutputError("This sheet is out of reach: use 10 mm to 50 m a side.")
        if min(finite(self.margin_mm, "margin"), finite(self.gap_mm, "gap")) < 0:
            raise OutputError("Margin and gap cannot be less than nothing: use 0 or more.")


@dataclass(frozen=True)
class Put:
    """One print on a sheet: the indices of item and sheet, its box in mm from the sheet's corner, and whether it is rotated."""

    item: int
    sheet: int
    box: tuple[float, float, float, float]
    turned: bool


@dataclass(frozen=True)
class GangPlan:
    """The layout of a gang sheet. ``sheets_mm`` are the sizes of the sheets used; a roll's is cut where its last print ends."""

    puts: tuple[Put, ...]
    sheets_mm: tuple[tuple[float, float], ...]

    @property
    def waste(self) -> float:
        """Share of the paper used that carries no print."""
        used = sum(w * h for w, h in self.sheets_mm)
        return 1 - sum(put.box[2] * put.box[3] for put in self.puts) / used if used else 0.0


def _units(length_mm: float) -> int:
    return math.ceil(length_mm / UNIT_MM - 1e-6)


def _check(items: list[GangItem], sheet: GangSheet, free: tuple[float, float]) -> None:
    total = sum(item.count for item in items)
    if not total:
        raise OutputError("There is nothing on this gang sheet yet: add a print.")
    if total > MOST_PIECES:
        raise OutputError(f"{total} prints are too many for one gang sheet: use {MOST_PIECES} at most.")
    for item in items:
        w, h = item.size_mm
        fits = (w <= free[0] and h <= free[1]) or (sheet.turn and h <= free[0] and w <= free[1])
        if item.count and not fits:
            raise OutputError(
                f"{item.name} is {w:.0f} × {h:.0f} mm and does not fit on {free[0]:.0f} × {free[1]:.0f} mm within the margins: "
                "choose a larger sheet, or let prints be turned."
            )


def _packed(items: list[GangItem], sheet: GangSheet, free: tuple[float, float], algorithm: type) -> GangPlan | None:
    gap, margin = sheet.gap_mm, sheet.margin_mm
    packer = rectpack.newPacker(
        mode=rectpack.PackingMode.Offline,
        bin_algo=rectpack.PackingBin.BFF,
        pack_algo=algorithm,
        sort_algo=rectpack.SORT_AREA,
        rotation=sheet.turn,
    )
    # Every print includes its gap on the right and below, and so does the sheet.
    packer.add_bin(_floor(free[0] + gap), _floor(free[1] + gap), count=1 if sheet.length_mm is None else MOST_SHEETS)
    for index, item in enumerate(items):
        for _ in range(item.count):
            packer.add_rect(_units(item.size_mm[0] + gap), _units(item.size_mm[1] + gap), rid=index)
    packer.pack()
    rectangles = packer.rect_list()
    if len(rectangles) < sum(item.count for item in items):
        return None
    puts = []
    for bin_, x, y, w, h, index in rectangles:
        size = items[index].size_mm
        as_is = (_units(size[0] + gap), _units(size[1] + gap))
        turned = (w, h) != as_is
        size = (size[1], size[0]) if turned else size
        puts.append(Put(index, bin_, (margin + x * UNIT_MM, margin + y * UNIT_MM, *size), turned))
    puts.sort(key=lambda put: (put.sheet, put.box[1], put.box[0]))
    count = max(put.sheet for put in puts) + 1
    if sheet.length_mm is None:
        end = max(put.box[1] + put.box[3] for put in puts)
        return GangPlan(tuple(puts), ((sheet.width_mm, end + margin),))
    return GangPlan(tuple(puts), tuple((sheet.width_mm, sheet.length_mm) for _ in range(count)))


def _floor(length_mm: float) -> int:
    return math.floor(length_mm / UNIT_MM + 1e-6)


def plan_gang_sheet(items: list[GangItem], sheet: GangSheet) -> GangPlan:
    """Return the best of several packings: the fewest sheets, or the shortest length of roll.

    Raises:
        OutputError: a print does not fit, there is nothing to pack or far too much.
    """
    length = sheet.length_mm if sheet.length_mm is not None else LONGEST_ROLL_MM
    free = (sheet.width_mm - 2 * sheet.margin_mm, length - 2 * sheet.margin_mm)
    if min(free) <= 0:
        raise OutputError("The margins leave nothing of the sheet: use smaller ones.")
    _check(items, sheet, free)
    plans = [plan for algorithm in _ALGORITHMS if (plan := _packed(items, sheet, free, algorithm)) is not None]
    if not plans:
        raise OutputError(
            f"This takes more than {MOST_SHEETS} sheets, or more than {LONGEST_ROLL_MM / 1000:.0f} m of roll: make several."
        )
    return min(plans, key=lambda plan: (len(plan.sheets_mm), sum(w * h for w, h in plan.sheets_mm), _spread(plan)))


def _spread(plan: GangPlan) -> float:
    """Prefer the packing whose last sheet is emptiest: its rest can be used again."""
    last = len(plan.sheets_mm) - 1
    return max((put.box[1] + put.box[3] for put in plan.puts if put.sheet == last), default=0.0)
