"""What a camera adds to a picture: a glow round bright places, a little darkness towards the corners, and grain."""

from __future__ import annotations

from functools import lru_cache

import cv2
import numpy as np
from numpy.typing import NDArray

Picture = NDArray[np.uint8]

GLOW_FROM, GLOW, GLOW_REACH = 214, 0.16, 0.011
"""Level from which a place glows, share of its light that spreads, and how far it spreads, as a share of the width."""

SMALLER = 8
"""The glow is computed on a picture of an eighth of the size."""

CORNER = 0.06
"""How much darker the corners are, in display values: about a sixth of a stop, as of a lens that is stopped down. From memory."""

GRAIN = 1.3
"""Standard deviation of the grain in 8-bit levels, as of a small sensor at ISO 400. From memory."""

GRAIN_PX = 512
GRAIN_SEED = 9
"""The same picture always gets the same grain."""


def as_camera(picture: Picture) -> Picture:
    """Return a picture (h, w, 3), 8-bit sRGB, with glow, darker corners and grain added. Its mean changes by less than 2 %."""
    h, w = picture.shape[:2]
    shown = cv2.add(picture, _glow(picture))
    shown = cv2.multiply(shown, _corners(w, h), scale=1 / 255)
    return np.asarray(cv2.add(shown, _grain(w, h), dtype=cv2.CV_8U), np.uint8)


def _glow(picture: Picture) -> Picture:
    """Return the light (h, w, 3) that spreads from bright places beyond their own."""
    h, w = picture.shape[:2]
    small = cv2.resize(picture, (max(1, w // SMALLER), max(1, h // SMALLER)), interpolation=cv2.INTER_AREA)
    bright = cv2.subtract(small, np.full(4, GLOW_FROM, np.float64))
    spread = cv2.GaussianBlur(bright.astype(np.float32), (0, 0), max(0.5, GLOW_REACH * small.shape[1]))
    glow = np.clip(GLOW * 255 / (255 - GLOW_FROM) * spread - GLOW * bright, 0, 255).astype(np.uint8)
    return np.asarray(cv2.resize(glow, (w, h), interpolation=cv2.INTER_LINEAR), np.uint8)


@lru_cache(maxsize=2)
def _corners(w: int, h: int) -> Picture:
    """Return how bright each pixel stays, (h, w, 3) with 255 in the middle: by the fourth power of the cosine, as of a plain lens."""
    x, y = (np.linspace(-1, 1, n, dtype=np.float32) * n / np.hypot(w, h) for n in (w, h))
    tangent = (1 / (1 - CORNER)) ** 0.25
    square = (x[None, :] ** 2 + y[:, None] ** 2) * np.float32(tangent**4 - 1)
    return np.ascontiguousarray(np.repeat(np.round(255 / (1 + square)).astype(np.uint8)[..., None], 3, axis=2))


@lru_cache(maxsize=2)
def _grain(w: int, h: int) -> NDArray[np.int16]:
    """Return the grain (h, w, 3) in levels, the same in all channels: a square of noise laid side by side, that fits to itself."""
    noise = np.random.default_rng(GRAIN_SEED).standard_normal((GRAIN_PX, GRAIN_PX)).astype(np.float32)
    soft = cv2.GaussianBlur(np.pad(noise, 8, mode="wrap"), (0, 0), 0.6)[8:-8, 8:-8]
    levels = np.round(soft * (GRAIN / float(soft.std()))).astype(np.int16)
    tiled = np.tile(levels, (-(-h // GRAIN_PX), -(-w // GRAIN_PX)))[:h, :w]
    return np.ascontiguousarray(np.repeat(tiled[..., None], 3, axis=2))
