"""Rooms: where products stand, and the light that falls on them. Lengths in centimetres."""

from __future__ import annotations

from typing import Any

from studio import shapes
from studio.stage import Stage, rgb

WALLS = {
    "Sand": "#cbbfae",
    "Chalk": "#ebe8e1",
    "Mist": "#c5cdd0",
    "Sage": "#aab3a0",
    "Clay": "#b58d78",
    "Dusk": "#5d6470",
    "Coal": "#2f3134",
}
PLASTIC = {"Snow": "#f2f1ed", "Ink": "#1d1f23", "Pine": "#2f4a3e", "Rowan": "#a8322b"}
GLAZE = {"White": "#f1f0ec", "Ink": "#1d1f23", "Pine": "#2f4a3e", "Rowan": "#a8322b", "Lake": "#2e4a73", "Rose": "#d9a0a0"}
ROOM = (260.0, 150.0)
BACK = (620.0, 330.0)


def part(region: str, title: str, colours: dict[str, str], **more: Any) -> dict[str, Any]:
    """The pack's entry of a plain part, its first colour the default."""
    return {"id": region, "title": title, "default": next(iter(colours)), "colours": colours, **more}


def pack(
    id_: str,
    template: str,
    title: str,
    kind: str,
    finish: str,
    views: dict[str, float],
    regions: list[dict[str, Any]],
    **more: Any,
) -> dict[str, Any]:
    """The pack's head of a scene that shows one blank; ``more`` are keys that not every scene has."""
    head = {"id": id_, "title": title, "kind": kind, "templates": [template], "finish": finish}
    return {**head, "views": views, "regions": regions, **more}


def grounds(surface: str = "oak", wall: str = "Sand") -> list[dict[str, Any]]:
    """The pack's entries of table and wall."""
    return [
        {
            "id": "table",
            "title": "Surface below",
            "around": True,
            "size_mm": [10 * v for v in ROOM],
            "surface": surface,
            "colours": WALLS,
        },
        {**part("wall", "Background", WALLS, around=True), "default": wall},
    ]


BELOW_MM = (3300.0, 2700.0)
"""Of the ground under what is seen from straight above."""


def ground_below(surface: str) -> dict[str, Any]:
    """The pack's entry of the ground under what is seen from straight above."""
    ground = {"id": "table", "title": "Surface below", "around": True, "size_mm": list(BELOW_MM)}
    return {**ground, "surface": surface, "colours": WALLS}


def room(stage: Stage, back: float = 150.0) -> None:
    """A table and, well behind it, a wall."""
    stage.table(ROOM, (0, 14, 0))
    stage.wall(BACK, (0, back, 60))


def studio_light(stage: Stage, high: float = 12.0, gain: float = 1.0, fill: float = 1.0) -> None:
    """A warm soft box from the left, a cool tall one from the right, light from above, a wash on the wall."""
    stage.softbox("key", (-76, -46, 34 + high), (0, 0, high), 40, 78, [v * gain for v in (17.0, 15.7, 14.2)])
    stage.softbox("fill", (74, 6, 22 + high), (0, 0, high), 16, 84, [v * gain * fill for v in (5.4, 5.8, 6.4)])
    stage.softbox("top", (-14, 34, 72 + high), (0, 6, 6), 44, 24, [v * gain for v in (4.2, 4.1, 4.0)])
    stage.softbox("wash", (-90, 80, 110), (10, 150, 30), 50, 50, [v * gain for v in (15.0, 14.2, 13.0)])
    stage.around(0.13 * gain, 0.135 * gain, 0.145 * gain)


def window_light(stage: Stage, high: float = 10.0, gain: float = 1.0) -> None:
    """Low sun through a window on the left, its bars in the shadow, and the room's own soft light."""
    stage.softbox("sun", (-300, -120, 190), (0, 10, high), 34, 34, [v * gain for v in (420.0, 372.0, 300.0)])
    t = stage.to.look_at(origin=[-150, -55, 100], target=[0, 10, high], up=[0, 0, 1])
    for name, x, y, w, h in (
        ("bar@1", 15, 0, 1.6, 60),
        ("bar@2", 0, 17, 60, 1.6),
        ("bar@3", -44, 0, 20, 60),
        ("bar@4", 62, 0, 20, 60),
    ):
        stage.parts[name] = {
            "type": "rectangle",
            "to_world": t @ stage.to.translate([x, y, 0]) @ stage.to.scale([w, h, 1]),
            "bsdf": {"type": "diffuse", "reflectance": rgb(0.4)},
        }
    stage.softbox("sky", (-50, -190, 150), (0, 0, high), 90, 90, [v * gain for v in (2.6, 2.8, 3.1)])
    stage.softbox("room", (150, -40, 90), (0, 0, high), 120, 90, [v * gain for v in (0.75, 0.72, 0.66)])
    stage.around(0.20 * gain, 0.20 * gain, 0.20 * gain)


def books(stage: Stage, at: tuple[float, float, float], turn: float = 0.0) -> None:
    """A small stack of cloth-bound books."""
    z = at[2]
    for i, (w, d, h, colour, twist) in enumerate(
        (
            (17.5, 12.5, 2.6, (0.07, 0.13, 0.11), 4),
            (16.0, 11.5, 1.9, (0.42, 0.30, 0.17), -5),
            (14.5, 10.5, 2.2, (0.30, 0.08, 0.06), 2),
        )
    ):
        place = stage.to.translate([at[0], at[1], z]) @ stage.to.rotate([0, 0, 1], turn + twist)
        cover = stage.coat(rgb(*colour), 0.7, 0.0)
        for name, low, high in ((f"book@{i}a", 0.0, 0.22), (f"book@{i}b", h - 0.22, h)):
            stage.add(name, shapes.block(w, d, low, high, 0.08, stage.folder / f"{name}.ply"), cover, place)
        pages = shapes.block(w - 0.7, d - 0.7, 0.2, h - 0.2, 0.05, stage.folder / f"pages{i}.ply")
        stage.add(f"book@{i}c", pages, {"type": "diffuse", "reflectance": rgb(0.62, 0.57, 0.47)}, place)
        z += h


def vase(stage: Stage, at: tuple[float, float, float], colour: tuple[float, float, float] = (0.52, 0.47, 0.40)) -> None:
    """A stoneware vase with dried grasses."""
    import numpy as np

    outline = shapes.spline(
        [(0.05, 0), (3.2, 0.0), (4.1, 0.5), (5.6, 5), (5.2, 10), (2.6, 14), (2.0, 16.2), (2.5, 17.4), (2.2, 17.3), (1.7, 16)],
        80,
    )
    place = stage.to.translate(list(at))
    stage.turned("vase", outline, {"type": "twosided", "bsdf": stage.coat(rgb(*colour), 0.6, 0.05)}, place)
    rng = np.random.default_rng(4)
    straw = {"type": "twosided", "bsdf": {"type": "diffuse", "reflectance": rgb(0.46, 0.34, 0.18)}}
    for i in range(14):
        lean, turn, high = rng.uniform(2, 15), rng.uniform(0, 360), rng.uniform(16, 27)
        line = np.stack(
            [np.linspace(0, 1, 24) ** 2 * high * np.tan(np.radians(lean)), np.zeros(24), np.linspace(10, 16 + high, 24)], 1
        )
        ear = np.clip((np.linspace(0, 1, 24) - 0.72) / 0.28, 0, 1)
        thick = 0.05 + 0.42 * np.sin(np.pi * ear) ** 0.8
        mesh = shapes.tube(line, np.stack([thick, thick], 1), stage.folder / f"straw{i}.ply", around=10, squareness=2)
        stage.add(f"grass@{i}", mesh, straw, place @ stage.to.rotate([0, 0, 1], turn))
