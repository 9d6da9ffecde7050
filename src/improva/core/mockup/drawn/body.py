"""The profile of a round blank as a stack of bands, and a mug's handle, from template figures. Lengths in mm."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from ...colour import Floats
from ...template import Panel, Template

WALL_MM = 3.2


@dataclass(frozen=True)
class Band:
    """A frustum of the profile: height, radius and normal (outward, up) at both ends, and its material."""

    z: tuple[float, float]
    r: tuple[float, float]
    n0: tuple[float, float]
    n1: tuple[float, float]
    stuff: str


def _arc(centre: tuple[float, float], radius: float, start: float, end: float, stuff: str, steps: int = 7) -> list[Band]:
    """Return a rounded edge: points (outward, up) on a circle, angles in degrees from outward."""
    a = np.radians(np.linspace(start, end, steps))
    points = [(centre[0] + radius * math.cos(t), centre[1] + radius * math.sin(t), math.cos(t), math.sin(t)) for t in a]
    return [Band((p[1], q[1]), (p[0], q[0]), (p[2], p[3]), (q[2], q[3]), stuff) for p, q in pairwise(points)]


@dataclass(frozen=True)
class Body:
    """Dimensions of a round blank in mm: radii and heights of the print, and the parts above and below it."""

    foot_r: float
    rim_r: float
    height: float
    above: float
    below: float
    top: str
    handle: bool

    @property
    def full(self) -> float:
        """Height without a lid."""
        return self.height + self.above + self.below

    def radius(self, z: float) -> float:
        """Outer radius at a height above the table."""
        return self.foot_r + (self.rim_r - self.foot_r) * (z - self.below) / self.height

    def handle_reach(self, angle_deg: float) -> float:
        """Return how far a handle at an angle extends beyond the body, positive to the right; 0 without a handle or with one
        behind."""
        return math.copysign(0.36 * self.full, angle_deg) if self.handle and angle_deg else 0.0

    @property
    def widest(self) -> float:
        """The larger of the radii."""
        return max(self.radius(0), self.radius(self.full))


def band_of(panel: Panel) -> tuple[float, float, float]:
    """Return a round panel's radii at foot and rim, and its height along the axis, in mm."""
    if panel.cone is not None:
        return panel.cone.bottom_mm / 2 / math.pi, panel.cone.top_mm / 2 / math.pi, panel.cone.height_mm
    r = (panel.trim_mm[0] + panel.gap_mm) / 2 / math.pi
    return r, r, panel.trim_mm[1]


def body_figures(template: Template) -> Body:
    """Derive a blank's dimensions from its template: the print is as wide as the circumference minus the handle gap."""
    panel, looks = template.panels[0], template.looks
    foot_r, rim_r, height = band_of(panel)
    return Body(
        foot_r,
        rim_r,
        height,
        float(looks.get("above", 4)),
        float(looks.get("below", 3)),
        str(looks.get("top", "open")),
        bool(looks.get("handle")) or panel.gap_mm > 0,
    )


def profile(body: Body) -> list[Band]:
    """Return the bands of a body from the foot up."""
    edge = min(2.4, body.below + 0.6)
    slope = (body.rim_r - body.foot_r) / body.height
    lean = math.hypot(1, slope)
    n = (1 / lean, -slope / lean)
    metal = body.top in ("lid", "cap")
    low = "coat"
    bands = _arc((body.radius(0) - edge, edge), edge, -90, 0, low)
    if body.below > edge:
        bands.append(Band((edge, body.below), (body.radius(edge), body.radius(body.below)), n, n, low))
    start, stop = max(edge, body.below), body.below + body.height
    bands.append(Band((start, stop), (body.radius(start), body.radius(stop)), n, n, "print"))
    rim = body.full - 1.6
    bands.append(Band((stop, rim), (body.radius(stop), body.radius(rim)), n, n, "steel" if metal else "coat"))
    r = body.radius(rim)
    if metal:
        bands += _arc((r - 1.4, rim), 1.4, 0, 90, "steel", 5)
        z, lid = body.full - 0.2, r - 0.4
        tall = max(5.0, 0.055 * body.full)
        bands.append(Band((z, z + tall), (lid, lid - 0.6), (1, 0.1), (1, 0.1), "lid"))
        bands += _arc((lid - 0.6 - 2.2, z + tall), 2.2, 4, 90, "lid")
        bands.append(Band((z + tall + 2.2, z + tall + 1.2), (lid - 2.8, 0.01), (0, 1), (0, 1), "lid"))
    else:
        half = WALL_MM / 2
        bands += _arc((r - half, rim), half, 0, 180, "coat", 9)
        floor = body.below + 2
        bands.append(Band((rim, floor), (r - WALL_MM, body.radius(floor) - WALL_MM), (-1, 0), (-1, 0), "inside"))
        bands.append(Band((floor, floor - 0.01), (body.radius(floor) - WALL_MM, 0.01), (0, 1), (0, 1), "inside"))
    return bands


def handle_line(body: Body, angle_deg: float) -> list[tuple[Floats, Floats]]:
    """Return the centre line of a mug's handle as pairs of points (3,) in mm. The handle is at the back at 0° and turns with the mug."""
    z_low, z_high = 0.16 * body.full, 0.84 * body.full
    t = np.linspace(-1, 1, 27)
    out = 0.33 * body.full * np.sqrt(np.clip(1 - np.abs(t) ** 2.6, 0, 1))
    z = (z_low + z_high) / 2 + t * (z_high - z_low) / 2
    r = np.array([body.radius(float(h)) for h in z]) - 1.5 + out
    turn = math.radians(90 - angle_deg)  # the right side comes to the front, so the back goes to the right
    points = np.stack([r * math.cos(turn), r * math.sin(turn), z], -1).astype(np.float32)
    return list(pairwise(points))
