"""A filled pillow: two squares sewn together, stuffed, and put down. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import GRAVITY, Material
from studio.cloth.mesh import Cloth, sew
from studio.cloth.obstacles import Obstacle
from studio.cloth.panels import rectangle
from studio.cloth.simulation import Simulation
from studio.cloth.surface import Surface

Points = NDArray[np.float64]

COVER = Material(density=0.14, bending=260.0, thickness=0.1, stretch=4e6)
"""Cotton canvas; its weight includes that of 500 g of stuffing."""

SPACING = 1.1
FILLED = 0.162
"""Volume against the cube of the side; 0.19 is the most that a square cover holds."""

PRESSURE = 6000.0
"""Of stuffing that has a third of its volume left to grow into, dyn/cm²."""

SUBSTEPS = 48
STUFFING, RESTING = 120, 100
"""Frames: until it is full, and until it lies still."""


def cover(side: float) -> Cloth:
    """Return the empty cover, upright about the origin, its front towards -y, its halves a little apart."""
    front, back = (rectangle(name, side, side, SPACING, seed=seed) for name, seed in (("front", 2), ("back", 9)))
    placed = {}
    for panel, sign in ((front, -1.0), (back, 1.0)):
        x, z = panel.flat[:, 0] - side / 2, panel.flat[:, 1] - side / 2
        apart = 1.2 * np.cos(np.pi * x / side) * np.cos(np.pi * z / side)
        placed[panel.name] = np.column_stack([-sign * x, sign * apart, z])
    seams = [
        (("front", one), ("back", other))
        for one, other in (("foot", "foot"), ("right", "left"), ("head", "head"), ("left", "right"))
    ]
    sewn = sew([front, back], placed, seams, COVER)
    sewn.double(np.abs(sewn.at[:, [0, 2]]).max(axis=1) > side / 2 - 0.3, 2.5)
    return sewn


def stuffing(cloth: Cloth, side: float) -> Points:
    """Return how much of the stuffing lies behind each triangle, (m,), about 1: less in the middle above, where it was knocked in."""
    middle = cloth.at[cloth.triangles].mean(axis=1)
    x, z = middle[:, 0] / side, middle[:, 2] / side
    dent = 0.5 * np.exp(-((x / 0.16) ** 2) - ((z - 0.42) / 0.3) ** 2)
    lumps = 0.12 * np.sin(9 * x + 2) * np.sin(7 * z + 1) + 0.08 * np.sin(15 * x - 8 * z)
    return np.asarray(1 + lumps - dent)


def put_down(side: float, turned: Points, at: Points, obstacles: Sequence[Obstacle]) -> Surface:
    """Return a pillow that is stuffed and then put down.

    Args:
        side: of the pillow in cm.
        turned: (3, 3) how it is turned when it is let go.
        at: (3,) where its middle is then.
        obstacles: what it comes to lie on.
    """
    cloth = cover(side)
    share, full, empty = stuffing(cloth, side), FILLED * side**3, cloth.volume()
    simulation = Simulation(cloth, substeps=SUBSTEPS, damping=8.0, gravity=np.zeros(3))

    grown = empty

    def pressed() -> Points:
        squeezed = grown / max(cloth.volume(), 1.0) - 1
        return share * (PRESSURE * min(max(3 * squeezed, 0.0), 1.5))

    def run(frames: int, begin: float) -> None:
        nonlocal grown
        for frame in range(frames):
            grown = begin + (full - begin) * min(1.0, 1.5 * frame / frames)
            simulation.run(1)

    simulation.pressure = pressed
    run(STUFFING, empty)
    cloth.at[:] = cloth.at @ turned.T + at
    simulation.velocity[:] = 0
    simulation.gravity, simulation.obstacles = np.array([0.0, 0.0, -GRAVITY]), obstacles
    run(RESTING, full)
    return Surface.of(cloth)
