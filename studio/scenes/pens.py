"""Pens: three abreast at an angle, each turned a third further."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np

from studio import crockery, places, shapes
from studio.bake import Scene
from studio.bodies import IN, girth
from studio.scenes.cups import AROUND
from studio.sets import grounds, pack, part, room, studio_light
from studio.stage import STEEL, Stage

R, LONG = girth(1.3), 4.3 * IN
METAL = {"Ink": "#1d1f23", "Snow": "#f2f1ed", "Pine": "#2f4a3e", "Rowan": "#a8322b", "Lake": "#2e4a73"}
TIP, CAP = 1.6, 0.7


def put_pen(stage: Stage, at: object, print_: str, more: str) -> None:
    """A pen standing on its tip along z: the printed barrel from ``TIP`` up, a cap with a clip on top."""
    barrel = shapes.profile([(R, TIP), (R, TIP + LONG)])
    tip = shapes.profile(
        [(0.04, -0.42)],
        shapes.arc((0.0, -0.36), 0.07, -60, 0, 5),
        [(0.13, -0.05), (0.20, 0.0)],
        shapes.spline([(0.20, 0.0), (0.34, 0.55), (0.46, 1.1), (R - 0.02, TIP - 0.18)], 30),
        [(R - 0.02, TIP)],
    )
    ring = shapes.profile([(R - 0.03, TIP - 0.16)], shapes.arc((R - 0.02, TIP - 0.08), 0.06, -90, 90, 7), [(R - 0.03, TIP)])
    top = TIP + LONG
    cap = shapes.profile(
        [(R - 0.02, top), (R + 0.02, top + 0.02), (R + 0.02, top + CAP - 0.18)],
        shapes.arc((R - 0.16, top + CAP - 0.18), 0.18, 0, 90, 8),
        [(0, top + CAP)],
    )
    stage.turned(print_, barrel, stage.coat(print_, 0.28, 0.8), at)
    stage.turned(f"tip{more}", tip, stage.coat("cap", 0.3, 0.5), at)
    stage.turned(f"ring{more}", ring, {"type": "twosided", "bsdf": STEEL}, at)
    stage.turned(f"cap{more}", cap, stage.coat("cap", 0.3, 0.5), at)
    z = np.array([top + 0.40, top + 0.42, top + 0.30, top - 0.4, top - 2.0, top - 3.2, top - 3.55, top - 3.75])
    out = np.array([R - 0.1, R + 0.16, R + 0.25, R + 0.27, R + 0.22, R + 0.12, R + 0.10, R + 0.20])
    line = shapes.spline([(0.0, -o, h) for o, h in zip(out, z, strict=True)], 60)
    wide = np.interp(np.linspace(0, 1, 60), [0, 0.1, 0.85, 1], [0.24, 0.25, 0.18, 0.12])
    clip = shapes.tube(
        line, np.stack([wide, np.full(60, 0.045)], 1), stage.folder / f"clip{more}.ply", side=(1, 0, 0), squareness=4
    )
    stage.add(f"clip{more}", clip, {"type": "twosided", "bsdf": STEEL}, at @ stage.to.rotate([0, 0, 1], -48))


def build(stage: Stage) -> None:
    """Three pens lying on a ground, seen from above at an angle."""
    stage.camera((0, -46, 62), (0, 0.2, 0), 14.6, (0, -1, 1), 0.22)
    studio_light(stage, 2, 1.15)
    room(stage)
    for i, (x, turn) in enumerate(((-2.9, 0), (0.0, 0), (2.9, 0))):
        lie = (
            stage.to.translate([x - 3.4, -4.6 + 0.5 * (i % 2), R + 0.02])
            @ stage.to.rotate([0, 0, 1], -34)
            @ stage.to.rotate([1, 0, 0], -90)
        )
        put_pen(stage, lie @ stage.to.rotate([0, 0, 1], turn), f"wrap-{i + 1}", f"@{i}")


def _length() -> tuple[Any, ...]:
    """The length of the pen on the left, drawn beside it."""
    turn = np.radians(34)
    along, aside = np.array([np.sin(turn), np.cos(turn), 0]), np.array([-np.cos(turn), np.sin(turn), 0])
    start = np.array([-2.9 - 3.4, -4.6, R]) + 1.2 * aside
    low, high = start - 0.42 * along, start + (TIP + LONG + CAP) * along
    return (("Length", tuple(low), tuple(high), 10 * float(np.linalg.norm(high - low))),)


def _lying(stage: Stage, x: float, y: float, z: float, angle: float) -> Any:
    """A pen that lies at a height, its tip at x, y, pointing away from the direction ``angle`` of the table."""
    return stage.to.translate([x, y, z + R + 0.02]) @ stage.to.rotate([0, 0, 1], angle) @ stage.to.rotate([1, 0, 0], -90)


def on_notebook(stage: Stage) -> None:
    """One pen on a closed notebook by a window, a cup of coffee behind."""
    stage.camera((5, -47, 36), (0.6, 1.0, 1.2), 17.5, (0.4, -1.5, 2.0), 0.55)
    places.in_a_flat(stage)
    places.slab(stage)
    crockery.notebook(stage, (0, 2.5, 0), 64, (0.10, 0.055, 0.04))
    put_pen(stage, _lying(stage, -5.4, -0.9, 1.5, -76), "wrap", "")
    crockery.jug(stage, (13.5, 25, 0), (0.30, 0.36, 0.38))


def on_table(stage: Stage) -> None:
    """One pen on a table among trees, seen from near."""
    stage.camera((-5, -42, 17), (0.2, 1.5, 0.9), 20.0, (0, -1.0, 0.6), 0.6)
    places.in_shade_of_trees(stage)
    places.slab(stage)
    put_pen(stage, _lying(stage, -6.6, 0.2, 0, -82), "wrap", "")
    crockery.notebook(stage, (9, 22, 0), -18)


def alone(stage: Stage) -> None:
    """One pen on pale stone in studio light, seen from above."""
    stage.camera((0, -40, 70), (0, 0.4, 0), 13.6, (0, 0, 0.6), 0.25)
    studio_light(stage, 2, 1.15)
    room(stage)
    put_pen(stage, _lying(stage, -5.6, -3.2, 0, -60), "wrap", "")


def _one(
    ending: str, title: str, kind: str, build: Callable[[Stage], None], exposure: float, around: list[dict[str, Any]]
) -> Scene:
    regions = [{"id": "wrap", "title": "Print", "panel": "wrap"}, part("cap", "Tip and cap", METAL), *around]
    told = pack(f"pen-{ending}", "pen-wrap", title, kind, "gloss", AROUND, regions, turns=True, unprinted=True)
    return Scene(told, build, exposure, ("table", "wall", "slab", "notebook", "jug"), hard=True)


PLACES = (("front", 0.0), ("a third on", 120.0), ("two thirds on", 240.0))
SCENES = (
    Scene(
        {
            "id": "pen-three",
            "title": "Three abreast",
            "kind": "studio",
            "templates": ["pen-wrap"],
            "views": {"all round": 0.0},
            "turns": True,
            "unprinted": True,
            "finish": "gloss",
            "regions": [
                *(
                    {"id": f"wrap-{i + 1}", "title": f"Print, {side}", "panel": "wrap", "turn": turn, "place": side}
                    for i, (side, turn) in enumerate(PLACES)
                ),
                part("cap", "Tip and cap", METAL),
                *grounds("walnut", "Sand"),
            ],
        },
        build,
        1.0,
        measures=_length(),
        hard=True,
    ),
    _one("stone", "On pale stone", "studio", alone, 0.62, grounds("marble", "Mist")),
    _one("notebook", "On a notebook by a window", "lifestyle", on_notebook, 1.5, grounds("oak")[:1]),
    _one("table", "On a table among trees", "lifestyle", on_table, 0.4, grounds("limed")[:1]),
)
