"""A T-shirt on a hanger. Lengths in cm; x right, y away from the viewer, z up; the shirt's neck is at the origin."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import JERSEY
from studio.cloth.mesh import Cloth, sew
from studio.cloth.obstacles import Obstacle
from studio.cloth.simulation import Simulation
from studio.draped import tshirt
from studio.draped.tshirt import Cut
from studio.draped.tshirt_worn import finished, placed
from studio.shapes import spline

Points = NDArray[np.float64]

THICK, TALL = 0.9, 1.7
"""Half of the hanger's thickness and of its height."""

FALLING, RESTING = 150, 40


def arms(count: int = 81) -> Points:
    """Return the middle line (count, 3) of the hanger's arms, from left to right."""
    right = [(0.0, 0.4), (5.0, -0.6), (11.0, -2.6), (17.0, -4.9), (21.3, -6.9)]
    flat = spline([*((-x, z) for x, z in right[:0:-1]), *right], count)
    return np.column_stack([flat[:, 0], 0.0012 * flat[:, 0] ** 2, flat[:, 1]])


def hanger() -> Callable[[Points], Points]:
    """Return the distance from the hanger: a flat bar along its arms."""
    line = arms(161)

    def distance(points: Points) -> Points:
        shape = points.shape[:-1]
        flat = points.reshape(-1, 3)
        nearest = np.full(len(flat), np.inf)
        for at in line:
            away = np.abs(flat - at)
            out = np.maximum(away - [0.15, 0.0, TALL - THICK], 0)
            nearest = np.minimum(nearest, np.linalg.norm(out, axis=1) - THICK)
        return nearest.reshape(shape)

    return distance


def hung(shirt: Cut) -> Cloth:
    """Return a shirt that hangs still on a hanger. Its mesh must be finer than the hanger is thick."""
    panels = tshirt.panels(shirt)
    at = placed(shirt, panels, np.array([0.0, 0.0, 1.6]), lambda x, z: 0.0 * x)
    cloth = sew(panels, at, tshirt.SEAMS, JERSEY)
    bar = Obstacle.of(hanger(), (-26.0, -6.0, -14.0), (26.0, 6.0, 6.0), 0.4, 0.5)
    finished(shirt, cloth)
    simulation = Simulation(cloth, [bar], damping=4.0, fastest=50.0)
    simulation.run(FALLING)
    simulation.damping = 12.0
    simulation.run(RESTING)
    return cloth
