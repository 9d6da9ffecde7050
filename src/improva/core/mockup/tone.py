"""Convert linear light to 8-bit sRGB by one look-up table."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

from ..colour import Floats, srgb_from_linear

SHOULDER = 0.72
"""Light up to this value is shown unchanged, so that printed colours stay true; brighter light is compressed."""

RANGE = 4.0
"""Light from which all values are shown alike."""

WHITEST = 0.9956
"""Displayed linear light that rounds up to 255: (254.5 / 255) decoded."""

CODES = 65535
"""Light is rounded to 16 bits before the table: a fifth of an 8-bit step in the deepest shadow."""


def tone(light: NDArray[np.floating]) -> Floats:
    """Convert exposed linear light to displayed linear light in 0…1, shape (…) kept: straight, then an exponential shoulder."""
    x = np.asarray(light, np.float32)
    room = 1 - SHOULDER
    return np.where(x < SHOULDER, x, SHOULDER + room * (1 - np.exp(-(x - SHOULDER) / room))).astype(np.float32)


def untoned(shown: NDArray[np.floating]) -> Floats:
    """Convert displayed linear light to exposed light, shape (…) kept: the reverse of :func:`tone`. Full white becomes the least that shows white."""
    y = np.minimum(np.asarray(shown, np.float32), np.float32(WHITEST))
    room = 1 - SHOULDER
    above = SHOULDER - room * np.log(np.clip((1 - y) / room, 1e-6, 1))
    return np.where(y < SHOULDER, y, above).astype(np.float32)


@cache
def table() -> NDArray[np.uint8]:
    """Return 8-bit sRGB for each 16-bit code of linear light, shape (1, 65536)."""
    light = np.arange(CODES + 1, dtype=np.float32) * (RANGE / CODES)
    return (srgb_from_linear(tone(light)) * 255 + 0.5).astype(np.uint8).reshape(1, -1)


def develop(light: NDArray[np.floating], exposure: float) -> NDArray[np.uint8]:
    """Convert linear light (h, w, 3) to 8-bit sRGB, by the curve of :func:`table` without its rounding."""
    return (srgb_from_linear(tone(np.asarray(light) * exposure)) * 255 + 0.5).astype(np.uint8)
