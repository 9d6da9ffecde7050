"""Surfaces of backgrounds and cloth at real size: wood, stone, linen, heather weave."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ..cached_property import cached_property
from ..colour import Floats
from .maps import PrintMap
from .parallel import ONE_CORE, Cores

STRIP_ROWS, EDGE_ROWS = 64, 8
EDGE = 2
"""Texels around each level of the sheet, for samples between its last and first texel."""

FULL = 65535
"""Stored value of reflectance 1; a weave, which shades by factors around 1, stores a quarter of it for the factor 1."""


@dataclass(frozen=True)
class Level:
    """One level of a surface's mip map: position and size in texels in the sheet, by the centre of its first texel."""

    x: int
    y: int
    w: int
    h: int


@dataclass(frozen=True)
class Surface:
    """A seamless picture of a surface.

    Attributes:
        sheet: (h, w, 3) linear reflectance in 16 bits, B, G, R; half floats would not be sampled, whole ones fill memory. It
            holds the picture and its halves, each the mean of four texels of the one before, with what follows around them.
        levels: where each of them lies, the largest first.
        size_mm: width and height of the piece that repeats.
        tints: it only shades a colour, as a weave does.
        relief: share of its shading that ink on it shows too: that of threads, not that of dyes.
        blurred: it was taken out of focus, and the lens blurs it no more.
    """

    title: str
    sheet: NDArray[np.uint16]
    levels: tuple[Level, ...]
    size_mm: tuple[float, float]
    tints: bool = False
    blurred: bool = False
    relief: float = 0.0

    @classmethod
    def laid(
        cls, title: str, pixels: NDArray[np.uint16], size_mm: tuple[float, float], tints: bool = False, blurred: bool = False
    ) -> Surface:
        """Make a surface from 16-bit reflectance (h, w, 3)."""
        halves = [pixels]
        while min(halves[-1].shape[:2]) >= 2:
            h, w = halves[-1].shape[:2]
            halves.append(np.asarray(cv2.resize(halves[-1], (w // 2, h // 2), interpolation=cv2.INTER_AREA), np.uint16))
        widths = [half.shape[1] + 2 * EDGE for half in halves]
        heights = [half.shape[0] + 2 * EDGE for half in halves]
        sheet = np.empty((heights[0] + max(heights[1:], default=0), max(widths[0], sum(widths[1:])), 3), np.uint16)
        levels, x, y = [], 0, 0
        for half, width, height in zip(halves, widths, heights, strict=True):
            room = sheet[y : y + height, x : x + width]
            cv2.copyMakeBorder(half, EDGE, EDGE, EDGE, EDGE, cv2.BORDER_WRAP, dst=room)
            levels.append(Level(x + EDGE, y + EDGE, half.shape[1], half.shape[0]))
            x, y = (x + width, y) if y else (0, height)  # the largest above, all others beside each other
        return cls(title, sheet, tuple(levels), size_mm, tints, blurred)

    @classmethod
    def of(cls, title: str, reflectance: Floats, size_mm: tuple[float, float], tints: bool = False) -> Surface:
        """Make a surface from linear values (h, w, 3); a weave is scaled to a mean of 1."""
        values = reflectance / reflectance.mean(axis=(0, 1)) / 4 if tints else reflectance
        return cls.laid(title, (np.clip(values, 0, 1) * FULL + 0.5).astype(np.uint16), size_mm, tints)

    @property
    def unit(self) -> np.float32:
        """Return the reflectance of one step of the sheet."""
        return np.float32((4 if self.tints else 1) / FULL)

    @property
    def pixels(self) -> NDArray[np.uint16]:
        """Return the picture at its own size, (h, w) or (h, w, 3)."""
        first = self.levels[0]
        return self.sheet[first.y : first.y + first.h, first.x : first.x + first.w]

    @cached_property
    def mean(self) -> Floats:
        """Return the mean reflectance, (3,)."""
        return np.asarray(np.array(cv2.mean(self.pixels)[:3]) * self.unit, np.float32)


OpenSurface = Callable[[str], Surface | None]
"""Opens a surface by its id; returns None for an unknown one."""


def no_surfaces(_: str) -> Surface | None:
    """Return None for every surface: for scenes without any."""
    return None


def seen_surface(
    surface: Surface, ground_mm: tuple[float, float], seen: PrintMap, blur_px: Floats | None, cores: Cores = ONE_CORE
) -> Floats:
    """Return a surface as seen by the pixels of a window, (h, w, 3) linear.

    Each pixel takes the mean over its footprint on the ground, or over what the lens spreads it to where that is more
    (``blur_px``, diameter in px): two levels of halves are mixed, as in trilinear filtering.
    """
    first = surface.levels[0]
    times = [np.float32(ground / size) for ground, size in zip(ground_mm, surface.size_mm, strict=True)]
    rows, columns = seen.u.shape
    out = np.empty((rows, columns, 3), np.float32)

    def work(strip: slice) -> None:  # in strips, because a whole listing picture would take much memory
        padded = slice(max(0, strip.start - EDGE_ROWS), min(rows, strip.stop + EDGE_ROWS))
        x, y = seen.u[padded] * times[0], seen.v[padded] * times[1]
        level = _level(
            x * np.float32(first.w), y * np.float32(first.h), None if blur_px is None or surface.blurred else blur_px[padded]
        )
        inner = slice(strip.start - padded.start, strip.stop - padded.start)
        _sample(surface, x[inner], y[inner], np.minimum(level[inner], len(surface.levels) - 1), out[strip])

    cores.by_rows(rows, STRIP_ROWS, work)
    return out


def _level(x: Floats, y: Floats, blur_px: Floats | None) -> Floats:
    """Return the mip level at places x, y in texels, (h, w) each."""
    step = np.maximum(_step(x, y, 1), _step(x, y, 0))
    cv2.blur(step, (5, 5), dst=step)
    if blur_px is not None:
        across = np.minimum(_step(x, y, 1), step)
        step = np.maximum(step, across * blur_px * np.float32(0.7))
    return np.asarray(np.log2(np.maximum(step, np.float32(1))), np.float32)


def _sample(surface: Surface, x: Floats, y: Floats, level: Floats, out: Floats) -> None:
    """Sample a surface at places x, y in units of its size, between two of its levels, into ``out``."""
    x, y = x - np.floor(x), y - np.floor(y)
    lower = level.astype(np.uint8)
    share = level - lower
    near, far = (
        cv2.multiply(_at_level(surface, x, y, lower, more), cv2.merge([weight * surface.unit] * 3), dtype=cv2.CV_32F)
        for more, weight in ((0, 1 - share), (1, share))
    )
    cv2.add(near, far, dst=out)


def _at_level(surface: Surface, x: Floats, y: Floats, lower: NDArray[np.uint8], more: int) -> NDArray[np.uint16]:
    """Sample a surface's texels at fractions x, y, each in its own level plus an offset."""
    tables = np.zeros((4, 1, 256), np.float32)
    for i in range(len(surface.levels)):
        at = surface.levels[min(i + more, len(surface.levels) - 1)]
        tables[:, 0, i] = at.w, at.x - 0.5, at.h, at.y - 0.5
    sizes_x, from_x, sizes_y, from_y = (cv2.LUT(lower, table) for table in tables)
    at_x, at_y = cv2.add(cv2.multiply(x, sizes_x), from_x), cv2.add(cv2.multiply(y, sizes_y), from_y)
    return np.asarray(cv2.remap(surface.sheet, at_x, at_y, cv2.INTER_LINEAR), np.uint16)


def _step(x: Floats, y: Floats, axis: int) -> Floats:
    """Return the distance in texels to the next pixel along an axis; none at the end."""
    out = np.zeros_like(x)
    first, next_ = (
        ((slice(None), slice(None, -1)), (slice(None), slice(1, None))) if axis else (slice(None, -1), slice(1, None))
    )
    out[first] = cv2.magnitude(x[next_] - x[first], y[next_] - y[first])
    return out
