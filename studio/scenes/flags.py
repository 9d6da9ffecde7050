"""The garden flag on its stand, in the open, waving a little."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from studio import light, shapes, surfaces, things
from studio.bake import Scene
from studio.bodies import IN
from studio.draped import garden_flag
from studio.kept import kept_surface
from studio.sets import pack
from studio.stage import Stage, relief_of, rgb

W, H = 12.5 * IN, 18 * IN
BAR_Z = 88.0
EDGE = garden_flag.GATHERED * W / 2
HEM, STITCH, FOLD = garden_flag.HEM, 0.3, 0.05
"""Of a hem, in cm: how wide it is turned over, how long its stitches are, how much it stands out."""


LATER = 287
"""Frames after which the wind has moved the flag in another way."""


def cloth_at(u: np.ndarray, v: np.ndarray, later: bool = False) -> np.ndarray:
    """Points of the simulated cloth; u runs right and v down."""
    name, frames = ("garden-flag-later", LATER) if later else ("garden-flag", garden_flag.FRAMES)
    surface = kept_surface(name, garden_flag, lambda: garden_flag.in_the_wind(W, H, BAR_Z, frames))
    return surface.over("front", np.stack([u * W, (1 - v) * H], -1))


def hemmed(u: np.ndarray, v: np.ndarray) -> np.ndarray:
    """How far the cloth stands out, in cm: turned over and sewn down at both sides and the foot, the stitches drawn in."""
    sides, foot = np.minimum(u, 1 - u) * W, (1 - v) * H
    out = np.zeros_like(u)
    for away, along in ((sides, v * H), (foot, u * W)):
        ridge = FOLD * (0.5 - 0.5 * np.tanh((away - HEM) / 0.06))
        pulled = 0.55 + 0.45 * np.cos(2 * np.pi * along / STITCH)
        out = np.maximum(out, ridge) - 0.045 * pulled * np.exp(-(((away - 0.82 * HEM) / 0.07) ** 2))
    return out


def in_meadow(stage: Stage) -> None:
    """A stand in a meadow in the first sun, which comes from the right; trees out of focus behind."""
    stage.camera((-72, -178, 80), (4, 0, 64), 27.5, (0, -2, 65), 1.6)
    light.place(stage, "sunrise", 82, 1.0, 1.1, (3.4, 2.7, 1.9))
    put_flag(stage)


def under_trees(stage: Stage) -> None:
    """On a path in the shade of tall trees, seen from the right."""
    stage.camera((66, -186, 76), (3, 0, 64), 28.0, (0, -2, 65), 1.9)
    light.place(stage, "forest", 30, 2.3, 1.2)
    stage.softbox("clearing", (-220, -160, 240), (0, 0, 64), 120, 120, (12.0, 11.4, 10.0))
    put_flag(stage, True)


def on_lawn(stage: Stage) -> None:
    """On a lawn in the afternoon, nearly from the front; a plant in its pot beside it."""
    stage.camera((-22, -204, 70), (6, 0, 62), 27.0, (0, -2, 65), 1.5)
    light.place(stage, "park", 84, 1.3, 1.2, (3.0, 2.7, 2.2), 2.0)
    put_flag(stage, True)
    things.plant(stage, (-44, 46, -4), 66, 36, 6)


def at_dawn(stage: Stage) -> None:
    """Among rocks before far hills, in the last light."""
    stage.camera((-58, -186, 66), (5, 0, 63), 28.0, (0, -2, 65), 1.4)
    light.place(stage, "dawn", 96, (1.7, 1.78, 1.38), 1.0)
    stage.softbox("sky", (-240, -150, 230), (0, 0, 64), 140, 140, (4.8, 4.5, 4.2))
    put_flag(stage)


def put_flag(stage: Stage, later: bool = False) -> None:
    """Put the flag on its stand on the stage."""
    u, v = np.meshgrid(np.linspace(0, 1, 900), np.linspace(0, 1, 1300))
    relief = relief_of(surfaces.weave(1024, 200))
    mesh = shapes.sheet(cloth_at(u, v, later) - np.stack([0 * u, hemmed(u, v), 0 * u], -1), np.stack([u, v], -1))
    weave = stage.cloth("front", relief, 0.008, (2, 3), 0.05)
    stage.add("front", shapes.write_ply(stage.folder / "front.ply", *mesh), weave)
    back = cloth_at(u, v, later) + np.array([0, 0.06, 0])
    stage.add(
        "back", shapes.write_ply(stage.folder / "back.ply", *shapes.sheet(back)), stage.cloth(rgb(0.7, 0.7, 0.69), sheen=0.05)
    )
    iron = stage.coat(rgb(0.075, 0.073, 0.07), 0.42, 0.5)
    bar = np.stack([np.linspace(-W / 2 - 3.2, W / 2 + 6.5, 60), np.zeros(60), np.full(60, BAR_Z)], 1)
    side = W / 2 + 6.5
    pole = shapes.spline(
        [
            (side - 0.4, 0, BAR_Z),
            (side + 1.6, 0, BAR_Z - 0.5),
            (side + 2.4, 0, BAR_Z - 3),
            (side + 2.4, 0, 40),
            (side + 2.4, 0, -4),
        ],
        120,
    )
    foot = np.stack([np.full(30, side + 2.4), np.zeros(30), np.linspace(12, 12, 30)], 1)
    foot[:, 0] += np.linspace(-5, 5, 30)
    for name, line, thick in (("bar", bar, 0.32), ("pole", pole, 0.34), ("foot", foot, 0.3)):
        tube = shapes.tube(
            line, np.full((len(line), 2), thick), stage.folder / f"{name}.ply", side=(0, 1, 0), around=24, squareness=2
        )
        stage.add(f"stand@{name}", tube, iron)
    sleeve_line = np.stack([np.linspace(-W / 2, W / 2, 60) * garden_flag.GATHERED, np.zeros(60), np.full(60, BAR_Z)], 1)
    sleeve = shapes.tube(
        sleeve_line, np.full((60, 2), garden_flag.SLEEVE - 0.32), stage.folder / "sleeve.ply", around=40, squareness=2
    )
    stage.add("sleeve", sleeve, stage.cloth(rgb(0.7, 0.7, 0.69), sheen=0.05))


def _scene(ending: str, title: str, build: Callable[[Stage], None], exposure: float, sizes: bool = False) -> Scene:
    measures = (
        ("Width", (-EDGE, 0, BAR_Z + 3.4), (EDGE, 0, BAR_Z + 3.4), 10 * W),
        ("Height", (-EDGE - 3, 0, BAR_Z), (-EDGE - 3, 0, BAR_Z - H), 10 * H),
    )
    regions = [{"id": "front", "title": "Print", "panel": "front"}]
    told = pack(f"garden-flag-{ending}", "garden-flag", title, "lifestyle", "matte", {"front": 0.0}, regions)
    return Scene(told, build, exposure, ("plant",), measures=measures if sizes else ())


SCENES = (
    _scene("stand", "On its stand in a meadow", in_meadow, 1.75, True),
    _scene("path", "On a path under trees", under_trees, 1.0),
    _scene("lawn", "On a lawn", on_lawn, 1.1),
    _scene("dawn", "Among rocks at dawn", at_dawn, 0.66),
)
