"""T-shirts lying flat and on a hanger."""

from __future__ import annotations

from collections.abc import Callable

from studio import clothing, hanging, light
from studio.bake import Scene
from studio.cloth.surface import Surface
from studio.draped import laid, tshirt, tshirt_flat, tshirt_hung, tshirt_worn
from studio.draped.tshirt import Cut
from studio.kept import kept_surface
from studio.sets import BELOW_MM, WALLS, ground_below, part
from studio.stage import Stage
from studio.wardrobe import CANVAS, printed, relief

SHIRT = Cut(27.0, 72.0, spacing=1.4)
MIDDLE = -36.0
"""Of the picture, y in cm: the neck lies at the origin."""


def settled(back: bool) -> Surface:
    """Return the shirt at rest, with its back or its front up."""
    seed = 12 if back else 5
    return kept_surface(
        f"t-shirt-flat-{'back' if back else 'front'}",
        (tshirt, tshirt_worn, laid, tshirt_flat),
        lambda: Surface.of(tshirt_flat.flat(SHIRT, back, seed)),
        repr((SHIRT, back, seed)),
    )


def flat(back: bool) -> Callable[[Stage], None]:
    """On boards, seen from straight above, in a room with a window on the left."""

    def build(stage: Stage) -> None:
        stage.camera((0, MIDDLE - 1, 260), (0, MIDDLE, 0), 24.0, (0, MIDDLE, 1), 0.3, up=(0, 1, 0))
        stage.softbox("window", (-230, MIDDLE + 150, 150), (0, MIDDLE, 0), 130, 130, (17.0, 17.2, 17.4))
        light.place(stage, "apartment", 200, (0.50, 0.54, 0.60), 2.0)
        stage.table((BELOW_MM[0] / 10, BELOW_MM[1] / 10), (0, MIDDLE, 0), 0.55)
        clothing.put_garment(stage, settled(back), CANVAS, relief(SHIRT))

    return build


def _scene(back: bool) -> Scene:
    panel = "back" if back else "front"
    wide, long = 2 * SHIRT.half, SHIRT.length
    return Scene(
        {
            "id": f"t-shirt-{panel}",
            "title": f"{panel.title()}, lying flat",
            "kind": "flat",
            "templates": ["t-shirt"],
            "finish": "soft matte",
            "lead": not back,
            "views": {panel: 0.0},
            "regions": [*printed(panel), ground_below("limed")],
        },
        flat(back),
        1.12,
        ("table",),
        measures=(
            ("Chest, lying flat", (-wide / 2, -long - 2.0, 0.5), (wide / 2, -long - 2.0, 0.5), 10 * wide),
            ("Length", (wide / 2 - 3, -0.5, 1.0), (wide / 2 - 3, -long, 1.0), 10 * long),
        ),
    )


FINE = Cut(27.0, 72.0, spacing=0.9)
HUNG_Z, AWAY = -31.0, 9.0
"""Of the picture's middle, and of the wall behind the hanger."""


def hung() -> Surface:
    """Return the shirt at rest on a hanger."""
    return kept_surface(
        "t-shirt-hung", (tshirt, tshirt_worn, tshirt_hung), lambda: Surface.of(tshirt_hung.hung(FINE)), repr(FINE)
    )


def on_hanger(stage: Stage) -> None:
    """On a wooden hanger before a wall, daylight from the left."""
    stage.camera((34, -270, -20), (0.5, 0, HUNG_Z), 24.5, (0, -6, -30), 0.9)
    stage.softbox("window", (-220, -190, 90), (0, 0, -40), 90, 140, (16.0, 15.9, 15.7))
    light.place(stage, "apartment", 200, (0.50, 0.54, 0.60), 2.0)
    stage.wall((520, 420), (0, AWAY, -20))
    clothing.put_garment(stage, hung(), CANVAS, relief(FINE))
    hanging.on_peg(stage, AWAY, hanging.put_hanger(stage, (0.40, 0.25, 0.13)))


ON_HANGER = Scene(
    {
        "id": "t-shirt-hanger",
        "title": "On a hanger",
        "kind": "lifestyle",
        "templates": ["t-shirt"],
        "finish": "soft matte",
        "views": {"front": 0.0},
        "regions": [*printed("front"), {**part("wall", "Background", WALLS, around=True), "default": "Chalk"}],
    },
    on_hanger,
    1.0,
    ("wall",),
)
SCENES = (_scene(False), _scene(True), ON_HANGER)
