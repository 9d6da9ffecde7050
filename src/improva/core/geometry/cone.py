"""Development of a tapered cup's wall: a frustum of a cone unrolled into a ring segment."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..errors import TemplateError

LEAST_ROUND_MM, MOST_ROUND_MM = 10.0, 5000.0
LEAST_HEIGHT_MM, MOST_HEIGHT_MM = 3.0, 3000.0
MOST_TAPER_DEG = 75.0
"""Largest half opening angle, in degrees. A larger one is nearly a plate, so one of the measurements is wrong."""

MOST_GAP = 0.8
"""Largest gap at a handle, as a share of the larger circumference."""

STRAIGHT = 1e-6
"""Difference of the circumferences, divided by the slant, below which a wall counts as straight."""


@dataclass(frozen=True)
class Cone:
    """A tapered wall, unrolled with its middle upright.

    The apex of the cone lies below the piece of ring where the cup is wider at the top, above it where the
    cup is wider at the bottom. Lengths are in mm. Points of the flat count from the top left corner of the
    ring's bounding box; points of the *level* rectangle (``round_mm`` wide, ``slant_mm`` high) from its top
    left corner, which is the seam at the rim.

    Attributes:
        top_mm, bottom_mm: the circumferences all round.
        gap_mm: what stays bare at a handle, measured along the larger circumference. The ends of the wrap are cut
            towards the apex, so that the gap narrows as the cup does.

    Source: the closed form of a right circular frustum's development (any text on descriptive geometry).
    """

    top_mm: float
    bottom_mm: float
    height_mm: float
    gap_mm: float = 0.0

    @property
    def slant_mm(self) -> float:
        """Length of the wall from rim to foot."""
        return math.hypot(self.height_mm, (self.top_mm - self.bottom_mm) / (2 * math.pi))

    @property
    def round_mm(self) -> float:
        """The length of the outer arc: the larger circumference without the gap at a handle."""
        return max(self.top_mm, self.bottom_mm) - self.gap_mm

    @property
    def widens_down(self) -> bool:
        """Whether the foot is wider than the rim."""
        return self.bottom_mm > self.top_mm

    @property
    def outer_radius_mm(self) -> float:
        """Distance from the apex to the longer edge."""
        return self.slant_mm * max(self.top_mm, self.bottom_mm) / abs(self.top_mm - self.bottom_mm)

    @property
    def inner_radius_mm(self) -> float:
        """Distance from the apex to the shorter edge."""
        return self.outer_radius_mm - self.slant_mm

    @property
    def sweep_rad(self) -> float:
        """Angle of the ring segment."""
        return self.round_mm / self.outer_radius_mm

    @property
    def box_mm(self) -> tuple[float, float]:
        """Width and height of the ring segment's bounding box."""
        half = self.sweep_rad / 2
        outer, inner = self.outer_radius_mm, self.inner_radius_mm
        w = 2 * outer * math.sin(min(half, math.pi / 2))
        return w, outer - (inner if half < math.pi / 2 else outer) * math.cos(half)

    def holds_bleed(self, bleed_mm: float) -> bool:
        """Return whether the ring, grown by a bleed on all sides, still lies flat without overlapping itself or reaching the
        apex."""
        turns = self.sweep_rad * (1 + 2 * bleed_mm / self.round_mm) / (2 * math.pi)
        return turns < 1 and bleed_mm < self.inner_radius_mm

    def to_flat(self, x: Any, y: Any) -> tuple[Any, Any]:
        """Map points of the level rectangle to the flat; arrays or numbers, in mm."""
        w, h = self.box_mm
        angle = (np.asarray(x) / self.round_mm - 0.5) * self.sweep_rad
        radius = self.outer_radius_mm - (self.slant_mm - np.asarray(y) if self.widens_down else np.asarray(y))
        fx, fy = w / 2 + radius * np.sin(angle), self.outer_radius_mm - radius * np.cos(angle)
        return fx, (h - fy if self.widens_down else fy)

    def to_level(self, x: Any, y: Any) -> tuple[Any, Any]:
        """Map points of the flat to the level rectangle: the reverse of :meth:`to_flat`."""
        w, h = self.box_mm
        down = (h - np.asarray(y)) if self.widens_down else np.asarray(y)
        dx, dy = np.asarray(x) - w / 2, self.outer_radius_mm - down
        level_y = self.outer_radius_mm - np.hypot(dx, dy)
        return (
            (np.arctan2(dx, dy) / self.sweep_rad + 0.5) * self.round_mm,
            self.slant_mm - level_y if self.widens_down else level_y,
        )

    def outline(self, grown_mm: float = 0.0, points: int = 96) -> list[tuple[float, float]]:
        """Return the ring's outline on the flat, ``grown_mm`` past its edges, clockwise from the rim's left end."""
        xs = np.linspace(-grown_mm, self.round_mm + grown_mm, points)
        top = self.to_flat(xs, np.full(points, -grown_mm))
        foot = self.to_flat(xs[::-1], np.full(points, self.slant_mm + grown_mm))
        return [(float(x), float(y)) for part in (top, foot) for x, y in zip(*part, strict=True)]


def cone_from_measures(top_mm: float, bottom_mm: float, height_mm: float, gap_mm: float = 0.0) -> Cone | None:
    """Return a cup's wall from its circumferences, its upright height and its gap at a handle; None for a straight wall.

    Raises:
        TemplateError: measures that no cup has.
    """
    for value, name in ((top_mm, "circumference at the top"), (bottom_mm, "circumference at the bottom")):
        if not (math.isfinite(value) and LEAST_ROUND_MM <= value <= MOST_ROUND_MM):
            raise TemplateError(f"A {name} of {value:g} mm cannot be: measure round the blank, 10 mm to 5 m.")
    if not (math.isfinite(height_mm) and LEAST_HEIGHT_MM <= height_mm <= MOST_HEIGHT_MM):
        raise TemplateError(f"A height of {height_mm:g} mm cannot be: measure from rim to foot, 3 mm to 3 m.")
    spread = abs(top_mm - bottom_mm) / (2 * math.pi)
    taper = math.degrees(math.atan2(spread, height_mm))
    if taper > MOST_TAPER_DEG:
        raise TemplateError(
            f"These measures make a wall that leans {taper:.0f}° out of the upright, more a plate than a cup: "
            "measure the circumferences and the height again."
        )
    if not 0 <= gap_mm < MOST_GAP * max(top_mm, bottom_mm):
        raise TemplateError("The gap at the handle is nearly as wide as the blank is round: measure it again.")
    cone = Cone(top_mm, bottom_mm, height_mm, gap_mm)
    return None if spread * 2 * math.pi / cone.slant_mm < STRAIGHT else cone
