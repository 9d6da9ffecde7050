"""Paper round a wrap's print: a white tab that carries the tape, and trim marks."""

from __future__ import annotations

import pyvips

MARK_LONG_MM, MARK_WIDE_MM = 4.5, 0.2


def _marks(width: int, height: int, at: tuple[int, int], per_mm: tuple[float, float], up: bool) -> pyvips.Image:
    """A strip of white paper with one upright mark at either end of the print."""
    strip = pyvips.Image.black(width, height, bands=3).invert()
    wide, long = max(1, round(MARK_WIDE_MM * per_mm[0])), min(height, round(MARK_LONG_MM * per_mm[1]))
    ink = pyvips.Image.black(wide, long, bands=3)
    for left in (max(0, at[0] - wide), min(width - wide, at[1])):
        strip = strip.insert(ink, left, 0 if up else height - long)
    return strip.copy(interpretation="srgb")


def on_carrier(image: pyvips.Image, margins_px: tuple[int, int, int, int], per_mm: tuple[float, float]) -> pyvips.Image:
    """A print on its paper, which is white; where the print is bare it is paper too.

    Marks stand outside the print, each with its inner edge on the print's end: above and below it, nothing beside it.
    """
    left, top, right, below = margins_px
    image = image.flatten(background=[255, 255, 255]) if image.hasalpha() else image
    w = left + image.width + right
    image = image.embed(left, 0, w, image.height, extend="white")
    ends = (left, w - right)
    for height, up in ((top, False), (below, True)):
        if height:
            strip = _marks(w, height, ends, per_mm, up)
            image = image.join(strip, "vertical") if up else strip.join(image, "vertical")
    return image
