"""Surfaces that a ground or a cloth shows: wood, stone, linen, a heather's weave; laid at their real size."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np

from ..colour import Floats
from .view import PrintMap


@dataclass(frozen=True)
class Surface:
    """A picture of a surface that repeats without a seam.

    Attributes:
        reflectance: (h, w, 3) linear, B, G, R.
        size_mm: width and height of the piece that repeats.
        tints: it only shades a colour, as a weave does; its values are then around 1.
    """

    title: str
    reflectance: Floats
    size_mm: tuple[float, float]
    tints: bool = False

    @cached_property
    def levels(self) -> list[Floats]:
        """The picture and its halves, each the mean of four texels of the one before."""
        found = [np.ascontiguousarray(self.reflectance, np.float32)]
        while min(found[-1].shape[:2]) >= 2:
            h, w = found[-1].shape[:2]
            found.append(np.asarray(cv2.resize(found[-1], (w // 2, h // 2), interpolation=cv2.INTER_AREA)))
        return found

    @cached_property
    def mean(self) -> Floats:
        """Mean reflectance, (3,)."""
        return np.asarray(self.reflectance.mean(axis=(0, 1)), np.float32)


OpenSurface = Callable[[str], Surface | None]
"""Finds a surface by its id; None where there is none of that name."""


def no_surfaces(_: str) -> Surface | None:
    """For scenes that show none."""
    return None


def seen_surface(surface: Surface, ground_mm: tuple[float, float], seen: PrintMap, blur_px: Floats | None) -> Floats:
    """A surface as the pixels of a window see it, (h, w, 3) linear.

    Each pixel takes the mean over its footprint on the ground, or over what the lens spreads it to where that is more
    (``blur_px``, diameter in px): two levels of halves are mixed, as in trilinear filtering.
    """
    h, w = surface.reflectance.shape[:2]
    x = seen.u * np.float32(ground_mm[0] / surface.size_mm[0] * w)
    y = seen.v * np.float32(ground_mm[1] / surface.size_mm[1] * h)
    step = np.maximum(_step(x, y, 1), _step(x, y, 0))
    cv2.blur(step, (5, 5), dst=step)
    across = np.minimum(_step(x, y, 1), step)
    if blur_px is not None:
        step = np.maximum(step, across * blur_px * np.float32(0.7))
    levels = surface.levels
    level = np.clip(np.log2(np.maximum(step, 1.0)), 0, len(levels) - 1).astype(np.float32)
    out = np.zeros((*x.shape, 3), np.float32)
    for i, picture in enumerate(levels):
        share = np.clip(1 - np.abs(level - i), 0, 1)
        rows = np.flatnonzero(share.any(axis=1))
        if not len(rows):
            continue
        part = slice(int(rows[0]), int(rows[-1]) + 1)
        ph, pw = picture.shape[:2]
        at_x, at_y = x[part] * np.float32(pw / w) - 0.5, y[part] * np.float32(ph / h) - 0.5
        found = cv2.remap(picture, np.mod(at_x, pw), np.mod(at_y, ph), cv2.INTER_LINEAR, borderMode=cv2.BORDER_WRAP)
        out[part] += found * share[part, :, None]
    return out


def _step(x: Floats, y: Floats, axis: int) -> Floats:
    """How many texels the next pixel along an axis is away."""
    dx, dy = np.diff(x, axis=axis, append=np.take(x, [-1], axis)), np.diff(y, axis=axis, append=np.take(y, [-1], axis))
    return np.asarray(np.hypot(dx, dy), np.float32)
