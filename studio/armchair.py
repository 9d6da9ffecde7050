"""An upholstered armchair on wooden legs. Lengths in cm; its front faces -y, its middle stands on the origin."""

from __future__ import annotations

from functools import cache

import numpy as np

from studio import shapes, surfaces, upholstery
from studio.cloth.obstacles import Obstacle
from studio.people import field as fields
from studio.stage import Stage, relief_of, rgb
from studio.upholstery import Dent, Padded

PARTS = (
    Padded((60, 70, 15), (0, 0, 23.5), 2.5),
    Padded((57.5, 66, 17), (0, -3, 38.5), 4.5, (1.0, 1.0, 2.6), dents=[Dent((3, 6, 10), (17, 19, 14), 1.6)], piped=2, seed=1),
    Padded((60, 13, 62), (0, 31, 51), 4.0, (0, 0.6, 0.8), (-11, 0, 0), seed=2),
    Padded(
        (56.5, 17, 46),
        (0, 19.5, 65),
        5.5,
        (1.2, 2.8, 1.4),
        (-13, 0, 0),
        dents=[Dent((-4, -12, 2), (15, 10, 15), 1.5)],
        piped=1,
        seed=3,
    ),
    Padded((13, 76, 43), (-36.2, 0, 38), 4.2, (0.9, 0.6, 1.2), (0, -3, 0), piped=1, seed=4),
    Padded((13, 76, 43), (36.2, 0, 38), 4.2, (0.9, 0.6, 1.2), (0, 3, 0), piped=1, seed=5),
)
LEGS = ((-33, -31), (33, -31), (-33, 31), (33, 31))

CELL = 2.0
LOW, HIGH = np.array([-90.0, -95.0, -4.0]), np.array([90.0, 75.0, 112.0])
"""Corners of the space in which cloth may meet it."""

WAY = np.array(
    [
        (52.0, 64.0),
        (51.0, 88.0),
        (44.0, 99.0),
        (28.0, 101.0),
        (9.0, 93.0),
        (3.0, 74.0),
        (-8.0, 66.0),
        (-50.0, 65.0),
        (-62.0, 52.0),
    ]
)
"""y and z of a line over its back, down its cushions and over its seat's front."""


@cache
def obstacle(friction: float = 0.5) -> Obstacle:
    """Return it with the floor, as what cloth falls on."""
    grid = fields.grid(LOW, HIGH, CELL)
    whole = fields.bridged(upholstery.nearest(PARTS, grid), 3.0, CELL)
    return Obstacle(np.minimum(whole, grid[..., 2].astype(np.float32)) - np.float32(0.6), LOW, CELL, friction)


def put(stage: Stage, colour: tuple[float, float, float]) -> None:
    """Put it on the stage, covered with woven cloth of a colour."""
    weave = relief_of(surfaces.weave(1024, 44, seed=31))
    cloth = stage.cloth(rgb(*colour), weave, 0.035, sheen=0.35)
    upholstery.put(stage, "chair", PARTS, cloth, 8.0, stage.cloth(rgb(*(0.8 * v for v in colour)), sheen=0.3))
    outline = shapes.profile(shapes.arc((1.25, 0.25), 0.25, -90, 0, 5), [(1.5, 0.3), (2.4, 17.0)])
    wood = stage.coat(rgb(0.16, 0.085, 0.045), 0.38, 0.4)
    for number, (x, y) in enumerate(LEGS):
        lean = (
            stage.to.translate([x, y, 0])
            @ stage.to.rotate([1, 0, 0], 6 * np.sign(y))
            @ stage.to.rotate([0, 1, 0], -6 * np.sign(x))
        )
        stage.turned(f"chair@leg{number}", outline, wood, lean)
