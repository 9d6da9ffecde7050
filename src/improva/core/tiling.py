"""Repeats: tile size and arrangement. A repeat around a wrap always closes."""

from __future__ import annotations

from dataclasses import dataclass

from .design import MOST_AROUND, Placement, RepeatKind
from .errors import PlacementError
from .template import Panel

LEAST_TILE_MM = 0.5


@dataclass(frozen=True)
class Tiling:
    """A pattern of equal tiles.

    Attributes:
        tile_mm: width and height of one tile, after a quarter turn if there is one.
        pitch_mm: from one tile's corner to the next, across and down: the tile and its spacing.
        around: number of tiles on the panel's width; None if no whole number was requested.
        turn_deg: turn of the whole pattern about its corner; 0 where the tile itself is turned by quarters.
    """

    kind: RepeatKind
    tile_mm: tuple[float, float]
    pitch_mm: tuple[float, float]
    around: int | None
    turn_deg: float = 0.0

    @property
    def period(self) -> tuple[int, int]:
        """The number of tiles across and down after which the pattern repeats."""
        return {"grid": (1, 1), "half-drop": (2, 1), "brick": (1, 2), "mirror": (2, 2)}[self.kind]


def nearest_count(width_mm: float, pitch_mm: float, step: int = 1) -> int:
    """Return the whole number of repeats on a width, a multiple of ``step``, whose pitch is nearest to ``pitch_mm``."""
    few = max(1, int(width_mm / pitch_mm / step)) * step
    return min(few, few + step, key=lambda n: (abs(width_mm / n - pitch_mm), n))


def step_of(panel: Panel, kind: RepeatKind) -> int:
    """Return the step of possible repeat counts: half-drop and mirror repeats close on even numbers only."""
    return 2 if panel.closes and kind in ("half-drop", "mirror") else 1


def offered_counts(panel: Panel, kind: RepeatKind, now: int) -> list[tuple[int, float]]:
    """Return repeat counts near ``now``, itself included, each with its pitch in mm, largest pitch first."""
    step, w = step_of(panel, kind), panel.trim_mm[0]
    counts = [n for n in range(now - 2 * step, now + 2 * step + 1, step) if 1 <= n <= MOST_AROUND]
    return [(n, w / n) for n in counts]


def tiling_of(panel: Panel, tile_mm: tuple[float, float], placement: Placement) -> Tiling:
    """Return the pattern that a tile size gives on a panel; on a tapered wall, on its level rectangle.

    Raises:
        PlacementError: a number of repeats that does not close, a turn that cannot close, or tiles too small to be.
    """
    quarter = placement.rotate_deg % 90 == 0
    if panel.closes and not quarter:
        raise PlacementError(f"A pattern turned by {placement.rotate_deg:g}° cannot close round the blank: use quarter turns.")
    w, h = tile_mm if not quarter or placement.rotate_deg % 180 == 0 else tile_mm[::-1]
    gap, step = placement.spacing_mm, step_of(panel, placement.repeat_kind)
    around = placement.repeats_around
    if around is None and panel.closes:
        around = min(MOST_AROUND // step * step, nearest_count(panel.trim_mm[0], w * placement.scale + gap, step))
    if around is None:
        w, h = w * placement.scale, h * placement.scale
    else:
        if around % step:
            raise PlacementError(
                f"{around} repeats of a {placement.repeat_kind} do not close round the blank: use {around - 1 or 2} or {around + 1}."
            )
        fitted = panel.trim_mm[0] / around - gap
        w, h = fitted, h * fitted / w
    if min(w, h) < LEAST_TILE_MM:
        raise PlacementError("The repeat comes out too small to print: use fewer repeats or less space between them.")
    turn = 0.0 if quarter else placement.rotate_deg
    return Tiling(placement.repeat_kind, (w, h), (w + gap, h + gap), around, turn)
