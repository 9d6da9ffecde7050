"""Adapt pieces to another blank when a placement is copied."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from ..template import Panel
from .band import Band
from .frames import Frames
from .overlay import Overlay
from .text import Lettering

if TYPE_CHECKING:
    from . import Extra


def adapt_piece(piece: Extra, source: Panel, target: Panel) -> Extra:
    """Return a piece adapted to a panel of another blank.

    1. A band follows the new trim; its width, tile and line keep their share of the panel's shorter side.
    2. Words keep their place in the safe area, as a share of it, and their size as a share of its width; where they
       would then be taller than their share of its height, they are made smaller.
    3. Frames keep their number and their place and size as a share of the safe area; rims and gaps go with them.
    4. A second artwork keeps its place as a share of the trim, as the first does.
    """
    a, b = source.level(), target.level()
    short = min(b.trim_mm) / min(a.trim_mm)
    if isinstance(piece, Band):
        return replace(
            piece,
            width_mm=piece.width_mm * short,
            tile_mm=max(0.6, piece.tile_mm * short),
            line_mm=piece.line_mm * short,
            line_gap_mm=piece.line_gap_mm * short,
        )
    across, down = (t / s for s, t in zip(_safe(a), _safe(b), strict=True))
    if isinstance(piece, Overlay):
        across, down = (t / s for s, t in zip(a.trim_mm, b.trim_mm, strict=True))
        shift = (piece.placement.shift_mm[0] * across, piece.placement.shift_mm[1] * down)
        return replace(piece, placement=piece.placement.changed(shift_mm=shift))
    shift = (piece.shift_mm[0] * across, piece.shift_mm[1] * down)
    if isinstance(piece, Frames):
        scale = min(across, down)
        size = (piece.size_mm[0] * scale, piece.size_mm[1] * scale)
        return replace(piece, shift_mm=shift, size_mm=size, rim_mm=piece.rim_mm * scale, gap_mm=piece.gap_mm * scale)
    return _carried_words(piece, shift, min(across, down))


def _safe(panel: Panel) -> tuple[float, float]:
    _, _, w, h = panel.safe_box
    return w, h


def _carried_words(piece: Lettering, shift: tuple[float, float], scale: float) -> Lettering:
    shadow = piece.shadow
    if shadow is not None:
        shadow = replace(
            shadow, shift_mm=(shadow.shift_mm[0] * scale, shadow.shift_mm[1] * scale), blur_mm=shadow.blur_mm * scale
        )
    return replace(
        piece,
        shift_mm=shift,
        size_mm=piece.size_mm * scale,
        width_mm=piece.width_mm * scale,
        height_mm=piece.height_mm * scale,
        outline_mm=piece.outline_mm * scale,
        shadow=shadow,
        plaque_margin_mm=piece.plaque_margin_mm * scale,
    )
