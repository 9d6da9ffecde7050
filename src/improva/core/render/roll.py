"""Roll a wrap round its cup: what leaves one end comes in at the other."""

from __future__ import annotations

import pyvips

from ..template import Panel


def rolled(image: pyvips.Image, roll_mm: float, panel: Panel) -> pyvips.Image:
    """Return a rendered wrap rolled to the right by whole pixels, so that no pixel changes.

    The ends of the trim meet; bleed beyond them continues round the cup.
    """
    per_mm = image.width / panel.file_mm[0]
    bleed = round(panel.bleed_mm * per_mm)
    trim = image.crop(bleed, 0, image.width - 2 * bleed, image.height)
    by = round(roll_mm * per_mm) % trim.width
    return trim.embed(bleed + by, 0, image.width, image.height, extend="repeat")


def shorter(roll_mm: float, around_mm: float) -> float:
    """Return a roll as the shorter way round, above minus half of the circumference and up to half of it."""
    return around_mm / 2 - (around_mm / 2 - roll_mm) % around_mm
