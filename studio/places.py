"""Captured places with a table in them: their light, and what is seen out of focus behind."""

from __future__ import annotations

from functools import cache
from importlib import resources
from typing import Any

import cv2
import mitsuba as mi
import numpy as np

from improva.core.colour import LINEAR_OF_BYTE
from improva.surfaces import SURFACES
from studio import light, shapes, surfaces, things
from studio.sets import grounds
from studio.stage import Stage, rgb


def in_shade_of_trees(stage: Stage) -> None:
    """Light from a clearing on the left."""
    light.place(stage, "forest", 150, 2.5, 0.8)
    stage.softbox("clearing", (-150, -90, 150), (0, 0, 12), 70, 70, (12.0, 11.5, 10.2))


def on_a_meadow(stage: Stage) -> None:
    """The sun low on the right."""
    light.place(stage, "park", 84, 1.7, 0.9, (4.2, 3.8, 3.1), 2.0)


def in_a_hall(stage: Stage) -> None:
    """Windows along a wide grey hall."""
    light.place(stage, "warehouse", 150, (1.25, 1.22, 1.18), 0.9)
    stage.softbox("window", (-120, -70, 70), (0, 0, 12), 50, 90, (4.4, 4.5, 4.7))


def in_a_flat(stage: Stage) -> None:
    """Daylight from a window on the left."""
    light.place(stage, "apartment", 215, (0.95, 1.0, 1.08), 1.0)
    stage.softbox("window", (-120, -60, 60), (0, 0, 12), 60, 100, (5.6, 5.9, 6.3))


def among_rocks(stage: Stage) -> None:
    """Far hills in the last light, the sky's on the left."""
    light.place(stage, "dawn", 96, (1.55, 1.62, 1.25), 0.9)
    stage.softbox("sky", (-130, -80, 120), (0, 0, 12), 70, 90, (5.6, 5.2, 4.8))


def in_a_lobby(stage: Stage) -> None:
    """A wide room with a wooden floor, windows on the right."""
    light.place(stage, "lobby", -64, (0.77, 0.74, 0.95), 1.2)
    stage.softbox("window", (120, -70, 80), (0, 0, 12), 60, 100, (4.6, 4.8, 5.0))


def slab(stage: Stage) -> None:
    """A table with an end: what lies beyond it is the place."""
    w, d = 150.0, 62.0
    stage.table((w, d), (0, 12, 0), 0.45)
    under = shapes.block(w + 0.3, d + 0.3, -3.4, -0.02, 0.3, stage.folder / "slab.ply")
    stage.add("slab", under, stage.coat(rgb(0.23, 0.16, 0.10), 0.5, 0.2), stage.to.translate([0, 12, 0]))


FLOOR = (640.0, 520.0)
"""Of a room, cm."""

FURNITURE = ("table", "wall", "skirting", "chair", "bed", "mattress", "duvet", "cushion", "plant", "stand")
"""Shapes of a furnished room that belong to no product."""


def room_grounds(surface: str, wall: str) -> list[dict[str, Any]]:
    """Return the pack's entries of a room's floor and wall."""
    floor, behind = grounds(surface, wall)
    return [{**floor, "title": "Floor", "size_mm": [10 * v for v in FLOOR]}, behind]


@cache
def _boards(name: str) -> mi.Bitmap:
    """A shipped surface as linear reflectance."""
    file = resources.files("improva.surfaces").joinpath(f"{name}.jpg").read_bytes()
    pixels = np.asarray(cv2.imdecode(np.frombuffer(file, np.uint8), cv2.IMREAD_COLOR), np.uint8)[..., ::-1]
    return mi.Bitmap(np.ascontiguousarray(LINEAR_OF_BYTE.astype(np.float32)[pixels]))


def daylight_room(stage: Stage, back: float, fixed: tuple[str, tuple[float, float, float]] | None = None) -> None:
    """A room with boards, a plastered wall at ``back`` and a tall window on the left.

    Floor and wall are regions, or a shipped surface and a ``fixed`` colour.
    """
    floor = wall = None
    if fixed is not None:
        times = [10 * side / mm for side, mm in zip(FLOOR, SURFACES[fixed[0]].size_mm, strict=True)]
        floor = {"type": "bitmap", "bitmap": _boards(fixed[0]), "raw": True, "to_uv": stage.to.scale([*times, 1])}
        wall = rgb(*fixed[1])
    light.place(stage, "apartment", 200, (0.40, 0.42, 0.45), 2.2)
    stage.softbox("window", (-230, -70, 150), (0, -10, 45), 110, 170, (13.0, 12.6, 11.6))
    stage.table(FLOOR, (0, 0, 0), fixed=floor)
    stage.wall((640, 330), (0, back, 165), surfaces.trowelled(), wall)
    things.skirting(stage, back)
