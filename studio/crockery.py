"""Small things for a table: coffee with its foam, a notebook, a jug. Lengths in cm."""

from __future__ import annotations

from functools import cache

import cv2
import mitsuba as mi
import numpy as np
from numpy.typing import NDArray

from studio import shapes
from studio.stage import Stage, bitmap, rgb

Place = tuple[float, float, float]
FOAM_PX = 768


@cache
def foam(seed: int = 2) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
    """Return the colour (h, w, 3) in linear light and the height (h, w) of coffee's foam: brown crema, bubbles near the rim, a pale swirl."""
    rng = np.random.default_rng(seed)
    y, x = (np.mgrid[0:FOAM_PX, 0:FOAM_PX] + 0.5) / FOAM_PX * 2 - 1
    soft = [cv2.GaussianBlur(rng.standard_normal((FOAM_PX, FOAM_PX)), (0, 0), reach) for reach in (40, 14, 5, 1.5)]
    soft = [each / each.std() for each in soft]
    far = np.hypot(x, y)
    bend = np.arctan2(y + 0.05 * soft[0], x) + 2.6 * far
    swirl = np.exp(-(((far - 0.42 - 0.10 * np.sin(2 * bend)) / 0.16) ** 2)) * (0.5 + 0.5 * np.cos(bend + 0.5 * soft[1]))
    pale = np.clip(0.85 * swirl + 0.05 * soft[1] + 0.05 * soft[2], 0, 1)
    height = 0.02 * soft[2]
    bubbles = np.zeros((FOAM_PX, FOAM_PX), np.float32)
    for _ in range(900):
        away, turn = 1 - abs(rng.normal(0, 0.16)), rng.uniform(0, 2 * np.pi)
        centre = ((np.array([np.cos(turn), np.sin(turn)]) * away + 1) / 2 * FOAM_PX).round().astype(int)
        cv2.circle(bubbles, tuple(centre.tolist()), int(1 + rng.exponential(1.6)), float(rng.uniform(0.4, 1)), -1, cv2.LINE_AA)
    bubbles = np.asarray(cv2.GaussianBlur(bubbles, (0, 0), 0.8), np.float32)
    crema, milk = np.array([0.20, 0.095, 0.036]), np.array([0.56, 0.41, 0.26])
    colour = (crema * (1 - pale[..., None]) + milk * pale[..., None]) * np.exp(0.07 * soft[2] + 0.05 * soft[3])[..., None]
    colour *= (1 + 0.35 * bubbles - 0.35 * np.clip((far - 0.93) / 0.07, 0, 1))[..., None]
    return np.clip(colour, 0.01, 0.9).astype(np.float32), (height + 0.10 * bubbles + 0.5).astype(np.float32)


def coffee(stage: Stage, at: Place, r: float) -> None:
    """Coffee up to a height in a round vessel of radius ``r``, a little higher where it wets the wall."""
    colour, height = foam()
    spread, around = np.linspace(0, 1, 40), np.linspace(0, 2 * np.pi, 97)
    radius, angle = np.meshgrid(spread * (r + 0.02), around, indexing="ij")
    lift = 0.10 * np.exp(-(r - radius) / 0.10)
    grid = np.stack([radius * np.cos(angle), radius * np.sin(angle), lift], -1) + np.asarray(at)
    uv = np.stack([0.5 + 0.5 * radius / r * np.cos(angle), 0.5 - 0.5 * radius / r * np.sin(angle)], -1)
    liquid = {
        "type": "principled",
        "base_color": {"type": "bitmap", "bitmap": mi.Bitmap(colour), "raw": True},
        "roughness": 0.28,
        "specular": 0.45,
    }
    bumpy = {"type": "twosided", "bsdf": {"type": "bumpmap", "arbitrary": bitmap(height), "scale": 0.05, "bsdf": liquid}}
    stage.add("coffee", shapes.write_ply(stage.folder / "coffee.ply", *shapes.sheet(grid, uv)), bumpy)


def notebook(
    stage: Stage, at: Place, turn: float, colour: Place = (0.055, 0.085, 0.075), size: Place = (14.0, 21.0, 1.5)
) -> None:
    """A closed notebook in cloth boards, with an elastic band."""
    w, d, h = size
    place = stage.to.translate(list(at)) @ stage.to.rotate([0, 0, 1], turn)
    boards = stage.coat(rgb(*colour), 0.75, 0.0)
    for name, low, high in (("below", 0.0, 0.24), ("above", h - 0.24, h)):
        stage.add(f"notebook@{name}", shapes.block(w, d, low, high, 0.09, stage.folder / f"notebook{name}.ply"), boards, place)
    pages = shapes.block(w - 0.6, d - 0.6, 0.2, h - 0.2, 0.05, stage.folder / "notebookpages.ply")
    stage.add("notebook@pages", pages, {"type": "diffuse", "reflectance": rgb(0.68, 0.64, 0.55)}, place)
    spine = shapes.block(0.5, d, 0.02, h - 0.02, 0.2, stage.folder / "notebookspine.ply")
    stage.add("notebook@spine", spine, boards, place @ stage.to.translate([-w / 2 + 0.12, 0, 0]))
    band = shapes.block(0.55, d + 0.14, -0.01, h + 0.07, 0.07, stage.folder / "notebookband.ply")
    stage.add(
        "notebook@band", band, stage.coat(rgb(0.20, 0.05, 0.03), 0.7, 0.0), place @ stage.to.translate([w / 2 - 2.2, 0, 0])
    )


def jug(stage: Stage, at: Place, colour: Place = (0.56, 0.53, 0.46)) -> None:
    """A small stoneware jug."""
    outline = shapes.spline(
        [
            (0.05, 0),
            (3.4, 0.0),
            (4.0, 0.4),
            (5.2, 4.5),
            (4.9, 8.5),
            (3.3, 12.0),
            (3.1, 13.6),
            (3.7, 15.0),
            (3.45, 15.0),
            (2.9, 13.6),
        ],
        90,
    )
    place = stage.to.translate(list(at))
    stage.turned("jug", outline, {"type": "twosided", "bsdf": stage.coat(rgb(*colour), 0.42, 0.35)}, place)
    line = shapes.spline([(3.1, 0, 13.2), (5.6, 0, 13.4), (7.0, 0, 11.0), (6.6, 0, 7.6), (5.0, 0, 5.8)], 60)
    handle = shapes.tube(line, np.full((60, 2), 0.48) * [1.25, 0.85], stage.folder / "jughandle.ply", around=28, squareness=2.2)
    stage.add("jug@handle", handle, {"type": "twosided", "bsdf": stage.coat(rgb(*colour), 0.42, 0.35)}, place)
