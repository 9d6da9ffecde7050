"""A throw blanket: thrown over a chair, spread over a bed, folded. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import FLEECE
from studio.cloth.mesh import Cloth, finer, unsewn
from studio.cloth.obstacles import Obstacle, box
from studio.cloth.panels import rectangle
from studio.cloth.simulation import Simulation
from studio.draped.laid import waves

Points = NDArray[np.float64]

SPACING, FOLDED_SPACING = 2.6, 1.9
HEM = 2.2
FASTEST = 150.0

PLIED = replace(FLEECE, thickness=0.5)
"""Fleece in layers, which keep their pile between them."""


def hung(
    wide: float,
    long: float,
    obstacle: Obstacle,
    way: Points,
    start: float,
    aside: float = 0.0,
    turn_deg: float = 8.0,
    seed: int = 4,
) -> Cloth:
    """Return a blanket that was thrown over something and came to rest.

    Args:
        wide: of the blanket.
        long: of the blanket, along the way that it hangs.
        obstacle: what it hangs over.
        way: (n, 2) y and z of a line above the obstacle that it follows at first, from its head to its foot.
        start: length of it that lies before the line's first point in a straight prolongation.
        aside: x of its middle.
        turn_deg: by how much it lies askew.
        seed: of its creases.
    """
    panel = rectangle("front", wide, long, SPACING, seed)
    x, y = panel.flat[:, 0] - wide / 2, long - panel.flat[:, 1]
    turn = np.radians(turn_deg)
    x, y = np.cos(turn) * x - np.sin(turn) * (y - long / 2), np.sin(turn) * x + np.cos(turn) * (y - long / 2) + long / 2
    steps = np.append(0, np.cumsum(np.linalg.norm(np.diff(way, axis=0), axis=1)))
    along = y - start
    at = np.stack([np.interp(along, steps, way[:, axis]) for axis in (0, 1)], axis=-1)
    before, after = np.minimum(along, 0), np.maximum(along - steps[-1], 0)
    first, last = (step / np.linalg.norm(step) for step in (way[1] - way[0], way[-1] - way[-2]))
    at += before[:, None] * first + after[:, None] * last
    high = 0.9 * waves(x, y, seed)
    placed = np.column_stack([0.97 * x + aside + 0.4 * waves(x, y, seed + 1), at[:, 0], at[:, 1] + high])
    return settled(unsewn(panel, placed, FLEECE), obstacle)


def spread(
    wide: float,
    long: float,
    obstacle: Obstacle,
    middle: tuple[float, float, float],
    pushed: float = 0.03,
    high: float = 1.6,
    seed: int = 6,
) -> Cloth:
    """Return a blanket that was spread out by hand, pushed together a little so that folds stay over.

    Args:
        wide: of the blanket, along x.
        long: of the blanket, along y, its head away from the viewer.
        obstacle: what it comes to lie on.
        middle: over which its lowest points hang at first.
        pushed: share by which it is pushed together.
        high: height of the waves in which it is put down.
        seed: of its creases.
    """
    panel = rectangle("front", wide, long, SPACING, seed)
    x, y = panel.flat[:, 0] - wide / 2, panel.flat[:, 1] - long / 2
    rim = np.minimum(wide / 2 - np.abs(x), long / 2 - np.abs(y))
    wave = high * (1.6 + waves(x, y, seed)) * (0.25 + 0.75 * np.clip(rim / 14, 0, 1))
    turn = np.radians(1.5)
    px, py = (1 - pushed) * x + 0.4 * waves(x, y, seed + 1), (1 - pushed) * y + 0.4 * waves(x, y, seed + 2)
    placed = np.column_stack(
        [np.cos(turn) * px - np.sin(turn) * py, np.sin(turn) * px + np.cos(turn) * py, np.maximum(wave, 0.3)]
    )
    placed += middle
    return settled(unsewn(panel, placed, FLEECE), obstacle)


def folded(wide: float, long: float, seed: int = 7) -> Cloth:
    """Return a blanket folded to eight layers on a level ground: all four sides under, then once across, its folds towards the viewer."""
    panel = rectangle("front", wide, long, FOLDED_SPACING, seed)
    x, y = panel.flat[:, 0] - wide / 2, panel.flat[:, 1] - long / 2
    z = 0.05 * waves(x, y, seed)
    right, z = _under(np.abs(x), z, wide / 4)
    x = np.sign(x) * right
    back, z = _under(np.abs(y), z, long / 4)
    y = np.sign(y) * back
    forward, z = _under(-y, z, 0.0)
    placed = np.column_stack([x + 0.3 * waves(x, y, seed + 1), -forward - long / 8, z - z.min() + 0.8 * PLIED.thickness])
    ground = Obstacle.of(box((0, 0, -5), (140, 120, 10)), (-60, -50, -6), (60, 50, 14), 1.0, 0.6)
    cloth = unsewn(panel, placed, PLIED)
    cloth.press(0.9)
    return settled(cloth, ground, (60, 0, 40))


def _under(along: Points, z: Points, at: float) -> tuple[Points, Points]:
    """Fold a sheet, or layers of it, under about a line at a distance ``at``: no length changes."""
    centre = float(z.min()) - 0.62 * PLIED.thickness
    radius = z - centre
    beyond = np.maximum(along - at, 0)
    turn = np.minimum(beyond / radius, np.pi)
    back = np.maximum(beyond - np.pi * radius, 0)
    return np.minimum(along, at) + radius * np.sin(turn) - back, centre + radius * np.cos(turn)


def finished(cloth: Cloth, wide: float, long: float) -> None:
    """Give a blanket its hems."""
    flat = cloth.flat.reshape(-1, 2)
    inward = np.minimum.reduce([flat[:, 0], flat[:, 1], wide - flat[:, 0], long - flat[:, 1]])
    hemmed = np.zeros(len(cloth.at), bool)
    hemmed[cloth.triangles.ravel()[inward < HEM]] = True
    cloth.double(hemmed, 1.6)


def settled(cloth: Cloth, obstacle: Obstacle, frames: tuple[int, int, int] = (130, 70, 40)) -> Cloth:
    """Let a blanket fall, give it four triangles for each one, let it settle, and rest; ``frames`` of each, none of the second keeps it coarse."""
    wide, long = cloth.flat.reshape(-1, 2).max(axis=0).tolist()
    falling, settling, resting = frames
    finished(cloth, wide, long)
    simulation = Simulation(cloth, [obstacle], damping=3.0, fastest=FASTEST)
    simulation.run(falling)
    if settling:
        cloth = finer(cloth)
        finished(cloth, wide, long)
        simulation = Simulation(cloth, [obstacle])
    simulation.damping, simulation.fastest = 5.0, 40.0
    simulation.run(settling)
    simulation.damping = 14.0
    simulation.run(resting)
    return cloth
