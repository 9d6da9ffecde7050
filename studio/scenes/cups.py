"""Tumblers: straight, tapered and for travelling."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np

from studio import bodies, shapes
from studio.bake import Scene
from studio.bodies import Cup
from studio.sets import PLASTIC, books, grounds, part, room, studio_light, vase, window_light
from studio.stage import STEEL, Stage, rgb

AROUND = {"front": 0.0, "right": 90.0, "back": 180.0, "left": -90.0}
GLOSS, MATTE = (0.30, 0.9), (0.55, 0.06)
PRINT = {"id": "wrap", "title": "Print", "panel": "wrap"}
LID, STRAW = part("lid", "Lid", PLASTIC), part("straw", "Straw", PLASTIC)
Cap = Callable[[Stage, Cup, Any, str], None]


def straw_cap(stage: Stage, cup: Cup, at: Any, more: str) -> None:
    """A lid with a straw."""
    lean = stage.to.translate([0.35, 0.2, cup.lip + 0.3]) @ stage.to.rotate([0, 1, 0], 7.5) @ stage.to.rotate([1, 0, 0], -3)
    both = {"type": "twosided"}
    stage.turned(f"lid{more}", bodies.straw_lid(cup), {**both, "bsdf": stage.coat("lid", 0.28, 0.35)}, at)
    stage.turned(f"grommet{more}", bodies.GROMMET, stage.coat("straw", 0.35, 0.1), at @ lean @ stage.to.translate([0, 0, 0.3]))
    stage.turned(f"straw{more}", bodies.STRAW, {**both, "bsdf": stage.coat("straw", 0.25, 0.5)}, at @ lean)


def pressed_cap(stage: Stage, cup: Cup, at: Any, more: str) -> None:
    """A flat lid pressed into the rim, with a slider over its opening."""
    bsdf = {"type": "twosided", "bsdf": stage.coat("lid", 0.22, 0.5)}
    stage.turned(f"lid{more}", bodies.press_lid(cup), bsdf, at)
    slide = shapes.block(1.7, 2.6, 0, 0.42, 0.16, stage.folder / f"slide{more}.ply")
    stage.add(f"lid@slide{more}", slide, bsdf, at @ stage.to.translate([-0.5, -1.3, cup.lip - 0.14]))


def screwed_cap(stage: Stage, cup: Cup, at: Any, more: str) -> None:
    """A tall screw cap with a carrying loop."""
    bsdf = {"type": "twosided", "bsdf": stage.coat("lid", 0.42, 0.12)}
    stage.turned(f"lid{more}", bodies.screw_lid(cup), bsdf, at)
    top = cup.lip + 2.1
    line = shapes.spline(
        [
            (-2.0, 0, top - 0.3),
            (-2.1, 0, top + 1.2),
            (-1.1, 0, top + 2.35),
            (1.1, 0, top + 2.35),
            (2.1, 0, top + 1.2),
            (2.0, 0, top - 0.3),
        ],
        64,
    )
    mesh = shapes.tube(line, np.full((64, 2), (0.62, 0.22)), stage.folder / f"loop{more}.ply", squareness=3)
    stage.add(f"lid@loop{more}", mesh, bsdf, at @ stage.to.rotate([0, 0, 1], 28))


def put_cup(
    stage: Stage, cup: Cup, cap: Cap, finish: tuple[float, float] = GLOSS, at: Any = None, print_: str = "wrap", more: str = ""
) -> None:
    """A cup with its lid; ``more`` tells the shapes of one of several apart."""
    at = stage.to if at is None else at
    stage.turned(print_, bodies.wrap(cup), stage.coat(print_, *finish), at)
    stage.turned(f"foot{more}", bodies.foot(cup), stage.coat(rgb(0.80, 0.80, 0.79), *finish), at)
    stage.turned(f"steel{more}", bodies.steel(cup), {"type": "twosided", "bsdf": STEEL}, at)
    cap(stage, cup, at, more)


def _sizes(cup: Cup, top: float) -> tuple[Any, ...]:
    r = cup.top_r
    return (
        ("Height", (r + 1.6, 0, 0.0), (r + 1.6, 0, top), 10 * top),
        ("Across", (-r, -r, cup.lip + 0.4), (r, -r, cup.lip + 0.4), 20 * r),
    )


def studio(
    cup: Cup,
    cap: Cap,
    pack: dict[str, Any],
    top: float,
    finish: tuple[float, float] = GLOSS,
    eye_z: float = 33,
    aim_z: float = 13.0,
    fov: float = 20.3,
    shaded: Callable[[Stage], None] = studio_light,
    surface: str = "oak",
    wall: str = "Sand",
    props: Callable[[Stage], None] | None = None,
    exposure: float = 1.05,
    stands: Callable[[Stage], None] = room,
    aperture: float = 0.42,
) -> Scene:
    """One cup on a table. A place of its own, as ``stands`` may give it, has no wall."""

    def build(stage: Stage) -> None:
        eye = (0.0, -118.0, eye_z)
        stage.camera(eye, (0, 0, aim_z), fov, (0, -2.2, aim_z), aperture)
        shaded(stage)
        stands(stage)
        put_cup(stage, cup, cap, finish)
        if props:
            props(stage)

    parts = [PRINT, LID, *([STRAW] if cap is straw_cap else []), *grounds(surface, wall)[: 2 if stands is room else 1]]
    full = {"views": AROUND, "turns": True, "unprinted": True, "regions": parts, **pack}
    names = ("table", "wall", "book", "vase", "grass", "bar", "slab")
    return Scene(full, build, exposure, names, measures=_sizes(cup, top), hard=True)


def _still_life(stage: Stage) -> None:
    books(stage, (-19, 34, 0), 12)
    vase(stage, (20, 40, 0))


def four(stage: Stage) -> None:
    """Four straight tumblers abreast, each turned a quarter further."""
    stage.camera((0, -150, 40), (0, 0, 12.2), 22.5, (0, -2.2, 12), 0.4)
    studio_light(stage, gain=1.25)
    room(stage)
    for i, x in enumerate((-18.3, -6.1, 6.1, 18.3)):
        put_cup(stage, bodies.STRAIGHT_20, straw_cap, at=stage.to.translate([x, 0, 0]), print_=f"wrap-{i + 1}", more=f"@{i}")


STRAIGHT, TAPERED_20, TAPERED_30, TRAVEL = (
    {"templates": [t]} for t in ("tumbler-20oz-straight", "tumbler-20oz-tapered", "tumbler-30oz-tapered", "travel-tumbler")
)
SCENES = (
    studio(
        bodies.STRAIGHT_20,
        straw_cap,
        {
            "id": "straight-tumbler-studio",
            "title": "On oak, studio light",
            "kind": "studio",
            "lead": True,
            "finish": "gloss",
            **STRAIGHT,
        },
        bodies.STRAIGHT_20.lip + 0.62,
    ),
    studio(
        bodies.STRAIGHT_20,
        straw_cap,
        {"id": "straight-tumbler-matte", "title": "Matte, studio light", "kind": "studio", "finish": "matte", **STRAIGHT},
        bodies.STRAIGHT_20.lip + 0.62,
        MATTE,
        surface="limed",
        wall="Mist",
        exposure=0.86,
    ),
    studio(
        bodies.STRAIGHT_20,
        straw_cap,
        {
            "id": "straight-tumbler-shelf",
            "title": "On a shelf by the window",
            "kind": "lifestyle",
            "finish": "gloss",
            **STRAIGHT,
        },
        bodies.STRAIGHT_20.lip + 0.62,
        shaded=window_light,
        surface="walnut",
        wall="Chalk",
        props=_still_life,
        exposure=1.3,
    ),
    Scene(
        {
            "id": "straight-tumbler-four",
            "title": "Four abreast",
            "kind": "studio",
            "views": {"all sides": 0.0},
            "turns": True,
            "unprinted": True,
            "finish": "gloss",
            **STRAIGHT,
            "regions": [
                *(
                    {"id": f"wrap-{i + 1}", "title": f"Print, {side}", "panel": "wrap", "turn": turn, "place": side}
                    for i, (side, turn) in enumerate(AROUND.items())
                ),
                LID,
                STRAW,
                *grounds("oak", "Sand"),
            ],
        },
        four,
        0.88,
        hard=True,
    ),
    studio(
        bodies.TAPERED_20,
        pressed_cap,
        {
            "id": "tapered-20-studio",
            "title": "On limed boards, studio light",
            "kind": "studio",
            "lead": True,
            "finish": "gloss",
            **TAPERED_20,
        },
        bodies.TAPERED_20.lip + 0.3,
        aim_z=9.6,
        fov=15.8,
        eye_z=36,
        surface="limed",
        wall="Sage",
        exposure=0.86,
    ),
    studio(
        bodies.TAPERED_20,
        pressed_cap,
        {"id": "tapered-20-table", "title": "On a table by the window", "kind": "lifestyle", "finish": "gloss", **TAPERED_20},
        bodies.TAPERED_20.lip + 0.3,
        aim_z=9.6,
        fov=16.5,
        eye_z=34,
        shaded=window_light,
        surface="oak",
        wall="Chalk",
        props=_still_life,
        exposure=1.3,
    ),
    studio(
        bodies.TAPERED_30,
        pressed_cap,
        {
            "id": "tapered-30-studio",
            "title": "On slate, studio light",
            "kind": "studio",
            "lead": True,
            "finish": "gloss",
            **TAPERED_30,
        },
        bodies.TAPERED_30.lip + 0.3,
        aim_z=10.8,
        fov=17.8,
        eye_z=36,
        surface="slate",
        wall="Dusk",
        exposure=1.16,
    ),
    studio(
        bodies.TAPERED_30,
        pressed_cap,
        {"id": "tapered-30-table", "title": "On a table by the window", "kind": "lifestyle", "finish": "gloss", **TAPERED_30},
        bodies.TAPERED_30.lip + 0.3,
        aim_z=10.8,
        fov=18.6,
        eye_z=34,
        shaded=window_light,
        surface="walnut",
        wall="Sand",
        props=_still_life,
        exposure=1.35,
    ),
    studio(
        bodies.TRAVEL,
        screwed_cap,
        {
            "id": "travel-tumbler-studio",
            "title": "On marble, studio light",
            "kind": "studio",
            "lead": True,
            "finish": "gloss",
            **TRAVEL,
        },
        bodies.TRAVEL.lip + 4.65,
        aim_z=13.0,
        fov=20.3,
        surface="marble",
        wall="Mist",
        exposure=0.82,
    ),
    studio(
        bodies.TRAVEL,
        screwed_cap,
        {"id": "travel-tumbler-table", "title": "On a table by the window", "kind": "lifestyle", "finish": "gloss", **TRAVEL},
        bodies.TRAVEL.lip + 4.65,
        aim_z=13.0,
        fov=20.8,
        shaded=window_light,
        surface="oak",
        wall="Clay",
        props=_still_life,
        exposure=1.3,
    ),
)
