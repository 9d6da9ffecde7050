"""Close-ups of prints on garments that lie on a table, seen at a slant in the raking light of a window, so that cloth and creases tell."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import clothing, light
from studio.bake import Scene
from studio.draped.hoodie import BLANK
from studio.hoodies import LAID, put_hoodie
from studio.scenes import hoodies_flat, tshirts
from studio.scenes.hoodies import all_over_regions, plain_regions
from studio.sets import BELOW_MM, ground_below, pack
from studio.stage import Stage
from studio.wardrobe import CANVAS, printed, relief

Place = tuple[float, float, float]

AIM = {"t-shirt": (0.0, -29.0, 1.5), "hoodie": (1.0, -27.0, 2.5), BLANK.id: (-2.0, -38.0, 2.5)}
"""What the camera looks at: the neck lies at the origin."""


def _close(stage: Stage, aim: Place, side: float, probe: str) -> None:
    x, y, z = aim
    stage.camera((x + 17 * side, y - 62, 66), aim, 27.0, (x - 2 * side, y - 2, z), 0.9)
    stage.softbox("window", (-150 * side, y + 70, 46), aim, 60, 60, (42.0, 41.0, 39.0))
    light.place(stage, probe, 200, (0.34, 0.36, 0.40), 2.0)
    stage.table((BELOW_MM[0] / 10, BELOW_MM[1] / 10), (0, y, 0), 0.55)


def t_shirt(stage: Stage) -> None:
    """A shirt, the window on the left."""
    _close(stage, AIM["t-shirt"], 1.0, "apartment")
    clothing.put_garment(stage, tshirts.settled(False), CANVAS, relief(tshirts.SHIRT))


def _hoodie(template: str, side: float, probe: str) -> Callable[[Stage], None]:
    def build(stage: Stage) -> None:
        _close(stage, AIM[template], side, probe)
        put_hoodie(stage, hoodies_flat.settled("front"), template == BLANK.id, LAID)

    return build


def _scene(template: str, regions: list[dict[str, Any]], build: Callable[[Stage], None], ground: str, exposure: float) -> Scene:
    views = {"front": 0.0}
    told = pack(
        f"{template}-close", template, "The print from near", "detail", "soft matte", views, [*regions, ground_below(ground)]
    )
    return Scene(told, build, exposure, ("table",))


IN_SIGHT = ("front", "pocket", "sleeve-right")
"""Panels of an all-over hoodie that its close-up shows."""


def _in_sight(regions: list[dict[str, Any]]) -> list[dict[str, Any]]:
    return [region for region in regions if "panel" not in region or region["id"] in IN_SIGHT]


SCENES = (
    _scene("t-shirt", printed("front"), t_shirt, "limed", 1.2),
    _scene("hoodie", plain_regions("front"), _hoodie("hoodie", -1.0, "lobby"), "walnut", 1.05),
    _scene(BLANK.id, _in_sight(all_over_regions("front")), _hoodie(BLANK.id, 1.0, "warehouse"), "oak", 1.35),
)
