"""Surfaces that a ground or a cloth shows: wood, stone, linen, a heather's weave; laid at their real size."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from .cores import by_rows
from .maps import PrintMap

STRIP_ROWS, EDGE_ROWS = 64, 8


FULL = 65535
"""What reflectance 1 is kept as, or in a weave, which shades by values around 1, four times as much."""


@dataclass(frozen=True)
class Surface:
    """A picture of a surface that repeats without a seam.

    Attributes:
        pixels: (h, w, 3) linear reflectance in 16 bits, B, G, R; half floats would not be sampled, whole ones fill memory.
        size_mm: width and height of the piece that repeats.
        tints: it only shades a colour, as a weave does.
    """

    title: str
    pixels: NDArray[np.uint16]
    size_mm: tuple[float, float]
    tints: bool = False

    @classmethod
    def of(cls, title: str, reflectance: Floats, size_mm: tuple[float, float], tints: bool = False) -> Surface:
        """From linear values (h, w, 3); a weave's are brought to a mean of 1."""
        values = reflectance / reflectance.mean(axis=(0, 1)) / 4 if tints else reflectance
        return cls(title, (np.clip(values, 0, 1) * FULL + 0.5).astype(np.uint16), size_mm, tints)

    @property
    def unit(self) -> np.float32:
        """What one step of ``pixels`` is worth."""
        return np.float32((4 if self.tints else 1) / FULL)

    @cached_property
    def levels(self) -> list[NDArray[np.uint16]]:
        """The picture and its halves, each the mean of four texels of the one before."""
        found = [self.pixels]
        while min(found[-1].shape[:2]) >= 2:
            h, w = found[-1].shape[:2]
            found.append(np.asarray(cv2.resize(found[-1], (w // 2, h // 2), interpolation=cv2.INTER_AREA), np.uint16))
        return found

    @cached_property
    def mean(self) -> Floats:
        """Mean reflectance, (3,)."""
        return np.asarray(np.array(cv2.mean(self.pixels)[:3]) * self.unit, np.float32)


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
    h, w = surface.pixels.shape[:2]
    scale = np.array([ground_mm[0] / surface.size_mm[0] * w, ground_mm[1] / surface.size_mm[1] * h], np.float32)
    rows, columns = seen.u.shape
    out = np.empty((rows, columns, 3), np.float32)

    def work(strip: slice) -> None:  # in strips also for memory, of which a whole listing picture takes much
        padded = slice(max(0, strip.start - EDGE_ROWS), min(rows, strip.stop + EDGE_ROWS))
        blur = None if blur_px is None else blur_px[padded]
        found = _seen_strip(surface, seen.u[padded] * scale[0], seen.v[padded] * scale[1], blur)
        out[strip] = found[strip.start - padded.start : strip.stop - padded.start]

    _ = surface.levels  # made once, not by each core
    by_rows(rows, STRIP_ROWS, work)
    return out


def _seen_strip(surface: Surface, x: Floats, y: Floats, blur_px: Floats | None) -> Floats:
    """A surface at places x, y in its texels, (h, w) each."""
    h, w = surface.pixels.shape[:2]
    step = np.maximum(_step(x, y, 1), _step(x, y, 0))
    cv2.blur(step, (5, 5), dst=step)
    if blur_px is not None:
        across = np.minimum(_step(x, y, 1), step)
        step = np.maximum(step, across * blur_px * np.float32(0.7))
    levels = surface.levels
    level = np.clip(np.log2(np.maximum(step, 1.0)), 0, len(levels) - 1).astype(np.float32)
    x, y = (at / np.float32(size) for at, size in ((x, w), (y, h)))
    x -= np.floor(x)
    y -= np.floor(y)
    out = np.zeros((*x.shape, 3), np.float32)
    for i, picture in enumerate(levels):
        share = np.maximum(1 - np.abs(level - i), 0)
        near = np.flatnonzero(share.any(axis=1))
        if not len(near):
            continue
        part = slice(int(near[0]), int(near[-1]) + 1)
        ph, pw = picture.shape[:2]
        at_x, at_y = x[part] * np.float32(pw) - np.float32(0.5), y[part] * np.float32(ph) - np.float32(0.5)
        found = cv2.remap(picture, at_x, at_y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_WRAP)
        weight = cv2.merge([share[part] * surface.unit] * 3)
        out[part] += cv2.multiply(found, weight, dst=weight, dtype=cv2.CV_32F)
    return out


def _step(x: Floats, y: Floats, axis: int) -> Floats:
    """How many texels the next pixel along an axis is away; none at the end."""
    out = np.zeros_like(x)
    first, next_ = (
        ((slice(None), slice(None, -1)), (slice(None), slice(1, None))) if axis else (slice(None, -1), slice(1, None))
    )
    out[first] = cv2.magnitude(x[next_] - x[first], y[next_] - y[first])
    return out
