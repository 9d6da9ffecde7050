"""The square pillow: leaning on a bench, lying on boards."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

from studio import grid_cloth, shapes, surfaces
from studio.bake import Scene
from studio.bodies import IN
from studio.cloth.obstacles import Obstacle, box
from studio.cloth.surface import Surface
from studio.draped import pillow
from studio.kept import kept, kept_surface
from studio.sets import grounds, room, studio_light, window_light
from studio.stage import Stage, relief_of, rgb

SIDE = 18.1 * IN
PRINT = {"id": "front", "title": "Print", "panel": "front"}


@cache
def _sheets() -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    front, back = kept("pillow", grid_cloth, lambda: grid_cloth.pillow(SIDE))
    return grid_cloth.finer(front, 4), grid_cloth.finer(back, 4)


POINTS = 420
"""Of a side of a rendered sheet."""

BOARDS = Obstacle.of(box((0, 0, -4), (160, 160, 8)), (-44, -44, -6), (44, 44, 4), 1.0, 0.5)


def _lain() -> Surface:
    """The pillow on boards, its front up, turned a little."""
    c, s = np.cos(np.deg2rad(7)), np.sin(np.deg2rad(7))
    turned = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]]) @ np.array([[1.0, 0, 0], [0, 0, 1], [0, -1, 0]])
    return pillow.put_down(SIDE, turned, np.array([0.0, 0.0, 8.5]), [BOARDS])


@cache
def _lying_sheets() -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    surface = kept_surface("pillow-lying", pillow, _lain)
    u, v = np.meshgrid(np.linspace(0, 1, POINTS), np.linspace(0, 1, POINTS))
    flat = np.stack([u, 1 - v], -1) * SIDE
    return surface.over("front", flat), surface.over("back", flat)


@cache
def _relief() -> NDArray[np.float32]:
    return relief_of(surfaces.weave(1536, 240))


def put_pillow(stage: Stage, sheets: tuple[NDArray[np.float64], NDArray[np.float64]], at: object = None) -> None:
    """A pillow: its front, on which the print is, and its back."""
    front, back = sheets
    canvas = stage.cloth("front", _relief(), 0.014, (2.4, 2.4), 0.02)
    stage.add("front", shapes.write_ply(stage.folder / "front.ply", *shapes.sheet(front)), canvas, at)
    plain = stage.cloth(rgb(0.78, 0.775, 0.76), sheen=0.1)
    stage.add("back", shapes.write_ply(stage.folder / "back.ply", *shapes.sheet(back)), plain, at)


def leaning(stage: Stage) -> None:
    """On a bench's linen seat, against the wall, in a window's light."""
    stage.camera((-52, -165, 58), (0, 0, 21.5), 22.5, (0, -4, 20), 0.55)
    window_light(stage, 20, 1.0)
    room(stage, 19)
    put_pillow(
        stage, _sheets(), stage.to.translate([0, 6, 20.9]) @ stage.to.rotate([0, 0, 1], -6) @ stage.to.rotate([1, 0, 0], -17)
    )


def lying(stage: Stage) -> None:
    """On boards, seen from above, in studio light."""
    stage.camera((0, -62, 170), (0, 0.5, 3), 23.5, (0, -4, 8), 0.5, up=(0, 1, 0))
    studio_light(stage, 8, 2.1)
    room(stage)
    put_pillow(stage, _lying_sheets())


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
