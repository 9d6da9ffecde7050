"""Reflectance of printed blanks, and soft proofs with a printer's profile."""

from __future__ import annotations

import io

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageCms

from .colour import LINEAR_OF_BYTE, Floats, parse_hex
from .errors import ArtworkError

BLACKEST = 0.012
"""Transmittance of full dye, from memory: sublimated black is never quite black."""


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


def open_profile(data: bytes) -> ImageCms.ImageCmsProfile:
    """Open a printer's ICC profile. Raises :class:`ArtworkError` if it is not an output profile."""
    try:
        profile = ImageCms.ImageCmsProfile(io.BytesIO(data))
        space = profile.profile.xcolor_space.strip()
    except (OSError, ImageCms.PyCMSError, TypeError) as broken:
        raise ArtworkError("This is not an ICC profile: choose the .icc or .icm file that came with the printer.") from broken
    if space not in ("RGB", "CMYK"):
        raise ArtworkError(f"This profile is for {space}, not for RGB or CMYK printing: choose the printer's own.")
    return profile


def soft_proof(shown: NDArray[np.uint8], profile: bytes) -> NDArray[np.uint8]:
    """Simulate the print of sRGB colours (h, w, 3): through an ICC profile and back, by Little CMS, relative colorimetric.

    Raises :class:`ArtworkError` for a profile without both directions.
    """
    target = open_profile(profile)
    srgb = ImageCms.createProfile("sRGB")
    mode = "RGB" if target.profile.xcolor_space.strip() == "RGB" else "CMYK"
    intent = ImageCms.Intent.RELATIVE_COLORIMETRIC
    try:
        there = ImageCms.buildTransform(srgb, target, "RGB", mode, intent, ImageCms.Flags.BLACKPOINTCOMPENSATION)
        back = ImageCms.buildTransform(target, srgb, mode, "RGB", intent, ImageCms.Flags.BLACKPOINTCOMPENSATION)
    except ImageCms.PyCMSError as broken:
        raise ArtworkError("This profile cannot be used both ways, so colours cannot be held against it.") from broken
    sent = ImageCms.applyTransform(Image.fromarray(np.ascontiguousarray(shown)), there)
    assert sent is not None
    returned = ImageCms.applyTransform(sent, back)
    return np.asarray(returned, np.uint8)
