"""Measure on a photograph of a sewn sample how far a panel was sewn from its nominal place."""

from __future__ import annotations

import numpy as np

from ..errors import PlacementError
from ..template import Panel
from .motion import Points

LEAST_PX = 20.0
FARTHEST_MM = 100.0

Point = tuple[float, float]


def known_points(panel: Panel) -> tuple[Point, Point]:
    """Return the ends of a panel's highest stretch, left and right, in mm of its trim: corners that are easy to find on a
    sample."""
    line = np.array(panel.line())
    top = line[line[:, 1] <= line[:, 1].min() + 0.02 * np.ptp(line[:, 1])]
    left, right = top[top[:, 0].argmin()], top[top[:, 0].argmax()]
    return (float(left[0]), float(left[1])), (float(right[0]), float(right[1]))


def measure_shift(known_mm: tuple[Point, Point], known_px: Points, on_px: Points, off_px: Points) -> Point:
    """Return how far to the right and down of its nominal place a panel was sewn, in mm.

    Args:
        known_mm: two points of the panel.
        known_px: where the photograph, taken straight from above, shows them, (2, 2).
        on_px: where a line of the design meets the panel's edge from outside.
        off_px: where the same line goes on upon the panel.

    Raises:
        PlacementError: the points lie upon each other, or are too far apart to be a seam's.
    """
    a, b = (np.array(p) for p in known_mm)
    wanted, measured = complex(*(b - a)), complex(*(known_px[1] - known_px[0]))
    if abs(measured) < LEAST_PX:
        raise PlacementError("The two corners lie upon each other: drag each to its place on the photograph.")
    # one rotation and one scale map the panel to the photograph; with both undone, the rest is in mm of the panel
    moved = (complex(*off_px) - complex(*on_px)) / (measured / wanted)
    if abs(moved) > FARTHEST_MM:
        raise PlacementError(
            f"These points are {abs(moved):.0f} mm apart, more than a seam is ever off: mark one line's two ends."
        )
    return moved.real, moved.imag
