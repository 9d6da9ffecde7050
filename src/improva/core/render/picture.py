"""Place one picture on a rectangle with a single, high-quality resampling."""

from __future__ import annotations

import math

import numpy as np
import pyvips

from ..artwork.pixels import TRANSPARENT, Artwork, as_bytes, nothing, resized, with_alpha
from ..fit import Placed, turned_extent
from ..template import Panel

MOST_DENSE = 2.0
"""Rotated art is rendered at this many times the file's density, and reduced afterwards."""

EDGE_PX = 8
"""Reach of the reducing kernel on the rotated canvas, with a margin, in px."""


def _upright(image: pyvips.Image, placed: Placed, panel: Panel, size_px: tuple[int, int], quick: bool) -> pyvips.Image:
    """Place a picture rotated by quarter turns: one resampling, edges on whole pixels, at most half a pixel off."""
    quarter = round(placed.rotate_deg % 360 / 90) % 4
    image = (image, image.rot90(), image.rot180(), image.rot270())[quarter] if quarter else image
    across, down = size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1]
    w, h = turned_extent(placed.box[2], placed.box[3], 90 * quarter)
    x, y = placed.centre[0] - w / 2 - panel.file_box[0], placed.centre[1] - h / 2 - panel.file_box[1]
    left, top = round(x * across), round(y * down)
    right, bottom = max(left + 1, round((x + w) * across)), max(top + 1, round((y + h) * down))
    if left >= size_px[0] or top >= size_px[1] or right <= 0 or bottom <= 0:
        return nothing(size_px)
    image = resized(image, (right - left) / image.width, (bottom - top) / image.height, quick)
    if left <= 0 and top <= 0 and left + image.width >= size_px[0] and top + image.height >= size_px[1]:
        return image.crop(-left, -top, *size_px)
    image = with_alpha(image)
    return image.embed(left, top, *size_px, extend="background", background=TRANSPARENT)


def _turned(image: pyvips.Image, placed: Placed, panel: Panel, size_px: tuple[int, int], quick: bool) -> pyvips.Image:
    """Place a picture at any angle: exact, on a canvas as dense as the art but at most twice as dense as the file.

    The canvas covers the file's box to the pixel, so that reducing it to the file is exact too.
    """
    _, _, w, h = placed.box
    file_px = np.array(size_px) / panel.file_mm
    most = MOST_DENSE * file_px.max()
    image = resized(image, min(1.0, most * w / image.width), min(1.0, most * h / image.height), quick)
    density = max(image.width / w, image.height / h)
    canvas = [max(px, math.ceil(mm * density)) for px, mm in zip(size_px, panel.file_mm, strict=True)]
    opaque = not image.hasalpha() and placed.covers(panel.file_box)
    margin = EDGE_PX if opaque else 0
    angle = math.radians(placed.rotate_deg)
    turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
    to_mm = turn @ np.diag([w / image.width, h / image.height])
    matrix = np.diag(np.array(canvas) / panel.file_mm) @ to_mm
    half = np.array([image.width, image.height]) / 2
    centre = (np.array(placed.centre) - panel.file_box[:2]) * canvas / np.array(panel.file_mm)
    shift = centre - matrix @ (half + margin - 0.5) - 0.5  # libvips counts from the centre of the first pixel
    if opaque:
        # Repeat the art's edge pixels, so that no pixel on the file's edge is blended with transparency.
        image = image.embed(margin, margin, image.width + 2 * margin, image.height + 2 * margin, extend="copy")
    else:
        image = with_alpha(image).premultiply()
    image = image.affine(
        matrix.ravel().tolist(),
        interpolate=pyvips.Interpolate.new("bicubic"),
        odx=shift[0],
        ody=shift[1],
        oarea=[0, 0, *canvas],
        extend="background",
        background=[0] * image.bands,
    )
    image = as_bytes(image if opaque else image.unpremultiply())
    return resized(image, size_px[0] / canvas[0], size_px[1] / canvas[1], quick)


def render_picture(art: Artwork, placed: Placed, panel: Panel, size_px: tuple[int, int], exact: bool = False) -> pyvips.Image:
    """Place one picture on a rectangular panel's print file: size_px, sRGB, alpha where the file stays bare.

    ``exact``: to a fraction of a pixel also where it is upright, since it meets another panel's part of it.
    """
    w, h = (placed.box[2 + i] * size_px[i] / panel.file_mm[i] for i in (0, 1))
    image = art.image((w, h), streamed=not exact and placed.rotate_deg % 360 == 0 and len(placed.offsets_mm) == 1)
    lay = _turned if exact or placed.rotate_deg % 90 else _upright
    layers = [lay(image, copy, panel, size_px, art.is_proxy) for copy in placed.copies()]
    canvas = layers[0]
    for layer in layers[1:]:
        canvas = canvas.composite2(layer, "over") if layer.hasalpha() else layer
    return as_bytes(canvas)
