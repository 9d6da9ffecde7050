"""A bed: mattress, duvet, headboard and pillows. Lengths in cm; its head lies away from the viewer, its middle over the origin."""

from __future__ import annotations

from functools import cache

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import LinearNDInterpolator, NearestNDInterpolator

from studio import cushions, shapes, surfaces, upholstery
from studio.cloth.obstacles import Obstacle
from studio.cloth.surface import Surface
from studio.clothing import put_piece
from studio.draped import throw
from studio.kept import kept_surface
from studio.people import field as fields
from studio.stage import Stage, relief_of, rgb
from studio.upholstery import Padded

Points = NDArray[np.float64]

WIDE, LONG, TOP = 160.0, 200.0, 46.0
MATTRESS = Padded((WIDE, LONG, 22), (0, 0, TOP - 11), 5.0, (0.3, 0.3, 0.8), seed=11)
FRAME = Padded((WIDE + 6, LONG + 8, 16), (0, 0, 21), 2.5, seed=12)
BOARD = Padded((WIDE + 10, 9, 66), (0, LONG / 2 + 8, 62), 3.5, (0, 1.0, 0.5), piped=1, seed=13)

DUVET_WIDE, DUVET_LONG, DUVET_Y = 210.0, 150.0, -22.0
DUVET_THICK, QUILT = 3.6, 25.0
"""Of the duvet between its seams, and the distance between them."""
CELL = 2.0


def _solid() -> Obstacle:
    """Mattress and frame."""
    low, high = np.array([-116.0, -112.0, -2.0]), np.array([116.0, 92.0, 66.0])
    grid = fields.grid(low, high, CELL)
    distance = np.minimum(upholstery.nearest((MATTRESS, FRAME), grid), grid[..., 2].astype(np.float32))
    return Obstacle(distance - np.float32(0.5), low, CELL, 0.5)


@cache
def duvet() -> Surface:
    """Return the duvet's middle, as it was shaken out over the mattress."""

    def made() -> Surface:
        middle = (0.0, DUVET_Y, TOP + 1.6)
        return Surface.of(throw.spread(DUVET_WIDE, DUVET_LONG, _solid(), middle, 0.045, 2.6, seed=15))

    return kept_surface("duvet", throw, made)


def covered() -> Obstacle:
    """Return the made bed as what a blanket lies on: the duvet's upper side, and the mattress beside it."""
    low, high = np.array([-92.0, -126.0, 20.0]), np.array([92.0, 92.0, 70.0])
    grid = fields.grid(low, high, CELL)
    piece = duvet().smoothed(0)["front"]
    x, y = grid[:, :, 0, 0], grid[:, :, 0, 1]
    flat = piece.at[:, :2]
    height = LinearNDInterpolator(flat, piece.at[:, 2])(x, y)
    height = np.where(np.isfinite(height), height, NearestNDInterpolator(flat, piece.at[:, 2])(x, y))
    height = cv2.GaussianBlur(height.astype(np.float32), (0, 0), 0.8) + DUVET_THICK / 2 + 0.4
    slope = np.sqrt(1 + sum(each**2 for each in np.gradient(height, CELL)))
    return Obstacle(((grid[..., 2] - height[..., None]) / slope[..., None]).astype(np.float32), low, CELL, 0.55)


def put(stage: Stage, linen: tuple[float, float, float], padding: tuple[float, float, float]) -> None:
    """Put the made bed on the stage: its bed linen and its padded frame in two colours."""
    weave = relief_of(surfaces.weave(1024, 60, seed=33))
    frame = stage.cloth(rgb(*padding), weave, 0.03, sheen=0.3)
    upholstery.put(stage, "bed", (FRAME, BOARD), frame, 8.0, frame)
    sheet = stage.cloth(rgb(*linen), relief_of(surfaces.weave(1024, 200, seed=34)), 0.01, sheen=0.15)
    upholstery.put(stage, "mattress", (MATTRESS,), sheet, 8.0, sheet)
    piece = duvet().smoothed(2)["front"]
    flat = piece.flat - piece.flat.min(axis=0)
    wide, long = flat.max(axis=0)
    inward = np.minimum.reduce([flat[:, 0], wide - flat[:, 0], flat[:, 1], long - flat[:, 1]])
    seam = np.minimum.reduce([np.abs((flat[:, i] + QUILT / 2) % QUILT - QUILT / 2) for i in (0, 1)])
    round_ = np.sqrt(np.clip(1 - (1 - np.clip(np.minimum(inward, seam + 1.2) / 6, 0, 1)) ** 2, 0, 1))
    puff = DUVET_THICK / 2 * round_ + 0.02
    for side in (1.0, -1.0):
        skin = piece.moved(piece.at + side * puff[:, None] * piece.normal)
        put_piece(stage, f"duvet@{side:+.0f}", skin, piece.flat / 8.0, sheet)
    for number, (x, turn) in enumerate(((-40.0, -3.0), (41.0, 4.0))):
        place = (
            stage.to.translate([x, 88.0, TOP + 19.0])
            @ stage.to.rotate([0, 0, 1], turn)
            @ stage.to.rotate([1, 0, 0], 68)
            @ stage.to.scale([1.42, 1.0, 1.0])
        )
        for half in ("front", "back"):
            path = stage.folder / f"cushion{number}{half}.ply"
            stage.add(
                f"cushion@{number}{half}",
                shapes.write_ply(path, *shapes.sheet(cushions.sheet(cushions.lying(), half))),
                sheet,
                place,
            )
