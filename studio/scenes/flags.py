"""The garden flag on its stand, in the open, waving a little."""

from __future__ import annotations

import numpy as np

from studio import shapes, surfaces
from studio.bake import Scene
from studio.bodies import IN
from studio.sets import part
from studio.stage import Stage, relief_of, rgb

W, H = 12.5 * IN, 18 * IN
BAR_Z = 88.0
HEM, STITCH, FOLD = 1.0, 0.3, 0.05
"""Of a hem, in cm: how wide it is turned over, how long its stitches are, how much it stands out."""
HEDGE = {"Hedge": "#6d7d5c", "Haze": "#b9c6c9", "Stone": "#a39c90", "Dusk": "#5d6470"}


def cloth_at(u: np.ndarray, v: np.ndarray) -> np.ndarray:
    """Points of the cloth: it hangs from its sleeve and bellies in the wind, more towards its free foot."""
    free = np.clip(v, 0, 1) ** 1.25
    x = (u - 0.5) * W * (1 - 0.012 * free)
    wave = 1.9 * np.sin(2.4 * np.pi * (u - 0.2) + 1.6 * v) * free + 0.9 * np.sin(4.6 * np.pi * u - 2.2 * v) * free**1.6
    belly = -2.2 * np.sin(np.pi * np.clip(u, 0, 1)) * np.sin(0.9 * np.pi * v) - 1.6 * free
    swing = 0.10 * free * H * 0.12
    return np.stack([x + 0.25 * np.sin(5 * v), wave + belly, BAR_Z - v * H + 0.25 * free * np.sin(3 * np.pi * u) + swing], -1)


def hemmed(u: np.ndarray, v: np.ndarray) -> np.ndarray:
    """How far the cloth stands out, in cm: turned over and sewn down at both sides and the foot, the stitches drawn in."""
    sides, foot = np.minimum(u, 1 - u) * W, (1 - v) * H
    out = np.zeros_like(u)
    for away, along in ((sides, v * H), (foot, u * W)):
        ridge = FOLD * (0.5 - 0.5 * np.tanh((away - HEM) / 0.06))
        pulled = 0.55 + 0.45 * np.cos(2 * np.pi * along / STITCH)
        out = np.maximum(out, ridge) - 0.045 * pulled * np.exp(-(((away - 0.82 * HEM) / 0.07) ** 2))
    return out


def build(stage: Stage) -> None:
    """A stand pushed into a lawn, a hedge out of focus behind, high soft sun."""
    stage.camera((-34, -190, 84), (5, 0, 58), 27.5, (0, -2, 65), 1.3)
    stage.softbox("sun", (-210, -200, 330), (0, 0, 60), 40, 40, (760.0, 700.0, 600.0))
    stage.softbox("sky", (60, -60, 420), (0, 0, 60), 500, 500, (1.9, 2.1, 2.45))
    stage.around(0.8, 0.86, 0.94)
    stage.table((900, 760), (0, 180, 0), 0.9)
    stage.wall((1400, 420), (0, 470, 190))
    u, v = np.meshgrid(np.linspace(0, 1, 900), np.linspace(0, 1, 1300))
    relief = relief_of(surfaces.weave(1024, 200))
    mesh = shapes.sheet(cloth_at(u, v) - np.stack([0 * u, hemmed(u, v), 0 * u], -1), np.stack([u, v], -1))
    weave = stage.cloth("front", relief, 0.008, (2, 3), 0.05)
    stage.add("front", shapes.write_ply(stage.folder / "front.ply", *mesh), weave)
    back = cloth_at(u, v) + np.array([0, 0.06, 0])
    stage.add(
        "back", shapes.write_ply(stage.folder / "back.ply", *shapes.sheet(back)), stage.cloth(rgb(0.7, 0.7, 0.69), sheen=0.05)
    )
    iron = stage.coat(rgb(0.035, 0.036, 0.037), 0.5, 0.2)
    bar = np.stack([np.linspace(-W / 2 - 3.2, W / 2 + 6.5, 60), np.zeros(60), np.full(60, BAR_Z + 0.1)], 1)
    side = W / 2 + 6.5
    pole = shapes.spline(
        [
            (side - 0.4, 0, BAR_Z + 0.1),
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
    sleeve_line = np.stack([np.linspace(-W / 2, W / 2, 60), np.zeros(60), np.full(60, BAR_Z - 0.05)], 1)
    sleeve = shapes.tube(sleeve_line, np.full((60, 2), 0.62), stage.folder / "sleeve.ply", around=40, squareness=2)
    stage.add("sleeve", sleeve, stage.cloth(rgb(0.7, 0.7, 0.69), sheen=0.05))


SCENES = (
    Scene(
        {
            "id": "garden-flag-stand",
            "title": "On its stand by a lawn",
            "kind": "lifestyle",
            "templates": ["garden-flag"],
            "finish": "matte",
            "views": {"front": 0.0},
            "regions": [
                {"id": "front", "title": "Print", "panel": "front"},
                {
                    "id": "table",
                    "title": "Surface below",
                    "around": True,
                    "size_mm": [9000, 7600],
                    "surface": "lawn",
                    "colours": HEDGE,
                },
                {**part("wall", "Background", HEDGE, around=True), "size_mm": [14000, 4200], "surface": "garden"},
            ],
        },
        build,
        0.46,
        measures=(
            ("Width", (-W / 2, 0, BAR_Z + 3.4), (W / 2, 0, BAR_Z + 3.4), 10 * W),
            ("Height", (-W / 2 - 3, 0, BAR_Z), (-W / 2 - 3, 0, BAR_Z - H), 10 * H),
        ),
    ),
)
