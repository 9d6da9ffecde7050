"""From a placing to exact geometry on the panel."""

from __future__ import annotations

import math
from dataclasses import dataclass

from .design import ArtSize, Placing
from .errors import BadPlacing
from .template import Box, Panel
from .units import effective_dpi

EDGE_TOLERANCE_MM = 1e-6


@dataclass(frozen=True)
class Placed:
    """A picture's place: its box before it is turned, and the turn about the box's centre.

    Args:
        box: x, y, width, height in mm from the trim's top left corner.
        rotate_deg: clockwise.
        px: the picture's own pixels.
    """

    box: Box
    rotate_deg: float
    px: tuple[int, int]

    @property
    def dpi(self) -> tuple[float, float]:
        """Effective resolution across and down: pixels over printed inches."""
        return effective_dpi(self.px[0], self.box[2]), effective_dpi(self.px[1], self.box[3])

    @property
    def centre(self) -> tuple[float, float]:
        """The point it is turned about, in mm."""
        return self.box[0] + self.box[2] / 2, self.box[1] + self.box[3] / 2

    def to_art(self, x_mm: float, y_mm: float) -> tuple[float, float]:
        """Where a point of the panel falls on the picture, as fractions of its width and height."""
        angle = math.radians(self.rotate_deg)
        dx, dy = x_mm - self.centre[0], y_mm - self.centre[1]
        along, down = dx * math.cos(angle) + dy * math.sin(angle), dy * math.cos(angle) - dx * math.sin(angle)
        return along / self.box[2] + 0.5, down / self.box[3] + 0.5

    def corners(self) -> list[tuple[float, float]]:
        """The four corners in mm after turning, clockwise from the picture's own top left."""
        angle = math.radians(self.rotate_deg)
        cos, sin, (cx, cy) = math.cos(angle), math.sin(angle), self.centre
        half = [(-1, -1), (1, -1), (1, 1), (-1, 1)]
        w, h = self.box[2] / 2, self.box[3] / 2
        return [(cx + i * w * cos - j * h * sin, cy + i * w * sin + j * h * cos) for i, j in half]

    def covers(self, box: Box) -> bool:
        """Whether no point of ``box`` is left bare."""
        x, y, w, h = box
        for px, py in ((x, y), (x + w, y), (x + w, y + h), (x, y + h)):
            u, v = self.to_art(px, py)
            tu, tv = EDGE_TOLERANCE_MM / self.box[2], EDGE_TOLERANCE_MM / self.box[3]
            if not (-tu <= u <= 1 + tu and -tv <= v <= 1 + tv):
                return False
        return True


def turned_extent(w: float, h: float, rotate_deg: float) -> tuple[float, float]:
    """Width and height of the upright box round a w × h box turned by ``rotate_deg``."""
    cos, sin = abs(math.cos(math.radians(rotate_deg))), abs(math.sin(math.radians(rotate_deg)))
    return w * cos + h * sin, w * sin + h * cos


def first_size(panel: Panel, art: ArtSize, placing: Placing) -> tuple[float, float]:
    """Width and height in mm that the fit alone gives, before ``scale``.

    *cover* is the smallest size that leaves no bare edge of the print file, bleed included, at this turn;
    *contain* the largest that keeps the whole turned picture inside the trim; *actual* the size the file
    claims; *stretch* the print file's box itself, whatever that does to the proportions.
    """
    w, h = float(art.px[0]), float(art.px[1])
    file_w, file_h = panel.file_mm
    if placing.fit == "stretch":
        return file_w, file_h
    if placing.fit == "actual":
        return art.claimed_mm
    if placing.fit == "cover":
        need_w, need_h = turned_extent(file_w, file_h, placing.rotate_deg)
        factor = max(need_w / w, need_h / h)
    else:
        turned_w, turned_h = turned_extent(w, h, placing.rotate_deg)
        factor = min(panel.trim_mm[0] / turned_w, panel.trim_mm[1] / turned_h)
    return w * factor, h * factor


def place(panel: Panel, art: ArtSize, placing: Placing) -> Placed:
    """Where and how large the picture lies on the panel.

    Raises:
        BadPlacing: the picture has no pixels, or would come out beyond what can be computed.
    """
    if min(art.px) < 1:
        raise BadPlacing("The artwork has no pixels to place.")
    w, h = (side * placing.scale for side in first_size(panel, art, placing))
    if not 1e-5 <= min(w, h) <= max(w, h) <= 1e8:
        raise BadPlacing("At this scale the artwork is too small or too large to print: change the scale.")
    cx = panel.trim_mm[0] / 2 + placing.shift_mm[0]
    cy = panel.trim_mm[1] / 2 + placing.shift_mm[1]
    return Placed((cx - w / 2, cy - h / 2, w, h), placing.rotate_deg, art.px)
