"""Separate a photograph's light into what the blank's colour reflects and highlights, which a print does not change.

Photographed light is base + basis · ρ: with the blank in its own colour the photograph comes back exactly.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import LINEAR_OF_BYTE, LUMINANCE, Floats
from ...ink import colour_reflectance
from ..tone import untoned
from .marks import Marks

SPOT = 0.006
"""Radius of the spot from which the blank's colour is read, in photo widths."""
WIDE = 0.22
"""Highlights narrower than half of this, in product widths, are separated from shading."""
ABOVE = 1.10
"""Ratio to its surroundings from which light is a highlight."""
CHROMATIC = 0.25
"""Saturation of the blank from which highlights are recognised by their colour."""
DARKEST = 0.06
"""Lowest reflectance assumed of a blank: a lower one would amplify noise."""


def light_of(photo: NDArray[np.uint8]) -> Floats:
    """Convert sRGB (h, w, 3) to light before the display tone curve."""
    return untoned(LINEAR_OF_BYTE[photo])


def incident_light(light: Floats, cover: Floats, marks: Marks) -> Floats:
    """Return the light that falls on the blank where it is evenly lit, (3,): what a perfect white would reflect."""
    h, w = light.shape[:2]
    if marks.plain is not None:
        x, y = marks.plain[0] * w, marks.plain[1] * h
        r = max(2.0, SPOT * w)
        rows, columns = slice(max(0, int(y - r)), int(y + r) + 1), slice(max(0, int(x - r)), int(x + r) + 1)
        spot = light[rows, columns].reshape(-1, 3)
        level = np.median(spot, axis=0) if len(spot) else np.ones(3)
    else:
        inside = light[cover > 0.98]
        level = np.median(inside if len(inside) else light.reshape(-1, 3), axis=0)
    return np.asarray(np.maximum(level, 1e-3) / rho_of(marks.colour), np.float32)


def rho_of(colour: str) -> Floats:
    """Return the photographed blank's reflectance, (3,)."""
    return np.maximum(colour_reflectance(colour), DARKEST)


def highlights(light: Floats, cover: Floats, fell: Floats, colour: str, matt: bool) -> Floats:
    """Return the uncoloured surface reflection, (h, w), as shares of the incident light; none on ``matt`` material.

    Those of a coloured blank are recognised by their colour (the dichromatic model: Shafer, "Using color to separate reflection
    components", Color Research and Application 10, 1985); a white or grey one's by standing out of what is around them.
    """
    if matt:
        return np.zeros(cover.shape, np.float32)
    rho = rho_of(colour)
    shares = light / fell
    if 1 - rho.min() / rho.max() > CHROMATIC:
        both = np.stack([rho, np.ones(3, np.float32)], 1)
        amounts = shares @ np.linalg.pinv(both).T.astype(np.float32)
        shine = np.clip(amounts[..., 1], 0, shares.min(axis=-1))
    else:
        level = np.asarray(shares @ LUMINANCE, np.float32)
        shine = np.clip(level - ABOVE * _round_it(level, cover), 0, None)
    return np.asarray(shine * cover, np.float32)


def _round_it(level: Floats, cover: Floats) -> Floats:
    """Return the median tone around each point of the product, (h, w), from a small copy."""
    h, w = level.shape
    inside = cover > 0.5
    columns = np.flatnonzero(inside.any(axis=0))
    wide = WIDE * (columns[-1] + 1 - columns[0] if len(columns) else w)
    factor = min(1.0, 40 / max(wide, 1.0))
    small = max(8, round(w * factor)), max(8, round(h * factor))
    share = cv2.resize(inside.astype(np.float32), small, interpolation=cv2.INTER_AREA)
    plane = cv2.resize(np.where(inside, level, 0).astype(np.float32), small, interpolation=cv2.INTER_AREA)
    filled = np.where(share > 0.3, plane / np.maximum(share, 0.3), np.nan)
    top = float(np.nanmax(filled, initial=1e-3))
    usual = float(np.nanmedian(filled)) if not np.isnan(filled).all() else 0.0
    coded = np.round(np.nan_to_num(filled, nan=usual) / top * 255).astype(np.uint8)
    middle = cv2.medianBlur(coded, 2 * max(1, round(wide * factor / 2)) + 1).astype(np.float32) / 255 * top
    return np.asarray(cv2.resize(cv2.GaussianBlur(middle, (0, 0), 2), (w, h), interpolation=cv2.INTER_CUBIC), np.float32)


def separate_light(light: Floats, cover: Floats, fell: Floats, colour: str, matt: bool) -> tuple[Floats, Floats]:
    """Return base and basis, (h, w, 3) each: ``base + basis · ρ`` is the photograph for the blank's own ρ."""
    rho = rho_of(colour)
    shine = highlights(light, cover, fell, colour, matt)[..., None] * fell
    own = np.maximum(light - shine, 0) * cover[..., None]
    return np.asarray(light - own, np.float32), np.asarray(own / rho, np.float32)
