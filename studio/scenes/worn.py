"""T-shirts worn by people."""

from __future__ import annotations

from collections.abc import Callable

from studio import light
from studio.bake import Scene
from studio.sets import pack
from studio.stage import Stage
from studio.wardrobe import ASH, BIRCH, DAMSON, ELM, printed, turned_round


def in_apartment(stage: Stage) -> None:
    """A man before a light wall, daylight from a window on the left."""
    stage.camera((14, -330, 132), (1, 0, 119), 17.6, (0, -13, 128), 1.6)
    light.place(stage, "apartment", 200, (0.93, 1.0, 1.10), 2.2)
    stage.softbox("window", (-230, -150, 210), (0, 0, 120), 90, 150, (6.6, 7.0, 7.6))
    ASH.put(stage, (0.030, 0.036, 0.052))


def in_forest(stage: Stage) -> None:
    """A man from behind, in the shade of tall trees."""
    stage.camera((-30, -340, 138), (0, 0, 127), 19.0, (0, -12, 130), 2.2)
    light.place(stage, "forest", 20, 2.2, 0.9)
    stage.softbox("clearing", (-260, -150, 330), (0, 0, 125), 130, 130, (14.0, 13.2, 11.6))
    turned_round(stage, lambda: ELM.put(stage, (0.16, 0.13, 0.085)))


def in_warehouse(stage: Stage) -> None:
    """A woman seen from a little beside her, in a wide grey room."""
    stage.camera((-150, -265, 128), (0, 0, 117), 19.0, (-5, -12, 125), 1.8)
    light.place(stage, "warehouse", 60, (1.02, 1.0, 0.97), 1.0)
    stage.softbox("window", (150, -230, 200), (0, 0, 120), 120, 150, (6.0, 6.0, 6.0))
    BIRCH.put(stage, (0.045, 0.07, 0.12))


def in_park(stage: Stage) -> None:
    """A woman on a lawn, the sun behind her on the right."""
    stage.camera((30, -325, 120), (1, 0, 112), 17.6, (0, -14, 118), 2.0)
    light.place(stage, "park", 84, 1.0, 1.0, (2.4, 2.1, 1.7), 2.5)
    DAMSON.put(stage, (0.25, 0.21, 0.15))


def _scene(ending: str, title: str, build: Callable[[Stage], None], exposure: float, panel: str) -> Scene:
    views = {panel: 0.0}
    told = pack(f"t-shirt-worn-{ending}", "t-shirt", title, "lifestyle", "soft matte", views, printed(panel))
    return Scene(told, build, exposure, ())


SCENES = (
    _scene("apartment", "Worn, daylight in a room", in_apartment, 1.12, "front"),
    _scene("forest", "Worn, from behind, among trees", in_forest, 0.82, "back"),
    _scene("warehouse", "Worn, seen from beside", in_warehouse, 1.0, "front"),
    _scene("park", "Worn, on a lawn", in_park, 1.0, "front"),
)
