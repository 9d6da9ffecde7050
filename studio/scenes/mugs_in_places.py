"""Mugs in captured places: with coffee on a desk, and out of doors."""

from __future__ import annotations

from collections.abc import Callable

from studio import bodies, crockery, places, things
from studio.bake import Scene
from studio.bodies import Mug
from studio.scenes.mugs import HANDLE, INSIDE, PRINT, put_mug
from studio.sets import grounds, pack
from studio.stage import Stage

PROPS = ("table", "slab", "coffee", "notebook", "plant", "jug")


def _seen(stage: Stage, mug: Mug, x: float, eye: tuple[float, float, float], aperture: float) -> None:
    """A camera that looks at one mug, whatever its height."""
    large = mug.height / 9.54
    stage.camera(eye, (0.4, 0, 4.6 * large), 15.0 * large**0.85, (x, -3.4, mug.height / 2), aperture)


def on_desk(mug: Mug) -> Callable[[Stage], None]:
    """Full of coffee on a desk by a window, a notebook behind it."""

    def build(stage: Stage) -> None:
        _seen(stage, mug, -1.2, (6.0, -88.0, 33.0), 0.75)
        places.in_a_flat(stage)
        places.slab(stage)
        put_mug(stage, mug, -1.2, 0, -12)
        crockery.coffee(stage, (-1.2, 0, mug.height - 1.15), mug.r - bodies.WALL_CM)
        crockery.notebook(stage, (-13.5, 17, 0), 24)
        things.plant(stage, (15, 27, 0), 34, 24, 8)

    return build


def out_of_doors(mug: Mug) -> Callable[[Stage], None]:
    """On a table of old boards by a meadow, the handle to the left."""

    def build(stage: Stage) -> None:
        _seen(stage, mug, 1.2, (-4.0, -92.0, 21.0), 0.95)
        places.on_a_meadow(stage)
        places.slab(stage)
        put_mug(stage, mug, 1.2, 0, 176)
        crockery.coffee(stage, (1.2, 0, mug.height - 1.3), mug.r - bodies.WALL_CM)
        crockery.jug(stage, (-14, 20, 0))

    return build


def _scenes(mug: Mug, name: str) -> list[Scene]:
    def scene(ending: str, title: str, build: Callable[[Stage], None], handle: str, surface: str, exposure: float) -> Scene:
        views, regions = {f"handle {handle}": 0.0}, [PRINT, HANDLE, INSIDE, grounds(surface)[0]]
        told = pack(f"{name}-{ending}", name, title, "lifestyle", "gloss", views, regions, turns=False, unprinted=True)
        return Scene(told, build, exposure, PROPS, hard=True)

    return [
        scene("desk", "With coffee on a desk", on_desk(mug), "right", "walnut", 1.0),
        scene("meadow", "On old boards by a meadow", out_of_doors(mug), "left", "limed", 0.9),
    ]


SCENES = (*_scenes(bodies.MUG_11, "mug-11oz"), *_scenes(bodies.MUG_15, "mug-15oz"))
