"""Outlines and parts of hard goods: tumblers, mugs, pens. Lengths in centimetres; figures follow the templates that ship."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from studio import shapes

IN = 2.54
EDGE = 0.32


def girth(inches: float) -> float:
    """Radius in cm of what is so many inches round."""
    return inches * IN / (2 * math.pi)


@dataclass(frozen=True)
class Cup:
    """A tumbler: radii at the foot and the top of its print, how high the print is and where it starts."""

    foot_r: float
    top_r: float
    wrap: float
    foot: float = 0.55
    steel: float = 0.62

    @property
    def top(self) -> float:
        """Height of the print's upper edge."""
        return self.foot + self.wrap

    @property
    def lip(self) -> float:
        """Height of the steel rim."""
        return self.top + self.steel


STRAIGHT_20 = Cup(girth(9.3), girth(9.3), 8.2 * IN)
TAPERED_20 = Cup(girth(7.9), girth(9.7), 6.2 * IN, 0.3, 0.8)
TAPERED_30 = Cup(girth(8.8), girth(11.4), 7.1 * IN, 0.3, 0.9)
TRAVEL = Cup(girth(9.0), girth(9.0), 4600 / 600 * IN, 0.4, 1.4)


def foot(cup: Cup) -> shapes.Profile:
    """Base and the unprinted coat up to the print."""
    r = cup.foot_r
    edge = min(EDGE, cup.foot)
    return shapes.profile(
        [(0.05, 0.09), (r - 0.75, 0.09), (r - 0.55, 0.0)], shapes.arc((r - edge, edge), edge, -90, 0), [(r, cup.foot + 1e-4)]
    )


def wrap(cup: Cup) -> shapes.Profile:
    """The printed wall."""
    return shapes.profile([(cup.foot_r, cup.foot), (cup.top_r, cup.top)])


def steel(cup: Cup, rim: float = 0.11) -> shapes.Profile:
    """The bare band and rolled rim above the print, and some of the inside."""
    r, lip = cup.top_r, cup.lip
    return shapes.profile(
        [(r - 0.012, cup.top), (r - 0.03, lip - rim)], shapes.arc((r - rim, lip - rim), rim, 0, 180), [(r - 2 * rim, lip - 2.0)]
    )


def straw_lid(cup: Cup) -> shapes.Profile:
    """A lid that overhangs the rim, dished towards the straw's hole."""
    r, lip = cup.top_r, cup.lip
    out, top = r + 0.10, lip + 0.62
    return shapes.profile(
        [(r - 0.30, lip - 0.1), (r - 0.30, lip + 0.06), (out - 0.08, lip + 0.06)],
        shapes.arc((out - 0.08, lip + 0.14), 0.08, -90, 0, 5),
        shapes.arc((out - 0.17, top - 0.17), 0.17, 0, 90, 8),
        shapes.arc((out - 0.52, top - 0.10), 0.10, 90, 180, 5),
        shapes.arc((out - 0.72, top - 0.30), 0.10, 0, -90, 5),
        [(1.05, top - 0.40)],
        shapes.arc((0.95, top - 0.30), 0.10, -90, -180, 5),
        [(0.85, top - 0.14)],
        shapes.arc((0.77, top - 0.14), 0.08, 0, 90, 5),
        [(0.0, top - 0.06)],
    )


GROMMET = shapes.profile(shapes.arc((0.42, 0.0), 0.10, -90, 90, 9), [(0.33, 0.1), (0.33, -0.1)])
STRAW = shapes.profile([(0.31, -6.0), (0.31, 4.4)], shapes.arc((0.285, 4.4), 0.025, 0, 180, 6), [(0.26, 1.0)])


def press_lid(cup: Cup) -> shapes.Profile:
    """A lid pressed inside the rim: a raised collar, a dished top."""
    r, lip = cup.top_r, cup.lip
    out = r - 0.26
    return shapes.profile(
        [(out, lip - 0.8), (out, lip + 0.02), (r - 0.02, lip + 0.05)],
        shapes.arc((r - 0.06, lip + 0.20), 0.14, -70, 90, 9),
        shapes.arc((r - 0.55, lip + 0.26), 0.08, 90, 180, 5),
        shapes.arc((r - 0.78, lip - 0.02), 0.15, 0, -90, 6),
        [(0.0, lip - 0.14)],
    )


def screw_lid(cup: Cup) -> shapes.Profile:
    """A tall screw cap with a shoulder."""
    r, lip = cup.top_r, cup.lip
    return shapes.profile(
        [(r - 0.25, lip - 0.3), (r - 0.25, lip + 0.05), (r - 0.07, lip + 0.05)],
        shapes.arc((r - 0.10, lip + 0.14), 0.09, -70, 0, 5),
        [(r - 0.01, lip + 1.15)],
        shapes.arc((r - 0.31, lip + 1.15), 0.30, 0, 80, 9),
        [(r - 0.9, lip + 1.52)],
        shapes.arc((r - 1.15, lip + 1.72), 0.14, -60, -5, 5),
        shapes.arc((r - 1.25, lip + 2.05), 0.24, 0, 90, 7),
        [(0.0, lip + 2.33)],
    )


@dataclass(frozen=True)
class Mug:
    """A mug: circumference, print, bare gap at the handle and unprinted margins, all in cm."""

    wrap_w: float
    wrap_h: float
    gap: float
    above: float
    below: float

    @property
    def r(self) -> float:
        """Outer radius."""
        return (self.wrap_w + self.gap) / (2 * math.pi)

    @property
    def height(self) -> float:
        """From the table to the rim."""
        return self.below + self.wrap_h + self.above

    @property
    def gap_deg(self) -> float:
        """The bare stretch at the handle as an angle."""
        return 360 * self.gap / (self.wrap_w + self.gap)


MUG_11 = Mug(8.5 * IN, 3.5 * IN, 1.6 * IN, 0.25, 0.4)
MUG_15 = Mug(8.8 * IN, 4.25 * IN, 1.7 * IN, 0.3, 0.4)
WALL_CM = 0.42


def mug_shell(mug: Mug) -> shapes.Profile:
    """Foot ring, outer wall and the outside half of the rim, a hair's breadth inside the print."""
    r, h = mug.r, mug.height
    rim = WALL_CM / 2
    return shapes.profile(
        [(0.02, 0.22), (r - 1.0, 0.22), (r - 0.85, 0.0), (r - 0.60, 0.0)],
        shapes.arc((r - 0.34, 0.34), 0.34, -80, 0, 9),
        [(r, 0.5), (r, h - rim)],
        shapes.arc((r - rim, h - rim), rim, 0, 90, 9),
    )


def mug_inside(mug: Mug) -> shapes.Profile:
    """The inner half of the rim, the inner wall and the floor."""
    r, h = mug.r, mug.height
    rim, inner = WALL_CM / 2, mug.r - WALL_CM
    return shapes.profile(
        shapes.arc((r - rim, h - rim), rim, 90, 180, 9),
        [(inner, 2.0)],
        shapes.arc((inner - 1.3, 1.9), 1.3, 0, -90, 14),
        [(0.0, 0.58)],
    )


def mug_print(mug: Mug) -> shapes.Profile:
    """The printed wall."""
    return shapes.profile([(mug.r + 0.003, mug.below), (mug.r + 0.003, mug.below + mug.wrap_h)])


def mug_handle(mug: Mug) -> tuple[np.ndarray, np.ndarray]:
    """The handle's middle line (n, 3) towards +x and its half widths (n, 2): across, and along the line's plane."""
    r, h = mug.r, mug.height
    low, high, reach = 0.20 * h, 0.80 * h, 2.95
    path = shapes.spline(
        [
            (r - 0.25, 0, high - 0.1),
            (r + 0.55, 0, high + 0.1),
            (r + reach * 0.72, 0, high - 0.25),
            (r + reach, 0, 0.54 * h),
            (r + reach * 0.82, 0, 0.34 * h),
            (r + 0.85, 0, low + 0.15),
            (r - 0.25, 0, low),
        ],
        96,
    )
    s = np.linspace(0, 1, len(path))
    flare = np.exp(-(((s - 0) / 0.07) ** 2)) + np.exp(-(((s - 1) / 0.07) ** 2))
    across = 0.66 + 0.22 * flare
    along = 0.40 + 0.20 * flare
    return path, np.stack([across, along], 1)
