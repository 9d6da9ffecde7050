"""Hoodies lying flat, front and back: plain ones with a print, and ones that are printed all over."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import light
from studio.bake import Scene
from studio.cloth.surface import Surface
from studio.draped import from_template, hoodie, hoodie_flat, laid
from studio.draped.hoodie import BLANK
from studio.hoodies import LAID, put_hoodie
from studio.kept import kept_surface
from studio.scenes.hoodies import all_over_regions, plain_regions
from studio.sets import BELOW_MM, ground_below, pack
from studio.stage import Stage

MIDDLE, SPAN = -24.0, 37.0
"""Of the picture: y in cm, the neck lies at the origin; and its angle, degrees."""

CREASES = {"front": 5, "back": 12}


def settled(panel: str) -> Surface:
    """Return the hoodie at rest, with its front or its back up."""
    seed = CREASES[panel]
    return kept_surface(
        f"hoodie-flat-{panel}",
        (hoodie, from_template, laid, hoodie_flat),
        lambda: Surface.of(hoodie_flat.flat(panel == "back", seed)),
        repr(seed),
    )


def flat(panel: str, all_over: bool) -> Callable[[Stage], None]:
    """On a table, seen from straight above, in a room with a window."""

    def build(stage: Stage) -> None:
        stage.camera((0, MIDDLE - 1, 260), (0, MIDDLE, 0), SPAN, (0, MIDDLE, 1), 0.3, up=(0, 1, 0))
        side = 1 if all_over else -1
        stage.softbox("window", (side * 240, MIDDLE + 140, 150), (0, MIDDLE, 0), 130, 130, (17.0, 17.2, 17.4))
        light.place(stage, "lobby" if all_over else "apartment", 200, (0.50, 0.54, 0.60), 2.0)
        stage.table((BELOW_MM[0] / 10, BELOW_MM[1] / 10), (0, MIDDLE, 0), 0.6)
        put_hoodie(stage, settled(panel), all_over, LAID)

    return build


def _scene(template: str, panel: str, regions: list[dict[str, Any]], ground: str) -> Scene:
    all_over = template == BLANK.id
    told = pack(
        f"{template}-{panel}",
        template,
        f"{panel.title()}, lying flat",
        "flat",
        "soft matte",
        {panel: 0.0},
        [*regions, ground_below(ground)],
    )
    return Scene(told, flat(panel, all_over), 1.0, ("table",))


SCENES = (
    *(_scene("hoodie", panel, plain_regions(panel), "walnut") for panel in CREASES),
    *(_scene(BLANK.id, panel, all_over_regions(panel), "limed") for panel in CREASES),
)
