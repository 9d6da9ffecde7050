"""Blankets on a stage: a settled sheet gets its thickness, its two sides and its hem. Lengths in cm."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import armchair, bed, surfaces
from studio.cloth.obstacles import Obstacle, box
from studio.cloth.surface import Surface
from studio.clothing import put_piece
from studio.draped import throw
from studio.kept import kept_surface
from studio.stage import Stage, relief_of, rgb

Points = NDArray[np.float64]

THICK, PLIED = 0.7, throw.PLIED.thickness
"""Of fleece that hangs, and in layers, cm."""

FINER = 2
HEM, DRAWN, STITCH = 1.6, 0.10, 0.5
"""Of the hem: how wide it is turned over, how far its seam draws the cloth in, and how long a stitch is, cm."""

PILE_CM = 30.0
"""Of the pile, before it repeats."""


@cache
def pile() -> NDArray[np.float32]:
    """Return the height of fleece: a short pile brushed one way."""
    rng = np.random.default_rng(8)
    fine, coarse, brushed = (surfaces.noise(rng, (1024, 1024), *reach) for reach in ((3.2, 2.0), (10, 7), (46, 30)))
    return relief_of(fine + 0.6 * coarse + 0.9 * brushed)


def over_armchair(name: str, wide: float, long: float) -> Surface:
    """Return a blanket that was thrown over an armchair's back and seat."""
    return kept_surface(
        f"{name}-armchair",
        (throw, armchair),
        lambda: Surface.of(throw.hung(wide, long, armchair.obstacle(), armchair.WAY, 0.14 * long, -3.0)),
        repr((wide, long)),
    )


def on_floor(name: str, wide: float, long: float) -> Surface:
    """Return a blanket spread on boards."""
    size = (wide + 30, long + 30, 10.0)
    low, high = (-size[0] / 2 + 4, -size[1] / 2 + 4, -6.0), (size[0] / 2 - 4, size[1] / 2 - 4, 12.0)

    def made() -> Surface:
        return Surface.of(throw.spread(wide, long, Obstacle.of(box((0, 0, -4.85), size), low, high, 1.5, 0.6), (0.0, 0.0, 0.4)))

    return kept_surface(f"{name}-floor", throw, made, repr((wide, long)))


def on_bed(name: str, wide: float, long: float) -> Surface:
    """Return a blanket spread over the foot of a made bed."""
    middle = (3.0, bed.LONG / 2 - 128.0, bed.TOP + 7.0)
    return kept_surface(
        f"{name}-bed",
        (throw, bed),
        lambda: Surface.of(throw.spread(wide, long, bed.covered(), middle, 0.025, 1.8, seed=21)),
        repr((wide, long)),
    )


def folded(name: str, wide: float, long: float) -> Surface:
    """Return a blanket folded to eight layers."""
    return kept_surface(f"{name}-folded", throw, lambda: Surface.of(throw.folded(wide, long)), repr((wide, long)))


def height(surface: Surface) -> float:
    """Return how high a folded blanket stands in its middle, cm."""
    at = surface.panels["front"][1]
    near = np.abs(at[:, :2] - at[:, :2].mean(axis=0)).max(axis=1) < 12
    return float(np.percentile(at[near, 2], 98)) + PLIED / 2


def half_thickness(flat: Points, wide: float, long: float, thick: float) -> Points:
    """Return half the thickness at flat places (n, 2): round at the rim, drawn in by the hem's stitches."""
    sides = np.stack([flat[:, 0], wide - flat[:, 0], flat[:, 1], long - flat[:, 1]])
    nearest, inward = sides.argmin(axis=0), np.maximum(sides.min(axis=0), 0)
    along = np.where(nearest < 2, flat[:, 1], flat[:, 0])
    drawn = DRAWN * (0.75 + 0.25 * np.cos(2 * np.pi * along / STITCH)) * np.exp(-(((inward - HEM) / 0.28) ** 2))
    doubled = 0.06 * (inward < HEM)
    return np.asarray(np.sqrt(np.clip(inward / 0.5, 0, 1)) * (thick / 2 + doubled) - drawn + 0.01)


def put_blanket(
    stage: Stage, surface: Surface, thick: float = THICK, more: str = "", at: Any = None, plain: bool = False
) -> None:
    """Put a blanket on the stage: its print is the region ``front``, its other side the region ``back``, or white if it is ``plain``."""
    piece = surface.smoothed(FINER)["front"]
    low, high = piece.flat.min(axis=0), piece.flat.max(axis=0)
    wide, long = (high - low).tolist()
    flat = piece.flat - low
    puff = half_thickness(flat, wide, long, thick)[:, None]
    uv = np.clip(np.column_stack([flat[:, 0] / wide, 1 - flat[:, 1] / long]), 0.0005, 0.9995)
    for region, side in (("front", 1.0), ("back", -1.0)):
        skin = piece.moved(piece.at + side * puff * piece.normal)
        shown = rgb(0.84, 0.83, 0.80) if plain and region == "back" else region
        cloth = stage.cloth(shown, pile(), 0.05, (wide / PILE_CM, long / PILE_CM), 0.35)
        put_piece(stage, region + more, skin, uv, cloth, at)
