"""The square pillow: in an armchair, on a bed, on a bench, and lying on boards."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import armchair, bed, cushions, places, shapes, surfaces, things
from studio.bake import Scene
from studio.cloth.surface import Surface
from studio.sets import books, grounds, pack, room, studio_light, window_light
from studio.stage import Stage, relief_of, rgb

SAND, CLAY = (0.55, 0.50, 0.42), (0.44, 0.27, 0.19)
"""Walls, linear."""

PRINT = {"id": "front", "title": "Print", "panel": "front"}


@cache
def _relief() -> NDArray[np.float32]:
    return relief_of(surfaces.weave(1536, 240))


def put_pillow(stage: Stage, surface: Surface, at: object = None) -> None:
    """A pillow: its front, on which the print is, and its back."""
    canvas = stage.cloth("front", _relief(), 0.014, (2.4, 2.4), 0.02)
    plain = stage.cloth(rgb(0.78, 0.775, 0.76), sheen=0.1)
    for name, cloth in (("front", canvas), ("back", plain)):
        mesh = shapes.write_ply(stage.folder / f"{name}.ply", *shapes.sheet(cushions.sheet(surface, name)))
        stage.add(name, mesh, cloth, at)


def in_armchair(stage: Stage) -> None:
    """In the corner of an armchair by a window."""
    stage.camera((-40, -248, 112), (3, 0, 62), 24.0, (4, -10, 66), 0.9)
    places.daylight_room(stage, 104, ("oak", SAND))
    armchair.put(stage, (0.20, 0.155, 0.10))
    put_pillow(stage, cushions.in_armchair())
    things.plant(stage, (78, 60, 0), 130, 42, 9)


def on_bed(stage: Stage) -> None:
    """Before the pillows of a made bed."""
    stage.camera((-58, -210, 128), (2, 40, 66), 24.5, (0, 44, 68), 0.9)
    places.daylight_room(stage, 122, ("limed", CLAY))
    bed.put(stage, (0.55, 0.56, 0.55), (0.16, 0.185, 0.20))
    lean = stage.to.rotate([0, 0, 1], 6) @ stage.to.rotate([1, 0, 0], 58) @ stage.to.rotate([0, 0, 1], -7)
    put_pillow(stage, cushions.lying(), stage.to.translate([3, 58, bed.TOP + 18.5]) @ lean)


def on_bench(stage: Stage) -> None:
    """On a bench's linen seat, against the wall, in a window's light."""
    stage.camera((-52, -165, 58), (0, 0, 21.5), 22.5, (0, -4, 20), 0.55)
    window_light(stage, 20, 1.0)
    room(stage, 13)
    put_pillow(stage, cushions.leaning())
    books(stage, (37, -2, 0), 14)


def lying(stage: Stage) -> None:
    """On boards, seen from above, in studio light."""
    stage.camera((0, -62, 170), (0, 0.5, 3), 23.5, (0, -4, 8), 0.5, up=(0, 1, 0))
    studio_light(stage, 8, 2.1)
    room(stage)
    put_pillow(stage, cushions.lying())


def _scene(
    ending: str, title: str, kind: str, build: Callable[[Stage], None], exposure: float, around: list[dict[str, Any]]
) -> Scene:
    blank, lead = "pillow-square", ending == "armchair"
    told = pack(f"{blank}-{ending}", blank, title, kind, "soft matte", {"front": 0.0}, [PRINT, *around], lead=lead)
    sizes = (("Side", (-22, -26, 0), (22, -26, 0), 10 * cushions.SIDE),) if ending == "lying" else ()
    return Scene(told, build, exposure, PROPS, measures=sizes)


PROPS = (*places.FURNITURE, "bar", "book")
SCENES = (
    _scene("armchair", "In an armchair", "lifestyle", in_armchair, 1.5, []),
    _scene("bed", "On a bed", "lifestyle", on_bed, 1.15, []),
    _scene("leaning", "Leaning on a bench", "lifestyle", on_bench, 1.07, grounds("linen", "Mist")),
    _scene("lying", "On boards, from above", "flat", lying, 0.44, grounds("oak", "Sand")),
)
