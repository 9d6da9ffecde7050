"""Render a design to pixels of any size, streamed by libvips."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import pyvips

from ..artwork.pixels import Artwork, nothing, plain, with_alpha
from ..colour import parse_hex
from ..design import Design, Piece
from ..fit import place
from ..pieces import Band, Extra, Frames, Lettering, Mixing
from ..template import Lay, Panel
from ..words.font import open_font
from .adjust import adjusted
from .bend import bent, cut_out, unbent
from .blend import AS_IT_IS, atop, mixed
from .frames import band_layer, frames_layer
from .linked_panel import render_linked_panel
from .mirror import mirrored_layer
from .picture import render_picture
from .repeat import render_repeat
from .roll import rolled
from .words import words_layer

Opener = Callable[[str], Artwork]
"""Opens an artwork by its content hash."""

Size = tuple[int, int]
Draw = Callable[[Panel, Size], pyvips.Image | None]


def _dense(panel: Panel, size_px: Size, other: Panel) -> Size:
    """Return the pixel size of another rectangle at the density of a panel rendered at a given size."""
    density = max(px / mm for px, mm in zip(size_px, panel.file_mm, strict=True))
    w, h = (max(1, round(mm * density)) for mm in other.file_mm)
    return w, h


@dataclass(frozen=True)
class _Plane:
    """The surface that a design is assembled on: the flat, or the level rectangle of a tapered wall."""

    panel: Panel
    is_level: bool
    size_px: Size

    def layer(self, lay: Lay, draw: Draw) -> pyvips.Image | None:
        panel = self.panel
        if panel.cone is None:
            return draw(panel, self.size_px)
        level = panel.level()
        if lay == "bent":
            if self.is_level:
                return draw(level, self.size_px)
            image = draw(level, _dense(panel, self.size_px, level))
            return image if image is None else bent(image, panel, self.size_px)
        if self.is_level:
            image = draw(panel, _dense(level, self.size_px, panel))
            return image if image is None else unbent(image, panel, self.size_px)
        image = draw(panel, self.size_px)
        return image if image is None else cut_out(image, panel)


def _art_layer(piece: Piece, panel: Panel, open_art: Opener, on: Panel, size_px: Size, exact: bool) -> pyvips.Image:
    """Return an artwork on a rectangle, without its background."""
    placed = place(panel, piece.size, piece.placement)
    art = open_art(piece.art)
    if placed.tiling is not None:
        image = render_repeat(art, placed, piece.placement, on, size_px)
    else:
        image = render_picture(art, placed, on, size_px, exact)
    image = adjusted(image, piece.placement)
    return rolled(image, piece.placement.roll_mm, on) if piece.placement.roll_mm else image


def _extra_layer(extra: Extra, design: Design, open_art: Opener, on: Panel, size_px: Size) -> pyvips.Image | None:
    """Return a piece on a rectangle, mirrored where it wants that; None where it lies outside."""
    return mirrored_layer(extra, lambda piece: _piece_layer(piece, design, open_art, on, size_px))


def _piece_layer(extra: Extra, design: Design, open_art: Opener, on: Panel, size_px: Size) -> pyvips.Image | None:
    own, exact = design.panel.level(), bool(design.template.seams)
    if isinstance(extra, Lettering):
        return words_layer(extra, open_font(design.fonts[extra.font]), on, size_px)
    if isinstance(extra, Band):
        return band_layer(extra, open_art(extra.pattern.art) if extra.pattern else None, own, on, size_px)
    if isinstance(extra, Frames):
        opened = {i: open_art(slot.art.art) for i, slot in enumerate(extra.slots) if slot.art is not None}
        return frames_layer(extra, opened, on, size_px)
    return _art_layer(Piece(extra.art.art, extra.art.size, extra.placement), own, open_art, on, size_px, exact)


def _over(canvas: pyvips.Image | None, layer: pyvips.Image) -> pyvips.Image:
    return layer if canvas is None else mixed(canvas, layer, AS_IT_IS)


def _assembled(design: Design, open_art: Opener, plane: _Plane) -> pyvips.Image:
    """Return the artwork, its background and all pieces, composited."""
    canvas: pyvips.Image | None = None
    art: pyvips.Image | None = None
    for piece in design.pieces:

        def draw(on: Panel, size_px: Size, piece: Piece = piece) -> pyvips.Image:
            return _art_layer(piece, design.panel, open_art, on, size_px, bool(design.template.seams))

        layer = plane.layer(piece.placement.lay, draw)
        assert layer is not None, "an artwork always gives a layer"
        if piece.placement.background is not None and layer.hasalpha():
            colour = piece.placement.background
            canvas = plane.layer(piece.placement.lay, lambda _, size_px, colour=colour: plain(colour, size_px))  # type: ignore[misc]
        art = _over(art, layer)
    return _stacked(design, open_art, plane, canvas, art)


def _stacked(
    design: Design, open_art: Opener, plane: _Plane, canvas: pyvips.Image | None, art: pyvips.Image | None
) -> pyvips.Image:
    """Composite background, pieces behind, the artwork, and pieces in front; each with the pieces clipped to it."""
    layers: list[tuple[Mixing, pyvips.Image]] = []
    for extra in design.extras:
        layer = plane.layer("bent", lambda on, size_px, extra=extra: _extra_layer(extra, design, open_art, on, size_px))  # type: ignore[misc]
        if layer is None:
            continue
        if extra.mixing.clipped == "beneath" and layers:
            mixing, base = layers[-1]
            layers[-1] = (mixing, atop(with_alpha(base), layer, extra.mixing))
        elif extra.mixing.clipped == "artwork":
            art = art if art is None else atop(art, layer, extra.mixing)
        else:
            layers.append((extra.mixing, layer))
    for behind in (True, False):
        for mixing, layer in layers:
            if mixing.behind == behind:
                canvas = mixed(canvas if canvas is not None else nothing(plane.size_px), layer, mixing)
        if behind and art is not None:
            canvas = _over(canvas, art)
    return canvas if canvas is not None else nothing(plane.size_px)


def pieces_on(image: pyvips.Image, design: Design, open_art: Opener, size_px: Size) -> pyvips.Image:
    """Draw a design's extra pieces on a finished picture of its artwork, (h, w, 4)."""
    return _stacked(design, open_art, _Plane(design.panel, True, size_px), None, image)


def _led(design: Design, open_art: Opener, size_px: Size) -> pyvips.Image:
    return render_linked_panel(design, lambda leader, on, size: _assembled(leader, open_art, _Plane(on, True, size)), size_px)


def render(design: Design, open_art: Opener, size_px: Size) -> pyvips.Image:
    """Return a panel's print file at ``size_px``: 8-bit sRGB, with alpha where the blank stays bare.

    Raises:
        ArtworkError, PlacementError, PieceError, FontError: a piece cannot be read, placed or drawn.
    """
    panel = design.panel
    if design.linked is not None:
        return _led(design, open_art, size_px)
    if not design.pieces and not design.extras:
        return nothing(size_px)
    if panel.cone is not None and all(piece.placement.lay == "bent" for piece in design.pieces):
        level = _Plane(panel, True, _dense(panel, size_px, panel.level()))
        return bent(_assembled(design, open_art, level), panel, size_px)
    return _assembled(design, open_art, _Plane(panel, panel.cone is None, size_px))


def render_level(design: Design, open_art: Opener, size_px: Size) -> pyvips.Image:
    """Return the level panel at ``size_px``: on a tapered wall, the art on the level rectangle, bleed included.

    For every other panel this is :func:`render`.
    """
    if design.linked is not None:
        return _led(design, open_art, size_px)
    return _assembled(design, open_art, _Plane(design.panel, True, size_px))


def on_blank(image: pyvips.Image, blank: str = "#ffffff") -> pyvips.Image:
    """Flatten on the blank's colour, which shows where nothing is printed."""
    return image.flatten(background=list(parse_hex(blank))) if image.hasalpha() else image


__all__ = [
    "Opener",
    "laid_on",
    "on_blank",
    "render",
    "render_level",
]
