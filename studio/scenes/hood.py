"""Half a hood lying round its opening: where each of its points lies on the cut panel, with lengths as true as they can be.

A flat ring cannot have a straight-edged panel's lengths exactly: what lies outside is longer than the cloth. The map sought
is the smooth one that stretches least all over, with the seams' points where they are sewn and the edge of the opening free
to roll in, as cloth does.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.optimize import least_squares

Plane = NDArray[np.float64]
DEGREE = 4
STEP = 5.0
"""Between the points where stretch is measured, in mm."""
POWERS = [(i, j) for i in range(DEGREE + 1) for j in range(DEGREE + 1 - i)]
UNIT = 100.0
"""Of the polynomials' arguments, in mm, that their coefficients be of one size."""


def _terms(at: Plane, right: int = 0, down: int = 0) -> Plane:
    """Each term of the polynomials at canvas points (…, 2), or its first derivative to the right or downwards, per mm."""
    x, y = at[..., 0] / UNIT, at[..., 1] / UNIT

    def power(base: Plane, n: int, slope: int) -> Plane:
        return n * base ** max(n - 1, 0) / UNIT if slope else base**n

    return np.stack([power(x, i, right) * power(y, j, down) for i, j in POWERS], -1)


def along(line: Plane, mm: Plane) -> Plane:
    """The points so many mm from the beginning of a line."""
    run = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
    return np.stack([np.interp(mm, run, line[:, axis]) for axis in (0, 1)], -1)


def lying_points(outline: Plane, mouth: Plane) -> Plane:
    """Points of the right half of a hood between its outline and its opening, evenly spread: (n, 2) mm."""
    cloth = shapely.difference(shapely.Polygon(outline), shapely.Polygon(mouth))
    low, high = outline.min(0), outline.max(0)
    grid = np.stack(np.meshgrid(np.arange(1, high[0], STEP), np.arange(low[1], high[1], STEP)), -1).reshape(-1, 2)
    return np.asarray(grid[shapely.contains_xy(cloth, grid)])


def truest_map(outline: Plane, mouth: Plane, seam: Plane, scale: float) -> Callable[[Plane], Plane]:
    """A map from the canvas to the panel of the half that lies right.

    Args:
        outline: of the hood on the canvas, (n, 2) mm; ``mouth`` of its opening.
        seam: on the panel, from the opening to behind, (n, 2) mm; on the canvas it runs up from the opening's top at x = 0.
        scale: mm on the canvas a mm of the panel.

    Returns:
        A function of canvas points (…, 2) giving panel points in mm.
    """
    points, n = lying_points(outline, mouth), len(POWERS)
    right, down, here = _terms(points, 1, 0), _terms(points, 0, 1), _terms(points)
    up = np.arange(mouth[:, 1].min(), outline[:, 1].min(), -STEP)
    sewn = _terms(np.stack([0 * up, up], -1))
    wanted = along(seam, (up[0] - up) / scale)

    def faults(solution: Plane) -> Plane:
        u, v = solution[:n], solution[n:]
        du, dv = scale * np.array([right @ u, down @ u]), scale * np.array([right @ v, down @ v])
        stretch = [
            (du[0] ** 2 + dv[0] ** 2 - 1) / 2,
            (du[1] ** 2 + dv[1] ** 2 - 1) / 2,
            (du[0] * du[1] + dv[0] * dv[1]) / 2**0.5,
        ]
        beyond = 0.3 * np.minimum(here @ u, 0)  # the panel ends at its opening
        return np.concatenate([*stretch, beyond, *(0.3 * (sewn @ np.stack([u, v], -1) - wanted).T)])

    begin = np.zeros(2 * n)
    begin[POWERS.index((1, 0))] = begin[n + POWERS.index((0, 1))] = UNIT / scale
    begin[n + POWERS.index((0, 0))] = seam[0, 1] - mouth[:, 1].min() / scale
    solution = least_squares(faults, begin).x.reshape(2, n)
    return lambda at: _terms(np.asarray(at)) @ solution.T
