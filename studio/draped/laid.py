"""Lay a garment flat on a table, with the creases that hands leave. Lengths in cm; x right, y up in the picture, z towards the viewer."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from studio.cloth.mesh import Cloth, finer
from studio.cloth.obstacles import Obstacle, box
from studio.cloth.simulation import Simulation

Points = NDArray[np.float64]

TABLE_FRICTION = 0.6
PUSHED = 0.032
"""Share by which the cloth is pushed together when it is put down: what stays over becomes creases."""

WAVE_CM = 1.3
"""Height of the waves in which it is put down."""

FALLING, FINE, RESTING = 70, 50, 30
"""Frames: coarse, with four triangles for each one, and until it rests."""


def waves(x: Points, y: Points, seed: int) -> Points:
    """Return a random height about 0, of waves between 8 and 40 cm long in all directions."""
    rng = np.random.default_rng(seed)
    total = np.zeros_like(x)
    for _ in range(18):
        length, turn, phase = rng.uniform(8, 40), rng.uniform(0, np.pi), rng.uniform(0, 2 * np.pi)
        total += np.sin(2 * np.pi * (x * np.cos(turn) + y * np.sin(turn)) / length + phase) * length / 40
    return np.asarray(total / total.std())


def lay(cloth: Cloth, finished: Callable[[Cloth], None], seed: int) -> Cloth:
    """Return a garment at rest on a table at z = 0.

    Args:
        cloth: laid out flat, x right and z up, its layers apart in y; its nearer layer comes to lie on top.
        finished: gives a cloth its hems and seams.
        seed: of the creases.
    """
    x, y, z = cloth.at.T
    top = -(y - y.max()) + 0.25
    middle = np.array([x.mean(), z.mean()])
    waved = 0.5 + 0.5 * np.tanh(top / 2)
    cloth.at[:] = np.column_stack(
        [
            middle[0] + (1 - PUSHED) * (x - middle[0]) + 0.25 * waves(x, z, seed + 1),
            middle[1] + (1 - PUSHED) * (z - middle[1]) + 0.25 * waves(x, z, seed + 2),
            top + waved * WAVE_CM * (1.5 + waves(x, z, seed)),
        ]
    )
    low, high = cloth.at.min(axis=0) - 8, cloth.at.max(axis=0) + 8
    size = tuple((high - low + 40).tolist())
    table = Obstacle.of(
        box((float(low[0] + high[0]) / 2, float(low[1] + high[1]) / 2, -5.0), (size[0], size[1], 10.0)),
        (float(low[0]), float(low[1]), -6.0),
        (float(high[0]), float(high[1]), 4.0),
        1.0,
        TABLE_FRICTION,
    )
    finished(cloth)
    Simulation(cloth, [table], damping=6.0, fastest=40.0).run(FALLING)
    cloth = finer(cloth)
    finished(cloth)
    simulation = Simulation(cloth, [table], damping=6.0, fastest=30.0)
    simulation.run(FINE)
    simulation.damping = 14.0
    simulation.run(RESTING)
    return cloth
