"""A garden flag on its bar, moved by a breath of wind. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import POLYESTER
from studio.cloth.mesh import Cloth, unsewn
from studio.cloth.panels import rectangle
from studio.cloth.simulation import FRAME_S, Simulation
from studio.cloth.surface import Surface

Points = NDArray[np.float64]

SPACING = 0.8
FRAMES = 200
SLEEVE = 0.62
"""Radius of the sleeve that the bar is pushed through, cm."""

GATHERED = 0.95
"""Width of the sleeve on the bar against that of the cloth: it is never pulled quite flat, so that folds hang from it."""

HEM = 1.0
WAVES = ((1.7, 0.7, 1.1), (3.3, 2.1, 0.5))
"""Of the cloth when it begins to fall: how many over its width, the phase, and the height in cm."""


def hung(width: float, height: float, top: float) -> Cloth:
    """Return the flag as it is hung, before it moves: its upper edge lies over the front of the sleeve."""
    panel = rectangle("front", width, height, SPACING, seed=5)
    x, down = panel.flat[:, 0] - width / 2, height - panel.flat[:, 1]
    turn = np.minimum(down / SLEEVE, np.pi / 2)
    hanging = np.maximum(down - SLEEVE * np.pi / 2, 0)
    wave = np.sum([tall * np.sin(2 * np.pi * count * x / width + phase) for count, phase, tall in WAVES], axis=0)
    away = -SLEEVE * np.sin(turn) + wave * (1 - np.exp(-hanging / 6))
    at = np.column_stack([GATHERED * x, away, top + SLEEVE * np.cos(turn) - hanging])
    cloth = unsewn(panel, at, POLYESTER)
    cloth.double((np.minimum(panel.flat[:, 0], width - panel.flat[:, 0]) < HEM) | (panel.flat[:, 1] < HEM), 2)
    cloth.hold(down <= SLEEVE * np.pi / 2 + 0.2)
    return cloth


def wind(seconds: float) -> Points:
    """Return the velocity of the air, (3,) in cm/s: a breath from the front that swells and turns."""
    return np.array(
        [
            35 + 30 * np.sin(2.1 * seconds + 0.4),
            40 + 50 * np.sin(1.7 * seconds + 1.0) + 25 * np.sin(4.3 * seconds),
            3 * np.sin(3.0 * seconds),
        ]
    )


def in_the_wind(width: float, height: float, top: float, frames: int = FRAMES) -> Surface:
    """Return the flag as it moves after some frames."""
    simulation = Simulation(hung(width, height, top), damping=0.8)
    for frame in range(frames):
        simulation.wind = wind(frame * FRAME_S)
        simulation.run(1)
    return Surface.of(simulation.cloth)
