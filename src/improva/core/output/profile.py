"""Profiles that go into files, and colours sent to the seller's own printer, by Little CMS."""

from __future__ import annotations

from functools import cache
from typing import Literal, get_args

import pyvips

from ..errors import OutputError
from ..ink import open_profile

Intent = Literal["relative", "perceptual", "saturation", "absolute"]
INTENTS: tuple[Intent, ...] = get_args(Intent)
"""Rendering intents: ICC.1:2022, 6.2."""


@cache
def srgb_profile() -> bytes:
    """The sRGB ICC profile that libvips carries (IEC 61966-2-1)."""
    return bytes(pyvips.Operation.call("profile_load", "srgb"))


def tagged(image: pyvips.Image, profile: bytes) -> pyvips.Image:
    """An image that carries a profile; its values stay as they are."""
    image = image.copy()
    image.set_type(pyvips.GValue.blob_type, "icc-profile-data", profile)
    return image


def _sent(image: pyvips.Image, profile: bytes, intent: Intent) -> pyvips.Image:
    """sRGB values as the printer's own, through Lab."""
    lab = image.icc_import(input_profile="srgb", pcs="lab", intent=intent)
    return tagged(lab, profile).icc_export(pcs="lab", intent=intent, depth=8, black_point_compensation=intent == "relative")


def check_rgb(profile: bytes) -> None:
    """Make sure that print files can be converted to a profile.

    Raises:
        ArtworkError: it is no profile.
        OutputError: it is a press profile; print files stay RGB.
    """
    if open_profile(profile).profile.xcolor_space.strip() != "RGB":
        raise OutputError("Print files stay RGB: this profile is for CMYK. It can still be used for the proof on screen.")


def converted(image: pyvips.Image, profile: bytes, intent: Intent) -> pyvips.Image:
    """An sRGB image in the colours of a printer's RGB profile, which it carries; see :func:`check_rgb`."""
    return _sent(image, profile, intent)


def proofed(image: pyvips.Image, profile: bytes, intent: Intent, paper: bool = False) -> pyvips.Image:
    """An sRGB image as it comes out of a printer, back on the screen; with ``paper`` its white is the paper's own.

    Raises:
        ArtworkError: it is no profile.
        OutputError: it does not tell how its colours look.
    """
    open_profile(profile)
    try:
        there = _sent(image, profile, intent)
        seen: Intent = "absolute" if paper else "relative"
        back = there.icc_import(embedded=True, pcs="lab", intent=seen)
        return back.icc_export(output_profile="srgb", pcs="lab", intent=seen, depth=8).copy_memory()
    except pyvips.Error as broken:
        raise OutputError("This profile cannot be used both ways, so its colours cannot be shown.") from broken
