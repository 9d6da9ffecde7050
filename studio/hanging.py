"""What garments hang on: a wooden hanger with a steel hook, on a peg of a wall or on a rail. Lengths in cm; the garment's neck is at the origin."""

from __future__ import annotations

from typing import Any

import numpy as np

from studio import shapes
from studio.draped import tshirt_hung
from studio.stage import STEEL, Stage, rgb
from studio.things import both

Place = tuple[float, float, float]

HOOK: list[tuple[float, ...]] = [
    (x, 0.0, z) for x, z in ((0.0, 1.0), (0.0, 4.4), (1.0, 6.0), (2.6, 7.4), (2.2, 9.4), (0.2, 9.8), (-1.5, 8.6), (-1.7, 7.4))
]
INSIDE = 8.75
"""Height of what the hook hangs over."""


def put_hanger(stage: Stage, colour: Place) -> dict[str, Any]:
    """Put a hanger and its hook on the stage, and return its wood."""
    line = tshirt_hung.arms() - [0, 0, 0.35]  # the cloth's triangles cut a little off the bar that it lies on
    wide = np.full((len(line), 2), (tshirt_hung.THICK - 0.4, tshirt_hung.TALL - 0.5))
    wood = both(stage.coat(rgb(*colour), 0.4, 0.4))
    stage.add("hanger", shapes.tube(line, wide, stage.folder / "hanger.ply", squareness=3), wood)
    hook = shapes.spline(HOOK, 160)
    stage.add("hook", shapes.tube(hook, np.full((160, 2), 0.17), stage.folder / "hook.ply", around=24, squareness=2), STEEL)
    return wood


def on_peg(stage: Stage, wall: float, wood: dict[str, Any]) -> None:
    """A wooden peg from a wall at y = ``wall``."""
    peg = np.stack([np.full(40, 0.3), np.linspace(-1.4, wall, 40), np.full(40, INSIDE)], axis=1)
    stage.add("peg", shapes.tube(peg, shapes.rounded(40, 0.75), stage.folder / "peg.ply", side=(1, 0, 0), squareness=2), wood)


def on_rail(stage: Stage, wide: float = 260.0) -> None:
    """A steel rail along x."""
    rail = np.stack([np.linspace(-wide / 2, wide / 2, 40), np.zeros(40), np.full(40, INSIDE - 0.5)], axis=1)
    steel = stage.coat(rgb(0.05, 0.05, 0.055), 0.35, 0.4)
    stage.add("rail", shapes.tube(rail, np.full((40, 2), 0.9), stage.folder / "rail.ply", side=(0, 0, 1), squareness=2), steel)
