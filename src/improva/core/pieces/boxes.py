"""Bounding boxes of pieces."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING

from ..fit import place
from ..template import Box, Panel
from ..words.font import open_font
from .band import Band
from .frames import Frames
from .text import Lettering, lettering_box, lettering_shape

if TYPE_CHECKING:
    from . import Extra


def piece_box(piece: Extra, panel: Panel, fonts: Mapping[str, bytes]) -> Box | None:
    """Return the bounding box of a piece in mm of the level panel; None for a piece along the whole trim."""
    level = panel.level()
    if isinstance(piece, Lettering):
        return lettering_box(piece, lettering_shape(piece, open_font(fonts[piece.font])), level.trim_mm)
    if isinstance(piece, Frames):
        return piece.box(level.trim_mm)
    if isinstance(piece, Band):
        return None
    placed = place(level, piece.art.size, piece.placement)
    if placed.tiling is not None:
        return None
    corners = [point for copy in placed.copies() for point in copy.corners()]
    xs, ys = zip(*corners, strict=True)
    return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
