"""A design as pixels of any size, streamed by libvips: one resampling of the art, by a good kernel."""

from __future__ import annotations

import math
from collections.abc import Callable

import pyvips

from .artwork.pixels import Artwork, resized
from .colour import parse_hex
from .design import Design, Piece
from .fit import Placed, place, turned_extent
from .template import Panel

TRANSPARENT = [0, 0, 0, 0]
Opener = Callable[[str], Artwork]
"""Finds an artwork by its content hash."""


def _turned(image: pyvips.Image, rotate_deg: float, covers: bool) -> pyvips.Image:
    quarter = rotate_deg % 360 / 90
    if quarter.is_integer():
        return [image, image.rot90(), image.rot180(), image.rot270()][int(quarter)] if quarter else image
    angle = math.radians(rotate_deg)
    matrix = [math.cos(angle), -math.sin(angle), math.sin(angle), math.cos(angle)]
    kernel = pyvips.Interpolate.new("bicubic")
    if covers and not image.hasalpha():
        # The art's own edge falls outside the file or on its corners: repeat it there, so that none is half bare.
        return image.affine(matrix, interpolate=kernel, extend="copy").cast("uchar")
    image = image if image.hasalpha() else image.addalpha()
    turned = image.premultiply().affine(matrix, interpolate=kernel, extend="background", background=TRANSPARENT)
    return turned.unpremultiply().cast("uchar")


def laid(art: Artwork, placed: Placed, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """One picture on the panel's print file: size_px, sRGB, alpha where it leaves the file bare.

    The picture's edges fall on whole pixels, which moves it by half a pixel at most and lets
    pictures that cover the file do so exactly. Turns other than by quarters are made at the art's own density.
    """
    across, down = size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1]
    _, _, w, h = placed.box
    image = art.image((w * across, h * down), streamed=placed.rotate_deg % 360 == 0)
    art_density = min(image.width / w, image.height / h)
    if not math.isclose(image.width / w, image.height / h, rel_tol=1e-3) and placed.rotate_deg % 90:
        image = resized(image, art_density * w / image.width, art_density * h / image.height)
    image = _turned(image, placed.rotate_deg, placed.covers(panel.file_box))
    extent = turned_extent(w, h, placed.rotate_deg)
    cx, cy = placed.centre
    left = round((cx - extent[0] / 2 + panel.bleed_mm) * across)
    top = round((cy - extent[1] / 2 + panel.bleed_mm) * down)
    right = max(left + 1, round((cx + extent[0] / 2 + panel.bleed_mm) * across))
    bottom = max(top + 1, round((cy + extent[1] / 2 + panel.bleed_mm) * down))
    image = resized(image, (right - left) / image.width, (bottom - top) / image.height)
    covered = left <= 0 and top <= 0 and left + image.width >= size_px[0] and top + image.height >= size_px[1]
    if covered:
        return image.crop(-left, -top, *size_px)
    image = image if image.hasalpha() else image.addalpha()
    return image.embed(left, top, *size_px, extend="background", background=TRANSPARENT)


def render(design: Design, open_art: Opener, size_px: tuple[int, int]) -> pyvips.Image:
    """The panel's print file at ``size_px``: sRGB, 8 bit, with alpha where the blank stays bare.

    Raises:
        BadArtwork, BadPlacing: a piece cannot be read or placed.
    """
    canvas: pyvips.Image | None = None
    for piece in design.pieces:
        layer = _grounded(laid(open_art(piece.art), _place(design, piece), design.panel, size_px), piece)
        canvas = layer if canvas is None or not layer.hasalpha() else canvas.composite2(layer, "over")
    if canvas is None:
        return pyvips.Image.black(*size_px, bands=4).copy(interpretation="srgb")
    return canvas if canvas.format == "uchar" else canvas.cast("uchar")


def _grounded(layer: pyvips.Image, piece: Piece) -> pyvips.Image:
    if piece.placing.background is None or not layer.hasalpha():
        return layer
    return layer.flatten(background=list(parse_hex(piece.placing.background)))


def _place(design: Design, piece: Piece) -> Placed:
    return place(design.panel, piece.size, piece.placing)


def on_blank(image: pyvips.Image, blank: str = "#ffffff") -> pyvips.Image:
    """Flatten on a colour: what shows where nothing is printed."""
    return image.flatten(background=list(parse_hex(blank))) if image.hasalpha() else image
