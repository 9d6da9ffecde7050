"""Draw bands of pattern, and picture frames with their pictures."""

from __future__ import annotations

from collections.abc import Callable

import pyvips
from shapely import Point, box
from shapely.geometry.base import BaseGeometry

from ..artwork.pixels import TRANSPARENT, Artwork, as_bytes, nothing, plain, resized, with_alpha
from ..design import Placement
from ..fit import place
from ..pieces.band import Band
from ..pieces.blending import ArtRef
from ..pieces.frames import Cell, Frames, Slot, covering
from ..template import Box, Panel
from .blend import times_alpha
from .coverage import coverage
from .lines import Region, region_of
from .repeat import render_repeat

EMPTY_SLOT = "#d9d4c8"
LINE_MM = 0.4
CIRCLE_SEGMENTS = 90
"""Segments per quarter circle: within 0.006 mm of a true circle of 300 mm."""


def _pattern(art: Artwork, ref: ArtRef, tile_mm: float, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    placement = Placement("repeat", scale=tile_mm / ref.size.claimed_mm[0])
    return render_repeat(art, place(panel, ref.size, placement), placement, panel, size_px)


def _painted(colour: str, mask: pyvips.Image) -> pyvips.Image:
    """Return a plain colour where a mask is set."""
    return plain(colour, (mask.width, mask.height)).bandjoin(mask).copy(interpretation="srgb")


def band_layer(band: Band, art: Artwork | None, own: Panel, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Draw a border around its ``own`` rectangle on a panel's print file."""
    whole = (0, 0, *size_px)
    filling: pyvips.Image | None = None
    if band.colour is not None:
        filling = plain(band.colour, size_px)
    if band.pattern is not None and art is not None:
        pattern = _pattern(art, band.pattern, band.tile_mm, panel, size_px)
        filling = pattern if filling is None or not pattern.hasalpha() else as_bytes(filling.composite2(pattern, "over"))
    assert filling is not None, "a band has a colour or a pattern"
    mask = coverage(band.shape(own), whole, panel, size_px)
    filling = times_alpha(filling, mask / 255) if filling.hasalpha() else filling.bandjoin(mask).copy(interpretation="srgb")
    line = band.line(own)
    if not line.is_empty:
        filling = as_bytes(filling.composite2(_painted(band.line_colour, coverage(line, whole, panel, size_px)), "over"))
    hollow = band.hollow(own)
    free = region_of(hollow, panel, size_px, spare_px=-1) if hollow else None
    return _round(filling, free) if free else filling


def _round(image: pyvips.Image, free: Region) -> pyvips.Image:
    """Clear a region of an image, so that it is never computed: on a blanket that is most of it."""
    left, top, w, h = free
    right, bottom = image.width - left - w, image.height - top - h
    mask = nothing((image.width, image.height))
    for x, y, wide, high in (
        (0, 0, image.width, top),
        (0, top + h, image.width, bottom),
        (0, top, left, h),
        (left + w, top, right, h),
    ):
        if wide and high:
            mask = mask.insert(image.crop(x, y, wide, high), x, y)
    return mask


def _shape(place: Box, is_round: bool) -> BaseGeometry:
    x, y, w, h = place
    return Point(x + w / 2, y + h / 2).buffer(w / 2, quad_segs=CIRCLE_SEGMENTS) if is_round else box(x, y, x + w, y + h)


def _seen(slot: Slot, cell: Cell, art: pyvips.Image, size_px: tuple[int, int]) -> pyvips.Image:
    """Return the part of a picture that covers its slot, at the slot's pixels."""
    x, y, w, h = covering(slot, cell)
    left, top = round(x * art.width), round(y * art.height)
    part = art.crop(
        left, top, max(1, min(art.width - left, round(w * art.width))), max(1, min(art.height - top, round(h * art.height)))
    )
    return with_alpha(resized(part, size_px[0] / part.width, size_px[1] / part.height))


def _sheet(frames: Frames, opened: dict[int, Artwork], size_px: tuple[int, int]) -> pyvips.Image:
    """Draw all frames, before rotation, on a sheet of their own size."""
    sheet = Panel("frames", "Frames", frames.size_mm)
    image = nothing(size_px)

    def lay(shape: BaseGeometry, paint: Callable[[Region, pyvips.Image], pyvips.Image]) -> None:
        nonlocal image
        x0, y0, x1, y1 = shape.bounds
        region = region_of((x0, y0, x1 - x0, y1 - y0), sheet, size_px, spare_px=0)
        if region is not None:
            layer = paint(region, coverage(shape, region, sheet, size_px))
            image = image.composite2(layer, "over", x=region[0], y=region[1])

    for card, is_round in dict.fromkeys((cell.card, cell.is_round) for cell in frames.cells()):
        shape = _shape(card, is_round)
        lay(shape, lambda _, mask: _painted(frames.colour, mask))
        if frames.line:
            edge = shape.buffer(LINE_MM / 2, join_style="mitre").difference(shape.buffer(-LINE_MM / 2, join_style="mitre"))
            lay(edge, lambda _, mask: _painted(frames.line or "", mask))
    for i, cell in enumerate(frames.cells()):
        slot, window = frames.slot(i), _shape(cell.slot, cell.is_round)
        if slot.art is None:
            lay(window, lambda _, mask: _painted(EMPTY_SLOT, mask))
            continue
        at = covering(slot, cell)

        def picture(
            region: Region, mask: pyvips.Image, i: int = i, slot: Slot = slot, cell: Cell = cell, at: Box = at
        ) -> pyvips.Image:
            art = opened[i].image((region[2] / at[2], region[3] / at[3]), streamed=not frames.rotate_deg % 360)
            return times_alpha(_seen(slot, cell, art, region[2:]), mask / 255)

        lay(window, picture)
    return as_bytes(image)


def frames_layer(frames: Frames, opened: dict[int, Artwork], panel: Panel, size_px: tuple[int, int]) -> pyvips.Image | None:
    """Draw frames on a rectangular panel's print file; None where they lie outside. ``opened``: artworks by slot."""
    density = max(size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1])
    sheet_px = (max(1, round(frames.size_mm[0] * density)), max(1, round(frames.size_mm[1] * density)))
    sheet = _sheet(frames, opened, sheet_px)
    if frames.rotate_deg % 360:
        turned = sheet.premultiply().rotate(
            frames.rotate_deg, interpolate=pyvips.Interpolate.new("bicubic"), background=TRANSPARENT
        )
        sheet = as_bytes(turned.unpremultiply())
    cx, cy = frames.centre(panel.trim_mm)
    x, y, w, h = panel.file_box
    left, top = round((cx - x) * size_px[0] / w - sheet.width / 2), round((cy - y) * size_px[1] / h - sheet.height / 2)
    if left >= size_px[0] or top >= size_px[1] or left + sheet.width <= 0 or top + sheet.height <= 0:
        return None
    return sheet.embed(left, top, *size_px, extend="background", background=TRANSPARENT)
