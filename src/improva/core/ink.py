"""Reflectance of printed blanks."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from .colour import LINEAR_OF_BYTE, Floats, parse_hex

BLACKEST = 0.012
"""Transmittance of full dye: sublimated black is not fully black. From memory."""


def colour_reflectance(colour: str) -> Floats:
    """Return the linear reflectance of a plain colour ``#rrggbb``, (3,) in R, G, B."""
    return LINEAR_OF_BYTE[list(parse_hex(colour))]


def printed(art: NDArray[np.uint8], blank: Floats) -> Floats:
    """Return the reflectance of art printed on a blank: ρ = ρ_blank · (t + (1 - t) · art).

    Args:
        art: (h, w, 3) sRGB on white, where white means no ink.
        blank: the blank's linear reflectance (3,).

    Returns:
        (h, w, 3) float32 linear reflectance. White art shows the blank; a coloured blank tints everything.
    """
    curve = blank[None, :] * (BLACKEST + (1 - BLACKEST) * LINEAR_OF_BYTE[:, None])
    return np.asarray(cv2.LUT(np.ascontiguousarray(art), np.ascontiguousarray(curve.reshape(1, 256, 3))))
