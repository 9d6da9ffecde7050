"""The tote bag with a gusset: standing, and two of it with front and back side by side."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import bag, crockery, light, shapes, surfaces, things
from studio.bag import BLANK, DEEP, LONG, STRAP, H, W
from studio.bake import Scene
from studio.hung_tote import PEG, put_hung_tote
from studio.places import FLOOR, room_grounds
from studio.sets import books, grounds, part, room, window_light
from studio.stage import Stage, relief_of, rgb

PLAIN = {"Natural": "#e6dcc8", "Black": "#1d1d1f", "Navy": "#27304a", "Moss": "#4d5640"}
PROPS = ("table", "wall", "bar", "book")
AWAY = 9.4
"""Of the wall behind a hook."""

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


def _pegs(stage: Stage, high: float, wall: float, colour: tuple[float, float, float]) -> None:
    """A board with pegs on a wall at y = ``wall``; the middle one is as high as the bag's handles need it."""
    wood = things.both(stage.coat(rgb(*colour), 0.45, 0.2))
    board = shapes.block(190, 1.8, high - 5.5, high + 4.5, 0.4, stage.folder / "pegboard.ply")
    stage.add("stand@pegs", board, wood, stage.to.translate([0, wall - 0.9, 0]))
    for number, x in enumerate((-56.0, -28.0, 0.0, 28.0, 56.0)):
        line = np.stack([np.full(40, x), np.linspace(-3.6, wall - 1, 40), high + np.linspace(0.5, 0, 40)], axis=1)
        peg = shapes.tube(line, shapes.rounded(40, 0.72), stage.folder / f"peg{number}.ply", (1, 0, 0), 32, 2)
        stage.add(f"stand@peg{number}", peg, wood)


def on_hook(stage: Stage) -> None:
    """On a peg of a plastered wall, full, seen from the right in a window's light."""
    stage.camera((78, -225, 44), (2, 0, 27), 24.0, (1, -5, 24), 0.8)
    light.place(stage, "apartment", 200, (0.42, 0.44, 0.47), 2.2)
    stage.softbox("window", (-230, -120, 90), (0, 0, 25), 80, 150, (15.0, 14.8, 14.4))
    stage.wall((640, 330), (0, AWAY, 40), surfaces.trowelled())
    put_hung_tote(stage)
    _pegs(stage, PEG, AWAY, (0.42, 0.28, 0.16))


def in_a_hallway(stage: Stage) -> None:
    """Its back, on a peg over a bench with a jug, low evening light from the right."""
    at = stage.to.translate([0, 0, 78])
    stage.camera((-88, -275, 116), (3, 0, 99), 23.5, (0, -5, 100), 1.0)
    light.place(stage, "lobby", 30, (0.40, 0.38, 0.40), 2.0)
    stage.softbox("window", (220, -150, 150), (0, 0, 95), 70, 130, (20.0, 17.6, 14.6))
    stage.table(FLOOR, (0, 0, 0))
    stage.wall((640, 330), (0, AWAY, 165))
    things.skirting(stage, AWAY)
    put_hung_tote(stage, at @ stage.to.rotate([0, 0, 1], 180))
    _pegs(stage, 78 + PEG, AWAY, (0.70, 0.69, 0.66))
    before = set(stage.parts)
    things.bench(stage, 46, 190, 34, (0.22, 0.12, 0.07))
    for name in set(stage.parts) - before:
        stage.parts[name]["to_world"] = stage.to.translate([0, AWAY - 20, 0]) @ stage.parts[name]["to_world"]
    crockery.jug(stage, (52, AWAY - 20, 46))
    books(stage, (-48, AWAY - 22, 46), 14)


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


def _hung(ending: str, title: str, panel: str, wall: str, floor: str | None) -> dict[str, Any]:
    told = _pack(ending, title, "lifestyle", (panel, "gusset"), floor or "oak", wall)
    told["views"] = {panel: 0.0}
    ground, behind = room_grounds(floor or "oak", wall)
    told["regions"] = [r for r in told["regions"] if not r.get("around")] + ([ground] if floor else []) + [behind]
    return told


SCENES = (
    Scene(
        _pack("standing", "By a wall", "lifestyle", ("front", "gusset"), "oak", "Sage"),
        standing,
        0.86,
        PROPS,
        measures=_measures(),
    ),
    Scene(_pack("both", "Front and back", "studio", ("front", "back", "gusset"), "limed", "Mist"), both, 0.86, PROPS),
    Scene(_hung("hook", "On a hook", "front", "Chalk", None), on_hook, 1.1, ("wall", "stand")),
    Scene(
        _hung("hallway", "In a hallway", "back", "Sage", "walnut"),
        in_a_hallway,
        1.6,
        ("table", "wall", "skirting", "stand", "jug", "book"),
    ),
)
