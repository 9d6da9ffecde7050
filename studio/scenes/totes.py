"""The tote bag with a gusset: standing, and two of it with front and back side by side."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import bag, shapes, surfaces
from studio.bag import BLANK, DEEP, LONG, STRAP, H, W
from studio.bake import Scene
from studio.sets import books, grounds, part, room, window_light
from studio.stage import Stage, relief_of

PLAIN = {"Natural": "#e6dcc8", "Black": "#1d1d1f", "Navy": "#27304a", "Moss": "#4d5640"}
PROPS = ("table", "wall", "bar", "book")
TURN = -36.0
"""Of the standing one, in degrees."""


@cache
def _canvas() -> NDArray[np.float32]:
    return relief_of(surfaces.weave(1536, 190))


def put_tote(stage: Stage, at: Any, more: str = "") -> None:
    """A tote on the origin, its front towards -y; ``more`` tells its shapes from another's."""
    plain = stage.cloth("inside", sheen=0.05)
    for name, (points, uv) in bag.sheets().items():
        region = name.split("@")[0]
        times = (2.6 * LONG / W, 2.6 * DEEP / W) if region == "gusset" else (2.6, 2.6)
        mesh = shapes.write_ply(stage.folder / f"{name}{more}.ply", *shapes.sheet(points, uv))
        stage.add(name + more, mesh, stage.cloth(region, _canvas(), 0.010, times, 0.05), at)
        inner = shapes.write_ply(stage.folder / f"in-{name}{more}.ply", *shapes.sheet(bag.lining(name)))
        stage.add(f"inside@{name}{more}", inner, plain, at)
    loop = bag.hem()
    hem = shapes.tube(loop, np.full((len(loop), 2), [0.17, 0.38]), stage.folder / f"hem{more}.ply", side=(0, 0, 1), around=24)
    stage.add(f"inside@hem{more}", hem, plain, at)
    webbing = stage.cloth("handles", relief_of(surfaces.weave(512, 36)), 0.03, (1, 16), 0.1)
    for name, sign, lean in (("front", -1.0, -2.6), ("back", 1.0, -1.2)):
        line = bag.strap(sign, lean)
        mesh = shapes.tube(
            line, np.full((len(line), 2), STRAP), stage.folder / f"strap-{name}{more}.ply", around=40, squareness=6
        )
        stage.add(f"handles@{name}{more}", mesh, webbing, at)


def _turned(stage: Stage, x: float, y: float, angle: float) -> Any:
    return stage.to.translate([x, y, 0]) @ stage.to.rotate([0, 0, 1], angle)


def standing(stage: Stage) -> None:
    """On boards by a wall, in a window's light, a gusset to be seen."""
    stage.camera((-14, -205, 74), (1.5, 0, 29.5), 27.5, (0, -6, 26), 0.7)
    window_light(stage, 26, 1.35)
    room(stage, 46)
    put_tote(stage, _turned(stage, 0, 0, TURN))
    books(stage, (31, 8, 0), 24)


def both(stage: Stage) -> None:
    """Front and back side by side, each with a gusset."""
    stage.camera((0, -255, 82), (0.5, 0, 29.0), 27.0, (0, -6, 26), 0.7)
    window_light(stage, 26, 1.35)
    room(stage, 60)
    put_tote(stage, _turned(stage, -25, 8, -25))
    put_tote(stage, _turned(stage, 24, -8, 180 - 29), "@2")


def _measures() -> tuple[Any, ...]:
    """Of the standing one, along the edges that are seen."""
    a = np.radians(TURN)

    def at(x: float, y: float, z: float) -> tuple[float, ...]:
        return float(x * np.cos(a) - y * np.sin(a)), float(x * np.sin(a) + y * np.cos(a)), z

    front, side = -DEEP / 2 - 4, W / 2 + 3
    return (
        ("Width", at(-W / 2, front, 0), at(W / 2, front, 0), 10 * W),
        ("Height", at(-W / 2 - 3, -DEEP / 2, 0), at(-W / 2 - 3, -DEEP / 2, H), 10 * H),
        ("Depth", at(side, -DEEP / 2, 0), at(side, DEEP / 2, 0), 10 * DEEP),
    )


def _pack(ending: str, title: str, kind: str, panels: tuple[str, ...], surface: str, wall: str) -> dict[str, Any]:
    prints = [{"id": p, "title": BLANK.panel(p).title, "panel": p} for p in panels]
    return {
        "id": f"tote-gusset-{ending}",
        "title": title,
        "kind": kind,
        "templates": [BLANK.id],
        "finish": "soft matte",
        "lead": ending == "standing",
        "unprinted": True,
        "views": {"front" if ending == "standing" else "both sides": 0.0},
        "regions": [*prints, part("handles", "Handles", PLAIN), part("inside", "Lining", PLAIN), *grounds(surface, wall)],
    }


SCENES = (
    Scene(
        _pack("standing", "By a wall", "lifestyle", ("front", "gusset"), "oak", "Sage"),
        standing,
        0.86,
        PROPS,
        measures=_measures(),
    ),
    Scene(_pack("both", "Front and back", "studio", ("front", "back", "gusset"), "limed", "Mist"), both, 0.86, PROPS),
)
