"""ICC profiles in files, conversion to the seller's printer, and soft proofs, by Little CMS."""

from __future__ import annotations

import io
from functools import cache
from typing import Literal, get_args

import pyvips
from PIL import ImageCms

from ..errors import ArtworkError, OutputError

Intent = Literal["relative", "perceptual", "saturation", "absolute"]
INTENTS: tuple[Intent, ...] = get_args(Intent)
"""Rendering intents: ICC.1:2022, 6.2."""


def open_profile(data: bytes) -> ImageCms.ImageCmsProfile:
    """Open a printer's ICC profile. Raises :class:`ArtworkError` if it is not an output profile."""
    try:
        profile = ImageCms.ImageCmsProfile(io.BytesIO(data))
        space = profile.profile.xcolor_space.strip()
    except (OSError, ImageCms.PyCMSError, TypeError, ValueError) as broken:  # ValueError: a name that is not text
        raise ArtworkError("This is not an ICC profile: choose the .icc or .icm file that came with the printer.") from broken
    if space not in ("RGB", "CMYK"):
        raise ArtworkError(f"This profile is for {space}, not for RGB or CMYK printing: choose the printer's own.")
    return profile


@cache
def srgb_profile() -> bytes:
    """Return the sRGB ICC profile that libvips carries (IEC 61966-2-1)."""
    return bytes(pyvips.Operation.call("profile_load", "srgb"))


def tagged(image: pyvips.Image, profile: bytes) -> pyvips.Image:
    """Attach a profile to an image without changing its values."""
    image = image.copy()
    image.set_type(pyvips.GValue.blob_type, "icc-profile-data", profile)
    return image


def _sent(image: pyvips.Image, profile: bytes, intent: Intent) -> pyvips.Image:
    """Convert sRGB values to the printer's own, through Lab."""
    lab = image.icc_import(input_profile="srgb", pcs="lab", intent=intent)
    return tagged(lab, profile).icc_export(pcs="lab", intent=intent, depth=8, black_point_compensation=intent == "relative")


def check_rgb(profile: bytes) -> None:
    """Check that print files can be converted to a profile.

    Raises:
        ArtworkError: it is no profile.
        OutputError: it is a press profile; print files stay RGB.
    """
    if open_profile(profile).profile.xcolor_space.strip() != "RGB":
        raise OutputError("Print files stay RGB: this profile is for CMYK. It can still be used for the proof on screen.")


def converted(image: pyvips.Image, profile: bytes, intent: Intent) -> pyvips.Image:
    """Convert an sRGB image to a printer's RGB profile and attach the profile; see :func:`check_rgb`."""
    return _sent(image, profile, intent)


def soft_proof(image: pyvips.Image, profile: bytes, intent: Intent, paper: bool = False) -> pyvips.Image:
    """Simulate the print of an sRGB image: in a printer's colours, as :func:`converted` sends them, and back to sRGB.

    Args:
        image: 8-bit sRGB.
        profile: the printer's ICC profile, RGB or CMYK.
        intent: rendering intent on the way to the printer.
        paper: show the paper's own white and the ink's own black; without it both are scaled to the screen's.

    Raises:
        ArtworkError: it is no profile.
        OutputError: it does not tell how its colours look.
    """
    open_profile(profile)
    try:
        there = _sent(image, profile, intent)
        seen: Intent = "absolute" if paper else "relative"
        back = there.icc_import(embedded=True, pcs="lab", intent=seen, black_point_compensation=not paper)
        return back.icc_export(output_profile="srgb", pcs="lab", intent=seen, depth=8).copy_memory()
    except pyvips.Error as broken:
        raise OutputError("This profile cannot be used both ways, so its colours cannot be shown.") from broken
