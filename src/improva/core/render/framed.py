"""Bands of pattern, and picture frames with what is in their slots, drawn."""

from __future__ import annotations

import pyvips

from ..artwork.pixels import TRANSPARENT, Artwork, as_bytes, plain, resized, with_alpha
from ..design import Placing
from ..fit import place
from ..pieces.band import Band
from ..pieces.frames import Cell, Frames, Slot, covering
from ..pieces.mixing import ArtRef
from ..template import Panel
from .lines import drawn, path_of, region_of
from .mixing import times_alpha
from .repeat import laid_repeat

EMPTY_SLOT = "#d9d4c8"


def _pattern(art: Artwork, ref: ArtRef, tile_mm: float, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    placing = Placing("repeat", scale=tile_mm / ref.size.claimed_mm[0])
    return laid_repeat(art, place(panel, ref.size, placing), placing, panel, size_px)


def band_layer(band: Band, art: Artwork | None, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """A border on a rectangular panel's print file."""
    whole = (0, 0, *size_px)
    mask = drawn(f'<path d="{path_of(band.shape(panel))}" fill="#000" fill-rule="evenodd"/>', whole, panel, size_px)[3]
    filling: pyvips.Image | None = None
    if band.colour is not None:
        filling = plain(band.colour, size_px)
    if band.pattern is not None and art is not None:
        pattern = _pattern(art, band.pattern, band.tile_mm, panel, size_px)
        filling = pattern if filling is None or not pattern.hasalpha() else as_bytes(filling.composite2(pattern, "over"))
    assert filling is not None, "a band has a colour or a pattern"
    filling = times_alpha(filling, mask / 255)
    line = band.line(panel)
    if line.is_empty:
        return filling
    drawn_line = drawn(f'<path d="{path_of(line)}" fill="{band.line_colour}" fill-rule="evenodd"/>', whole, panel, size_px)
    return as_bytes(with_alpha(filling).composite2(drawn_line, "over"))


def _cards(frames: Frames) -> str:
    line = f' stroke="{frames.line}" stroke-width="0.4"' if frames.line else ""
    cards = {cell.card: cell for cell in frames.cells()}
    drawn_cards = []
    for (x, y, w, h), cell in cards.items():
        if cell.is_round:
            drawn_cards.append(
                f'<circle cx="{x + w / 2:.4f}" cy="{y + h / 2:.4f}" r="{w / 2:.4f}" fill="{frames.colour}"{line}/>'
            )
        else:
            drawn_cards.append(f'<rect x="{x:.4f}" y="{y:.4f}" width="{w:.4f}" height="{h:.4f}" fill="{frames.colour}"{line}/>')
    return "".join(drawn_cards)


def _window(cell: Cell, colour: str) -> str:
    x, y, w, h = cell.slot
    if cell.is_round:
        return f'<circle cx="{x + w / 2:.4f}" cy="{y + h / 2:.4f}" r="{w / 2:.4f}" fill="{colour}"/>'
    return f'<rect x="{x:.4f}" y="{y:.4f}" width="{w:.4f}" height="{h:.4f}" fill="{colour}"/>'


def _seen(slot: Slot, cell: Cell, art: Artwork, size_px: tuple[int, int]) -> pyvips.Image:
    """The part of a picture that covers its slot, at the slot's pixels."""
    x, y, w, h = covering(slot, cell)
    image = art.image((size_px[0] / w, size_px[1] / h))
    left, top = round(x * image.width), round(y * image.height)
    part = image.crop(left, top, max(1, min(image.width - left, round(w * image.width))),
                      max(1, min(image.height - top, round(h * image.height))))  # fmt: skip
    return with_alpha(resized(part, size_px[0] / part.width, size_px[1] / part.height))


def _sheet(frames: Frames, opened: dict[int, Artwork], size_px: tuple[int, int]) -> pyvips.Image:
    """All frames before they are turned, on a sheet of their own size."""
    sheet = Panel("frames", "Frames", frames.size_mm)
    whole = (0, 0, *size_px)
    image = drawn(_cards(frames), whole, sheet, size_px)
    for i, cell in enumerate(frames.cells()):
        slot = frames.slot(i)
        if slot.art is None:
            image = image.composite2(drawn(_window(cell, EMPTY_SLOT), whole, sheet, size_px), "over")
            continue
        region = region_of(cell.slot, sheet, size_px, spare_px=0)
        if region is None:
            continue
        picture = _seen(slot, cell, opened[i], region[2:])
        mask = drawn(_window(cell, "#000"), region, sheet, size_px)[3]
        image = image.composite2(times_alpha(picture, mask / 255), "over", x=region[0], y=region[1])
    return as_bytes(image)


def frames_layer(frames: Frames, opened: dict[int, Artwork], panel: Panel, size_px: tuple[int, int]) -> pyvips.Image | None:
    """Frames on a rectangular panel's print file, or None where nothing of them lies on it. ``opened``: artworks by slot."""
    density = max(size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1])
    sheet_px = (max(1, round(frames.size_mm[0] * density)), max(1, round(frames.size_mm[1] * density)))
    sheet = _sheet(frames, opened, sheet_px)
    if frames.rotate_deg % 360:
        turned = sheet.premultiply().rotate(frames.rotate_deg, interpolate=pyvips.Interpolate.new("bicubic"),
                                            background=TRANSPARENT)  # fmt: skip
        sheet = as_bytes(turned.unpremultiply())
    cx, cy = frames.centre(panel.trim_mm)
    left = round((cx + panel.bleed_mm) * size_px[0] / panel.file_mm[0] - sheet.width / 2)
    top = round((cy + panel.bleed_mm) * size_px[1] / panel.file_mm[1] - sheet.height / 2)
    if left >= size_px[0] or top >= size_px[1] or left + sheet.width <= 0 or top + sheet.height <= 0:
        return None
    return sheet.embed(left, top, *size_px, extend="background", background=TRANSPARENT)
