"""Throw blankets: flat on boards, over an armchair, on a bed, folded on a bench."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import armchair, bed, places, things, throws
from studio.bake import Scene
from studio.bodies import IN
from studio.sets import books, grounds, pack, part
from studio.stage import Stage

PRINT = {"id": "front", "title": "Print", "panel": "front"}
BACK = part("back", "Back", {"White": "#f1f0ec", "Cream": "#e8dfcc", "Grey": "#a9aaab"})
ROOM = (*places.FURNITURE, "book")
CHALK, SAGE = (0.74, 0.71, 0.66), (0.36, 0.40, 0.31)
"""Walls, linear."""

Build = Callable[[Stage], None]


def spread(name: str, w: float, h: float) -> Build:
    """Lying on floor boards, seen from above."""

    def build(stage: Stage) -> None:
        stage.camera((0, -96, 420), (0, 0, 0), 27.0 if w > h else 31.0, (0, 0, 1), 0.6, up=(0, 1, 0))
        stage.softbox("key", (-330, 60, 260), (0, 0, 0), 150, 240, (9.0, 8.4, 7.6))
        stage.softbox("fill", (280, -60, 260), (0, 0, 0), 160, 200, (2.6, 2.8, 3.0))
        stage.around(0.30, 0.30, 0.31)
        stage.table((560, 430), (0, 0, 0))
        throws.put_blanket(stage, throws.on_floor(name, w, h), plain=True)

    return build


def on_armchair(name: str, w: float, h: float) -> Build:
    """Thrown over an armchair by a window."""

    def build(stage: Stage) -> None:
        stage.camera((66, -285, 128), (2, 0, 50), 31.0, (0, -28, 56), 0.9)
        places.daylight_room(stage, 96)
        armchair.put(stage, (0.115, 0.135, 0.125))
        throws.put_blanket(stage, throws.over_armchair(name, w, h))
        things.plant(stage, (-92, 52, 0), 118, seed=3)
        things.side_table(stage, (82, 22, 0))
        books(stage, (80, 20, 48), 25)

    return build


def on_bed(name: str, w: float, h: float) -> Build:
    """Spread over a made bed, seen from its foot."""

    def build(stage: Stage) -> None:
        stage.camera((-96, -330, 205), (4, -6, 46), 37.0, (0, -60, 50), 1.0)
        places.daylight_room(stage, 122, ("oak", CHALK))
        bed.put(stage, (0.66, 0.64, 0.60), (0.23, 0.21, 0.19))
        throws.put_blanket(stage, throws.on_bed(name, w, h), plain=True)
        things.side_table(stage, (112, 66, 0), 50, 22)
        things.plant(stage, (114, 70, 50), 62, 30, 5)

    return build


def folded(name: str, w: float, h: float) -> Build:
    """Two of them folded on a bench by a window."""

    def build(stage: Stage) -> None:
        stage.camera((-58, -178, 96), (1, 0, 50), 31.0, (0, -16, 50), 0.8)
        places.daylight_room(stage, 74, ("walnut", SAGE))
        things.bench(stage, 43)
        stack = throws.folded(name, w, h)
        throws.put_blanket(stage, stack, throws.PLIED, "@2", stage.to.translate([0, 0, 43]))
        above = throws.height(stack) - 0.4
        throws.put_blanket(
            stage, stack, throws.PLIED, at=stage.to.translate([1.0, 0.8, 43 + above]) @ stage.to.rotate([0, 0, 1], -4)
        )
        books(stage, (50, 2, 43), 20)

    return build


def _scenes(template: str, w: float, h: float) -> list[Scene]:
    def scene(
        ending: str, title: str, kind: str, build: Build, exposure: float, around: list[dict[str, Any]], **more: Any
    ) -> Scene:
        measures = more.pop("measures", ())
        regions = [PRINT, *around]
        told = pack(f"{template}-{ending}", template, title, kind, "soft matte", {"front": 0.0}, regions, **more)
        return Scene(told, build, exposure, ROOM, measures=measures)

    boards = {**grounds("oak")[0], "size_mm": [5600, 4300]}

    return [
        scene(
            "flat",
            "Flat on boards",
            "flat",
            spread(template, w, h),
            1.3,
            [boards],
            lead=True,
            measures=(
                ("Width", (-w / 2, -h / 2 - 6, 1), (w / 2, -h / 2 - 6, 1), 10 * w),
                ("Height", (w / 2 + 7, -h / 2, 1), (w / 2 + 7, h / 2, 1), 10 * h),
            ),
        ),
        scene(
            "armchair",
            "Over an armchair",
            "lifestyle",
            on_armchair(template, w, h),
            1.35,
            [BACK, *places.room_grounds("limed", "Mist")],
            unprinted=True,
        ),
        scene("bed", "On a bed", "lifestyle", on_bed(template, w, h), 1.1, []),
        scene("folded", "Folded on a bench", "lifestyle", folded(template, w, h), 1.6, [BACK]),
    ]


SCENES = (*_scenes("blanket-upright", 50 * IN, 60 * IN), *_scenes("blanket-lying", 60 * IN, 50 * IN))
