"""Hoodies on a hanger: one that is printed all over before a wall, a plain one on a rail in a workshop."""

from __future__ import annotations

from typing import Any

from studio import hanging, light, things
from studio.bake import Scene
from studio.cloth.surface import Surface
from studio.draped import from_template, hoodie, hoodie_hung, tshirt_hung
from studio.draped.hoodie import BLANK
from studio.hoodies import put_hoodie
from studio.kept import kept_surface
from studio.scenes.hoodies import all_over_regions, plain_regions
from studio.sets import WALLS, pack, part
from studio.stage import Stage

MIDDLE = -33.0
"""Height of the picture's middle; the neck is at the origin."""

AWAY = 16.0
"""Of the wall behind the hanger."""


def hung() -> Surface:
    """Return the hoodie at rest on a hanger."""
    return kept_surface(
        "hoodie-hung", (hoodie, from_template, tshirt_hung, hoodie_hung), lambda: Surface.of(hoodie_hung.hung())
    )


def on_rail(stage: Stage) -> None:
    """On a steel rail before a wall, seen a little from beside, a window on the left."""
    stage.camera((76, -305, -22), (0, 0, MIDDLE), 23.0, (0, -9, MIDDLE), 1.2)
    light.place(stage, "apartment", 200, (0.40, 0.44, 0.50), 2.0)
    stage.softbox("window", (-230, -130, 60), (0, 0, -40), 60, 130, (21.0, 21.4, 22.4))
    stage.wall((620, 460), (0, 46, -20))
    put_hoodie(stage, hung(), False)
    hanging.put_hanger(stage, (0.16, 0.09, 0.05))
    hanging.on_rail(stage)


def by_wall(stage: Stage) -> None:
    """On a peg of a wall, evening light from the right, a plant beside it."""
    stage.camera((-30, -310, -26), (0, 0, MIDDLE), 23.0, (0, -9, MIDDLE), 0.9)
    light.place(stage, "lobby", 30, (0.42, 0.40, 0.42), 2.0)
    stage.softbox("window", (230, -150, 70), (0, 0, -40), 70, 120, (22.0, 19.5, 16.5))
    stage.wall((520, 420), (0, AWAY, -20))
    put_hoodie(stage, hung(), True)
    hanging.on_peg(stage, AWAY, hanging.put_hanger(stage, (0.45, 0.31, 0.18)))
    things.plant(stage, (58, 2, -118), 78, seed=4)


def _wall(colour: str) -> dict[str, Any]:
    return {**part("wall", "Background", WALLS, around=True), "default": colour}


FRONT = {"front": 0.0}

SCENES = (
    Scene(
        pack(
            "hoodie-hanger", "hoodie", "On a hanger", "lifestyle", "soft matte", FRONT, [*plain_regions("front"), _wall("Dusk")]
        ),
        on_rail,
        1.25,
        ("wall", "rail"),
    ),
    Scene(
        pack(
            f"{BLANK.id}-hanger",
            BLANK.id,
            "On a hanger",
            "lifestyle",
            "soft matte",
            FRONT,
            [*all_over_regions("front"), _wall("Clay")],
        ),
        by_wall,
        1.9,
        ("wall", "plant"),
    ),
)
