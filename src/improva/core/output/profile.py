"""The sRGB profile that goes into every file."""

from __future__ import annotations

from functools import cache

import pyvips


@cache
def srgb_profile() -> bytes:
    """The sRGB ICC profile that libvips carries (IEC 61966-2-1)."""
    return bytes(pyvips.Operation.call("profile_load", "srgb"))
