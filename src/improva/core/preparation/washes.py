"""Bring translucent paint back as colour and alpha: washes, inks and pencil on paper of a known colour."""

from __future__ import annotations

import math

import cv2
import numpy as np
from scipy import ndimage

from ..colour import Floats
from .picture import Mask, Pixels

CELLS = 24
"""Steps of the grid of directions between -1 and 1, on each of three axes: colours within about 5° share a cell."""

ALIKE_CELLS = 2.5
"""Thin paint takes the solid colour of the nearest direction within so many cells: about 12°."""

LEVELS = 64
"""Steps of strength within a direction's histogram."""

SOLID = 0.5
"""Strength from which the strongest paint of a direction counts as solid where it lies thickest. A chosen limit: paint
that is weaker everywhere could be solid and pale or thin and deep, which look the same on paper."""

FEWEST_PX = 40
"""Fewest measured pixels at least as strong as the value that is taken for a direction's thickest paint."""

MEASURED_PX = 1_000_000
"""Number of pixels on which directions are measured."""

GUIDE_PX = 4
"""Radius of the guided filter's window, in px: grain of paper is finer, edges of paint are kept."""

GRAIN_STEPS = 3.0
"""Standard deviation of paper's grain that the filter smooths, of 255."""

PALE, SURE = 0.35, 0.12
"""Auto choice (see :func:`has_washes`): strength below which paint counts as pale; share of paint that is pale inside."""

STRIP_ROWS = 256


def guided(image: Floats, radius: int, steps: float) -> Floats:
    """Smooth a picture by itself and keep its edges: the guided filter, one channel at a time.

    K. He, J. Sun and X. Tang, "Guided image filtering", IEEE PAMI 35 (2013), equations 5 to 8 with the guide equal to
    the input; ``steps``² is its ε.
    """
    window = (2 * radius + 1,) * 2
    mean = cv2.blur(image, window)
    variance = cv2.blur(image * image, window) - mean * mean
    slope = variance / (variance + steps * steps)
    offset = mean * (1 - slope)
    return np.asarray(cv2.blur(slope, window) * image + cv2.blur(offset, window), np.float32)


def _directions(pixels: Floats, paper: Floats) -> tuple[Floats, Floats]:
    """Return the distance from the paper (…) and the unit vector from the paper to the colour (…, 3)."""
    away = pixels - paper
    distance = np.sqrt(np.einsum("...c,...c->...", away, away))
    return distance, away / np.maximum(distance, 1e-3)[..., None]


def _room(directions: Floats, paper: Floats) -> Floats:
    """Return how far one can go from the paper in each direction (…, 3) until a channel reaches 0 or 255."""
    limit = np.where(directions < 0, paper, 255 - paper)
    each = np.where(np.abs(directions) > 0.02, limit / np.maximum(np.abs(directions), 0.02), 1000)
    return np.asarray(np.maximum(each.min(axis=-1), 1), np.float32)


def _cell(directions: Floats) -> Floats:
    return np.asarray((directions + 1) * (CELLS / 2), np.float32)


def _thickest(distance: Floats, directions: Floats, paper: Floats) -> Floats:
    """Return (cells, cells, cells): the strength, from 0 to 1, that counts as solid paint in each direction."""
    strength = np.clip(distance / _room(directions, paper), 0, 1)
    sides = CELLS + 1
    cell = np.rint(_cell(directions)).astype(np.int32)
    index = (cell[:, 0] * sides + cell[:, 1]) * sides + cell[:, 2]
    level = np.minimum((strength * LEVELS).astype(np.int32), LEVELS - 1)
    used, where = np.unique(index, return_inverse=True)
    counts = np.bincount(where * LEVELS + level, minlength=len(used) * LEVELS).reshape(len(used), LEVELS)
    above = counts[:, ::-1].cumsum(axis=1)[:, ::-1]
    enough = above >= np.minimum(FEWEST_PX, above[:, :1] / 4)
    top = (LEVELS - 0.5 - enough[:, ::-1].argmax(axis=1)) / LEVELS
    grid = np.zeros(sides**3, np.float32)
    grid[used] = np.where(top >= SOLID, top, 0)
    grid = ndimage.grey_dilation(grid.reshape(sides, sides, sides), footprint=ndimage.generate_binary_structure(3, 1))
    away, nearest = ndimage.distance_transform_edt(grid == 0, return_indices=True)
    return np.asarray(np.where(away <= ALIKE_CELLS, grid[tuple(nearest)], 1), np.float32)


def _step(pixels: Pixels) -> int:
    """Return the distance of the rows and columns that are measured, in px."""
    return max(1, round(math.sqrt(pixels.size / 4 / MEASURED_PX)))


def has_washes(pixels: Pixels, ground: Mask, paper: tuple[int, int, int], inside_px: float) -> bool:
    """Return whether much of the paint is pale away from its edge, as washes are and solid art is not.

    Args:
        ground: the bare paper.
        inside_px: width of the edge, which is pale in any art.
    """
    step = _step(pixels)
    reach = max(1, round(inside_px / step)) + 1
    solid = (~ground[::step, ::step]).astype(np.uint8)
    inside = cv2.erode(solid, np.ones((2 * reach + 1,) * 2, np.uint8)) > 0
    if inside.sum() < 200:
        return False
    white = np.array(paper, np.float32)
    distance, directions = _directions(pixels[::step, ::step, :3][inside].astype(np.float32), white)
    strength = distance / _room(directions, white)
    return bool(((strength < PALE) & (strength > 0.04)).mean() > SURE)


def see_through(pixels: Pixels, ground: Mask, paper: tuple[int, int, int]) -> Pixels:
    """Return paint on paper as colour and alpha, which give the picture back when laid on that paper.

    A pixel is a mixture α·F + (1 − α)·P of the paint's colour and the paper's (Porter and Duff 1984). Its distance
    from the paper is α times that of F, and F lies in the same direction. F is taken as the strongest paint of that
    direction in the whole picture, if it is at least :data:`SOLID` of what is possible; else as the colour farthest
    from the paper that exists at all, which gives the least α.

    Args:
        pixels: (h, w, 4) uint8 with a flat paper.
        ground: (h, w) bool, cleared altogether.
    """
    white = np.array(paper, np.float32)
    step = _step(pixels)
    painted = ~ground[::step, ::step]
    distance, directions = _directions(pixels[::step, ::step, :3][painted].astype(np.float32), white)
    solid = _thickest(distance, directions, white)
    out = pixels.copy()
    h = len(pixels)
    for top in range(0, h, STRIP_ROWS):
        above, below = max(0, top - 2 * GUIDE_PX), min(h, top + STRIP_ROWS + 2 * GUIDE_PX)
        rows = slice(top - above, min(top + STRIP_ROWS, h) - above)
        seen = np.ascontiguousarray(pixels[above:below, :, :3]).astype(np.float32)
        _, directions = _directions(guided(seen, GUIDE_PX, GRAIN_STEPS)[rows], white)
        seen = seen[rows]
        reach = _room(directions, white)
        share = ndimage.map_coordinates(solid, np.moveaxis(_cell(directions), -1, 0), order=1, mode="nearest")
        full = reach * share  # distance of the solid paint
        along = np.einsum("hwc,hwc->hw", seen - white, directions)
        alpha = np.clip(along / np.maximum(full, 1), 0, 1)
        alpha[ground[top : top + STRIP_ROWS]] = 0
        colour = white + directions * full[..., None]
        # Where paint is thick, the pixel itself says its colour, with its grain; where it is thin, grain would be multiplied.
        own = white + (seen - white) / np.maximum(alpha, 0.02)[..., None]
        colour += (own - colour) * np.clip(2 * alpha - 0.6, 0, 1)[..., None]
        part = out[top : top + STRIP_ROWS]
        part[..., :3] = np.clip(colour + 0.5, 0, 255)
        part[..., 3] = (part[..., 3] * alpha + 0.5).astype(np.uint8)
    return out
