"""The square pillow: leaning on a bench, lying on boards."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

from studio import grid_cloth, shapes, surfaces
from studio.bake import Scene
from studio.bodies import IN
from studio.kept import kept
from studio.sets import grounds, room, studio_light, window_light
from studio.stage import Stage, relief_of, rgb

SIDE = 18.1 * IN
PRINT = {"id": "front", "title": "Print", "panel": "front"}


@cache
def _sheets() -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    front, back = kept("pillow", grid_cloth, lambda: grid_cloth.pillow(SIDE))
    return grid_cloth.finer(front, 4), grid_cloth.finer(back, 4)


@cache
def _relief() -> NDArray[np.float32]:
    return relief_of(surfaces.weave(1536, 240))


def put_pillow(stage: Stage, at: object) -> None:
    """A pillow with its middle at the origin, its print towards -y."""
    front, back = _sheets()
    canvas = stage.cloth("front", _relief(), 0.014, (2.4, 2.4), 0.02)
    stage.add("front", shapes.write_ply(stage.folder / "front.ply", *shapes.sheet(front)), canvas, at)
    plain = stage.cloth(rgb(0.78, 0.775, 0.76), sheen=0.1)
    stage.add("back", shapes.write_ply(stage.folder / "back.ply", *shapes.sheet(back)), plain, at)


def leaning(stage: Stage) -> None:
    """On a bench's linen seat, against the wall, in a window's light."""
    stage.camera((-52, -165, 58), (0, 0, 21.5), 22.5, (0, -4, 20), 0.55)
    window_light(stage, 20, 1.0)
    room(stage, 19)
    put_pillow(stage, stage.to.translate([0, 6, 20.9]) @ stage.to.rotate([0, 0, 1], -6) @ stage.to.rotate([1, 0, 0], -17))


def lying(stage: Stage) -> None:
    """On boards, seen from above, in studio light."""
    stage.camera((0, -62, 170), (0, 0.5, 3), 23.5, (0, -4, 8), 0.5, up=(0, 1, 0))
    studio_light(stage, 8, 2.1)
    room(stage)
    put_pillow(stage, stage.to.translate([0, 0, 5.9]) @ stage.to.rotate([0, 0, 1], 7) @ stage.to.rotate([1, 0, 0], -90))


def _pack(ending: str, title: str, kind: str, surface: str, wall: str) -> dict[str, object]:
    return {
        "id": f"pillow-square-{ending}",
        "title": title,
        "kind": kind,
        "templates": ["pillow-square"],
        "finish": "soft matte",
        "lead": ending == "leaning",
        "views": {"front": 0.0},
        "regions": [PRINT, *grounds(surface, wall)],
    }


PROPS = ("table", "wall", "bar")
SCENES = (
    Scene(_pack("leaning", "Leaning on a bench", "lifestyle", "linen", "Mist"), leaning, 1.07, PROPS),
    Scene(
        _pack("lying", "On boards, from above", "flat", "oak", "Sand"),
        lying,
        0.44,
        PROPS,
        measures=(("Side", (-22, -26, 0), (22, -26, 0), 10 * SIDE),),
    ),
)
