"""Mirror a piece in place, and lay mirrored copies of it past the middle of its panel."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import pyvips

from ..pieces import Band, Extra, Lettering, Overlay
from ..pieces.blending import Mirror
from .blend import AS_IT_IS, mixed

_WAYS: dict[Mirror, tuple[str, ...]] = {"": (), "across": ("across",), "down": ("down",), "both": ("across", "down")}


def _seen_in_mirror(extra: Extra, way: str) -> Extra:
    """Return the piece whose mirror image, about the panel's middle, is ``extra`` mirrored where it lies."""
    signs = (-1, 1) if way == "across" else (1, -1)
    if isinstance(extra, Overlay):
        at = extra.placement
        if at.fit == "repeat":
            return extra
        shift = (at.shift_mm[0] * signs[0], at.shift_mm[1] * signs[1])
        return replace(extra, placement=at.changed(shift_mm=shift, rotate_deg=-at.rotate_deg))
    if isinstance(extra, Band):
        return extra  # it lies along all sides
    shift = (extra.shift_mm[0] * signs[0], extra.shift_mm[1] * signs[1])
    if isinstance(extra, Lettering) and extra.shadow is not None:  # the light still comes from where it did
        x, y = extra.shadow.shift_mm
        extra = replace(extra, shadow=replace(extra.shadow, shift_mm=(x * signs[0], y * signs[1])))
    return replace(extra, shift_mm=shift, rotate_deg=-extra.rotate_deg)


def _flipped(image: pyvips.Image, way: str) -> pyvips.Image:
    return image.fliphor() if way == "across" else image.flipver()


def mirrored_layer(extra: Extra, draw: Callable[[Extra], pyvips.Image | None]) -> pyvips.Image | None:
    """Draw a piece with its flip and its mirrored copies; None where it lies outside.

    ``draw`` draws a piece on a rectangle around its panel's middle. No pixel is resampled by a flip.
    """
    flips, piece = _WAYS[extra.mixing.flip], extra
    for way in flips:
        piece = _seen_in_mirror(piece, way)
    layer = draw(piece)
    if layer is None or not (flips or extra.mixing.twin):
        return layer
    layer = layer.copy_memory()
    for way in flips:
        layer = _flipped(layer, way)
    for way in _WAYS[extra.mixing.twin]:
        layer = mixed(layer, _flipped(layer, way), AS_IT_IS)
    return layer
