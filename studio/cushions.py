"""The square pillow as it lies: on boards, in an armchair, on a bed. Lengths in cm."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from studio import armchair
from studio.bodies import IN
from studio.cloth.obstacles import Obstacle, box, joined
from studio.cloth.surface import Surface
from studio.draped import pillow
from studio.kept import kept_surface

Points = NDArray[np.float64]

SIDE = 18.1 * IN
POINTS = 420
"""Of a side of a rendered sheet."""

BOARDS = Obstacle.of(box((0, 0, -4), (160, 160, 8)), (-44, -44, -6), (44, 44, 4), 1.0, 0.5)


def sheet(surface: Surface, half: str) -> Points:
    """Return a half of a pillow as a grid of points (rows, columns, 3): its head first, its left side first."""
    u, v = np.meshgrid(np.linspace(0, 1, POINTS), np.linspace(0, 1, POINTS))
    return surface.over(half, np.stack([u, 1 - v], -1) * SIDE)


@cache
def lying() -> Surface:
    """Return it on boards, its front up, turned a little."""
    c, s = np.cos(np.deg2rad(7)), np.sin(np.deg2rad(7))
    turned = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]) @ np.array([[1.0, 0, 0], [0, 0, 1], [0, -1, 0]])
    return kept_surface("pillow-lying", pillow, lambda: pillow.put_down(SIDE, turned, np.array([0.0, 0.0, 8.5]), [BOARDS]))


@cache
def in_armchair() -> Surface:
    """Return it in the armchair's corner, leaning on back and arm."""
    turned = Rotation.from_euler("xyz", (-20, 4, -9), degrees=True).as_matrix()
    return kept_surface(
        "pillow-armchair",
        (pillow, armchair),
        lambda: pillow.put_down(SIDE, turned, np.array([5.0, -2.0, 74.0]), [armchair.obstacle(0.45)]),
    )


@cache
def leaning() -> Surface:
    """Return it on a bench's seat at z = 0, leaning on a wall whose face is at y = 13."""
    corner = joined(box((0, 0, -6), (160, 160, 12)), box((0, 23, 40), (160, 20, 120)))
    place = Obstacle.of(corner, (-44, -40, -8), (44, 20, 66), 1.0, 0.6)
    turned = Rotation.from_euler("xyz", (-13, 1.5, -5), degrees=True).as_matrix()
    return kept_surface("pillow-leaning", pillow, lambda: pillow.put_down(SIDE, turned, np.array([0.0, 1.0, 26.0]), [place]))
