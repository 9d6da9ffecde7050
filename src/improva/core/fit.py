"""Compute where a placed picture lies on its panel."""

from __future__ import annotations

import math
from dataclasses import dataclass

from .design import ArtSize, Placement
from .errors import PlacementError
from .sewing.motion import Motion
from .template import Box, Panel
from .tiling import Tiling, tiling_of
from .units import effective_dpi

EDGE_TOLERANCE_MM = 1e-6


@dataclass(frozen=True)
class Placed:
    """A picture's place: its box before it is turned, and the turn about the box's centre.

    Args:
        box: x, y, width, height in mm from the trim's top left corner.
        rotate_deg: clockwise.
        px: the picture's own pixels across and down the box.
        offsets_mm: where copies of it lie, to the right of the box; the first is the box itself.
        tiling: the pattern whose first tile the box is, where the picture is repeated.
        through: where another panel shows this place of its leader's: brings that panel's points to where the box is.
    """

    box: Box
    rotate_deg: float
    px: tuple[float, float]
    offsets_mm: tuple[float, ...] = (0.0,)
    tiling: Tiling | None = None
    through: Motion | None = None

    @property
    def dpi(self) -> tuple[float, float]:
        """Effective resolution across and down: pixels over printed inches."""
        return effective_dpi(self.px[0], self.box[2]), effective_dpi(self.px[1], self.box[3])

    @property
    def centre(self) -> tuple[float, float]:
        """Return the centre of rotation, in mm."""
        return self.box[0] + self.box[2] / 2, self.box[1] + self.box[3] / 2

    def to_art(self, x_mm: float, y_mm: float) -> tuple[float, float]:
        """Convert a point of the panel to fractions of the picture's width and height."""
        if self.through is not None:
            x_mm, y_mm = (float(v) for v in self.through([(x_mm, y_mm)])[0])
        angle = math.radians(self.rotate_deg)
        dx, dy = x_mm - self.centre[0], y_mm - self.centre[1]
        along, down = dx * math.cos(angle) + dy * math.sin(angle), dy * math.cos(angle) - dx * math.sin(angle)
        return along / self.box[2] + 0.5, down / self.box[3] + 0.5

    def from_art(self, u: float, v: float) -> tuple[float, float]:
        """Convert a point of the picture to mm on the panel: the reverse of :meth:`to_art`."""
        angle = math.radians(self.rotate_deg)
        along, down = (u - 0.5) * self.box[2], (v - 0.5) * self.box[3]
        x = self.centre[0] + along * math.cos(angle) - down * math.sin(angle)
        y = self.centre[1] + along * math.sin(angle) + down * math.cos(angle)
        if self.through is not None:
            x, y = (float(v) for v in self.through.back()([(x, y)])[0])
        return x, y

    def copies(self) -> list[Placed]:
        """Return each copy as a placed picture."""
        x, y, w, h = self.box
        return [Placed((x + dx, y, w, h), self.rotate_deg, self.px, through=self.through) for dx in self.offsets_mm]

    def corners(self) -> list[tuple[float, float]]:
        """Return the four corners in mm after rotation, clockwise from the picture's top left."""
        return [self.from_art(u, v) for u, v in ((0, 0), (1, 0), (1, 1), (0, 1))]

    def covers(self, box: Box) -> bool:
        """Return whether the picture covers all of ``box``."""
        if self.tiling is not None:
            return self.tiling.tile_mm == self.tiling.pitch_mm
        x, y, w, h = box
        for px, py in ((x, y), (x + w, y), (x + w, y + h), (x, y + h)):
            u, v = self.to_art(px, py)
            tu, tv = EDGE_TOLERANCE_MM / self.box[2], EDGE_TOLERANCE_MM / self.box[3]
            if not (-tu <= u <= 1 + tu and -tv <= v <= 1 + tv):
                return False
        return True


def turned_extent(w: float, h: float, rotate_deg: float) -> tuple[float, float]:
    """Return the size of the upright box around a w × h box rotated by ``rotate_deg``."""
    cos, sin = abs(math.cos(math.radians(rotate_deg))), abs(math.sin(math.radians(rotate_deg)))
    return w * cos + h * sin, w * sin + h * cos


def first_size(panel: Panel, art: ArtSize, placement: Placement) -> tuple[float, float]:
    """Return the width and height in mm that the fit gives, before ``scale``.

    *cover* is the smallest size that leaves no bare edge of the print file, bleed included, at this turn;
    *contain* the largest that keeps the whole turned picture inside the trim, or inside its share of the
    trim where several copies lie side by side; *actual* and *repeat* the size the file claims; *stretch* the
    print file's box itself, whatever that does to the proportions. ``panel`` is the rectangle that art is
    placed in, see :meth:`Panel.field`.
    """
    w, h = float(art.px[0]), float(art.px[1])
    file_w, file_h = panel.file_mm
    if placement.fit == "stretch":
        return file_w, file_h
    if placement.fit in ("actual", "repeat"):
        return art.claimed_mm
    if placement.fit == "cover":
        need_w, need_h = turned_extent(file_w, file_h, placement.rotate_deg)
        factor = max(need_w / w, need_h / h)
    else:
        turned_w, turned_h = turned_extent(w, h, placement.rotate_deg)
        factor = min(panel.trim_mm[0] / placement.copies / turned_w, panel.trim_mm[1] / turned_h)
    return w * factor, h * factor


def can_roll(panel: Panel, placement: Placement) -> bool:
    """Return whether a panel's art can be rolled round the blank: its ends meet, and level lines run round it."""
    return panel.closes and (panel.cone is None or placement.lay == "bent")


def place(panel: Panel, art: ArtSize, placement: Placement) -> Placed:
    """Place the picture, in mm of the rectangle it is placed in (see :meth:`Panel.field`).

    Raises:
        PlacementError: the picture has no pixels, would come out beyond what can be computed, or cannot repeat so.
    """
    if min(art.px) < 1:
        raise PlacementError("The artwork has no pixels to place.")
    if placement.roll_mm and not can_roll(panel, placement):
        raise PlacementError(
            "Only a wrap whose ends meet can be rolled, and on a tapered wall only bent art: set the roll to 0."
        )
    field = panel.field(placement.lay)
    first = first_size(field, art, placement)
    w, h = (side * placement.scale for side in first)
    if not 1e-5 <= min(w, h) <= max(w, h) <= 1e8:
        raise PlacementError("At this scale the artwork is too small or too large to print: change the scale.")
    if placement.fit == "repeat":
        return _place_repeat(field, art, placement, first)
    share = field.trim_mm[0] / placement.copies
    cx = share / 2 + placement.shift_mm[0]
    cy = field.trim_mm[1] / 2 + placement.shift_mm[1]
    offsets = tuple(share * i for i in range(placement.copies))
    return Placed((cx - w / 2, cy - h / 2, w, h), placement.rotate_deg, art.px, offsets)


def _place_repeat(field: Panel, art: ArtSize, placement: Placement, claimed: tuple[float, float]) -> Placed:
    """The first tile of a pattern, whose corner is the trim's corner moved by the shift."""
    left = 1 - placement.blend
    tiling = tiling_of(field, (claimed[0] * left, claimed[1] * left), placement)
    px = (art.px[0] * left, art.px[1] * left)
    if placement.rotate_deg % 180 == 90:
        px = px[::-1]
    return Placed((*placement.shift_mm, *tiling.tile_mm), tiling.turn_deg, px, tiling=tiling)
