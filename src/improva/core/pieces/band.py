"""A band of pattern or colour along the trim, with an optional inner line."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from shapely import Polygon, box
from shapely.geometry.base import BaseGeometry

from ..errors import PieceError
from ..template import Box, Panel
from .blending import ArtRef, Mixing, between, colours

Sides = Literal["all", "level", "ends"]


@dataclass(frozen=True)
class Band:
    """A border along the trim that extends through the bleed.

    Attributes:
        sides: ``all`` round, ``level`` above and below, or at both ``ends``, where a wrap's seam is hidden by it.
        width_mm: from the trim inward.
        colour: of the band, and behind a pattern with gaps; None for a pattern alone.
        pattern, tile_mm: an artwork repeated in it, and how wide one tile is.
        line_mm, line_gap_mm, line_colour: a line inside the band: its width, how far from it, its colour; 0 for none.
    """

    sides: Sides = "all"
    width_mm: float = 12.0
    colour: str | None = "#24405a"
    pattern: ArtRef | None = None
    tile_mm: float = 25.0
    line_mm: float = 0.8
    line_gap_mm: float = 2.0
    line_colour: str = "#ffffff"
    mixing: Mixing = field(default_factory=Mixing)

    def __post_init__(self) -> None:
        between("border's width", self.width_mm, 0.01, 1000)
        between("tile", self.tile_mm, 0.6, 2000)
        between("line's width", self.line_mm, 0, 100)
        between("gap", self.line_gap_mm, 0, 200)
        colours(self.colour, self.line_colour)
        if self.colour is None and self.pattern is None:
            raise PieceError("This border has neither colour nor pattern: give it one.")

    def shape(self, panel: Panel) -> BaseGeometry:
        """Return the band on a panel, in mm of the trim; on a tapered wall, of its level rectangle. Raises :class:`PieceError`
        if it does not fit."""
        return panel.cut().difference(self._inside(panel, self.width_mm))

    def line(self, panel: Panel) -> BaseGeometry:
        """Return the inner line, in mm of the trim; empty where there is none."""
        start = self.width_mm + self.line_gap_mm
        if not self.line_mm:
            return Polygon()
        return self._inside(panel, start).difference(self._inside(panel, start + self.line_mm))

    def hollow(self, panel: Panel) -> Box | None:
        """Return the box that the band and its line leave free, in mm of the trim; None for panels with a shaped outline."""
        inside = self._inside(panel, self.width_mm + (self.line_gap_mm + self.line_mm if self.line_mm else 0.0))
        x0, y0, x1, y1 = inside.bounds
        return (x0, y0, x1 - x0, y1 - y0) if (x1 - x0) * (y1 - y0) - inside.area < 1e-6 else None

    def _inside(self, panel: Panel, inset_mm: float) -> BaseGeometry:
        w, h = panel.trim_mm
        bleed = panel.bleed_mm
        if self.sides == "all":
            inner = Polygon(panel.line(inset_mm)) if 2 * inset_mm < min(w, h) else Polygon()
        else:
            past = -bleed - 1  # extends past the file, so that cutting at its edge leaves no sliver
            x, y = (past, inset_mm) if self.sides == "level" else (inset_mm, past)
            inner = box(x, y, w - x, h - y) if w > 2 * x and h > 2 * y else Polygon()
            inner = inner.intersection(panel.cut())
        if inner.is_empty:
            raise PieceError(f"A border of {self.width_mm:g} mm leaves no room on {w:.0f} × {h:.0f} mm: make it narrower.")
        return inner
