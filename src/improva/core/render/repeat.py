"""Seamless repeats at any size: tiles are resampled to whole pixels, and one exact map places the endless plane of them."""

from __future__ import annotations

import math

import numpy as np
import pyvips

from ..artwork.pixels import TRANSPARENT, Artwork, as_bytes, resized, with_alpha
from ..artwork.seamless import blended_edges
from ..design import Placement
from ..fit import Placed
from ..template import Panel
from ..tiling import Tiling

MOST_CELL_PX = 200_000_000


def _cell(image: pyvips.Image, tiling: Tiling) -> pyvips.Image:
    """Return the smallest block that repeats, at the art's own density."""
    spare = [p / t - 1 for p, t in zip(tiling.pitch_mm, tiling.tile_mm, strict=True)]
    if max(spare) > 0:
        w, h = round(image.width * (1 + spare[0])), round(image.height * (1 + spare[1]))
        image = with_alpha(image)
        image = image.embed(0, 0, w, h, extend="background", background=TRANSPARENT)
    if tiling.kind == "grid":
        return image
    if tiling.kind == "mirror":
        row = image.join(image.fliphor(), "horizontal")
        return row.join(row.flipver(), "vertical")
    if tiling.kind == "half-drop":
        return image.join(image.wrap(x=0, y=image.height // 2), "horizontal")
    return image.join(image.wrap(x=image.width // 2, y=0), "vertical")


def render_repeat(art: Artwork, placed: Placed, placement: Placement, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Return the repeat over the whole print file of a rectangular panel: size_px, alpha only where the art has it.

    The cell is resampled once to whole pixels as a part of the endless plane, so that its edges meet; where the
    pitch is not whole, one map at a scale within a pixel of 1 lays it exactly. So nothing can gape between tiles.
    """
    tiling = placed.tiling
    assert tiling is not None, "only a repeat has tiles"
    density = np.array(size_px) / panel.file_mm
    pitch = np.array(tiling.pitch_mm) * density
    whole = np.maximum(1, np.ceil(pitch - 1e-6)).astype(int)
    image = art.image(tuple(pitch))
    quarter = round((placement.rotate_deg - placed.rotate_deg) % 360 / 90) % 4
    image = (image, image.rot90(), image.rot180(), image.rot270())[quarter] if quarter else image
    cell = _cell(blended_edges(image, placement.blend), tiling)
    period = np.array(tiling.period)
    across, down = (int(v) for v in whole * period)
    cell = cell.copy_memory()
    if (cell.width, cell.height) != (across, down):
        # A part of the endless plane is resampled, so that a cell's last pixels blend with its first ones.
        cell = resized(cell.replicate(3, 3), across / cell.width, down / cell.height).crop(across, down, across, down)
        cell = cell.copy_memory()
    return _plane(cell, pitch / whole, placed, panel, density, size_px)


def _plane(
    cell: pyvips.Image, scale: np.ndarray, placed: Placed, panel: Panel, density: np.ndarray, size_px: tuple[int, int]
) -> pyvips.Image:
    """Place the endless plane of a cell on the print file, with its origin where the placement says."""
    angle = math.radians(placed.rotate_deg)
    turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
    matrix = np.diag(density) @ turn @ np.diag(scale / density)
    corner = (np.array(placed.box[:2]) - panel.file_box[:2]) * density
    back = np.linalg.inv(matrix)
    w, h = size_px
    seen = np.array([back @ (np.array(c) - corner) for c in ((0, 0), (w, 0), (0, h), (w, h))])
    block = np.array([cell.width, cell.height])
    first = np.floor((seen.min(axis=0) - 4) / block).astype(int)
    count = np.ceil((seen.max(axis=0) + 4) / block).astype(int) - first
    shift = corner + matrix @ (first * block)
    plane = cell.replicate(int(count[0]), int(count[1]))
    if np.allclose(matrix, np.eye(2), atol=1e-9) and np.allclose(shift, np.round(shift), atol=1e-6):
        return plane.crop(*(int(-v) for v in np.round(shift)), w, h)
    offset = matrix @ [0.5, 0.5] + shift - 0.5  # libvips counts from the centre of the first pixel
    if plane.hasalpha():
        plane = plane.premultiply()
    plane = plane.affine(
        matrix.ravel().tolist(),
        interpolate=pyvips.Interpolate.new("bicubic"),
        odx=offset[0],
        ody=offset[1],
        oarea=[0, 0, w, h],
        extend="copy",
    )
    return as_bytes(plane.unpremultiply() if plane.hasalpha() else plane)
