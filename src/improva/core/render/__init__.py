"""A design as pixels of any size, streamed by libvips."""

from __future__ import annotations

from collections.abc import Callable

import pyvips

from ..artwork.pixels import Artwork, as_bytes
from ..colour import parse_hex
from ..design import Design, Piece
from ..fit import place
from ..template import Panel
from .bend import bent, cut_out, unbent
from .piece import laid
from .repeat import laid_repeat

Opener = Callable[[str], Artwork]
"""Finds an artwork by its content hash."""


def _layer(design: Design, piece: Piece, open_art: Opener, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """A piece on a rectangle, over its own ground if it has one."""
    placed = place(design.panel, piece.size, piece.placing)
    art = open_art(piece.art)
    if placed.tiling is not None:
        layer = laid_repeat(art, placed, piece.placing, panel, size_px)
    else:
        layer = laid(art, placed, panel, size_px)
    if piece.placing.background is None or not layer.hasalpha():
        return layer
    return layer.flatten(background=list(parse_hex(piece.placing.background)))


def _stacked(layers: list[pyvips.Image], size_px: tuple[int, int]) -> pyvips.Image:
    canvas: pyvips.Image | None = None
    for layer in layers:
        canvas = layer if canvas is None or not layer.hasalpha() else canvas.composite2(layer, "over")
    if canvas is None:
        return pyvips.Image.black(*size_px, bands=4).copy(interpretation="srgb")
    return as_bytes(canvas)


def render(design: Design, open_art: Opener, size_px: tuple[int, int]) -> pyvips.Image:
    """The panel's print file at ``size_px``: sRGB, 8 bit, with alpha where the blank stays bare.

    Raises:
        BadArtwork, BadPlacing: a piece cannot be read or placed.
    """
    panel = design.panel
    if panel.cone is None:
        return _stacked([_layer(design, piece, open_art, panel, size_px) for piece in design.pieces], size_px)
    layers = []
    for piece in design.pieces:
        if piece.placing.lay == "flat":
            layers.append(cut_out(_layer(design, piece, open_art, panel, size_px), panel))
        else:
            level = panel.worn()
            density = max(px / mm for px, mm in zip(size_px, panel.file_mm, strict=True))
            w, h = (max(1, round(mm * density)) for mm in level.file_mm)
            layers.append(bent(_layer(design, piece, open_art, level, (w, h)), panel, size_px))
    return _stacked(layers, size_px)


def render_worn(design: Design, open_art: Opener, size_px: tuple[int, int]) -> pyvips.Image:
    """The panel as it is worn at ``size_px``: a tapered wall's art on its level rectangle, bleed included.

    For every other panel this is :func:`render`.
    """
    panel = design.panel
    if panel.cone is None:
        return render(design, open_art, size_px)
    level = panel.worn()
    layers = []
    for piece in design.pieces:
        if piece.placing.lay == "bent":
            layers.append(_layer(design, piece, open_art, level, size_px))
        else:
            density = max(px / mm for px, mm in zip(size_px, level.file_mm, strict=True))
            w, h = (max(1, round(mm * density)) for mm in panel.file_mm)
            layers.append(unbent(_layer(design, piece, open_art, panel, (w, h)), panel, size_px))
    return _stacked(layers, size_px)


def on_blank(image: pyvips.Image, blank: str = "#ffffff") -> pyvips.Image:
    """Flatten on a colour: what shows where nothing is printed."""
    return image.flatten(background=list(parse_hex(blank))) if image.hasalpha() else image


__all__ = ["Opener", "on_blank", "render", "render_worn"]
