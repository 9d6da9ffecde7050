"""Quantised texture coordinates: stored in steps, which compress well, and smoothed when read."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import Floats
from .parallel import ONE_CORE, Cores

FINEST = 16384
"""Steps of u and v in a scene's maps: a fifth of a texel of the finest print."""

QUICK_FINEST = 4096
"""Steps in its quick maps: a fifth of a texel of their finest visible detail."""

SMOOTH_PX, STRIP_ROWS = 9, 128


def quantise(uv: Floats, finest: int) -> Floats:
    """Quantise fractions (h, w, 2)."""
    return np.asarray((uv * np.float32(finest)).round() / np.float32(finest), np.float32)


def smooth_quantised(uv: Floats, finest: int, cores: Cores = ONE_CORE) -> None:
    """Smooth quantised fractions (h, w, 2) in place; NaN where there are none.

    A thin line or an edge that lies between two steps would come out dotted or notched. Cloth and ground are smooth, so each
    place is brought to the mean about it, but by half a step at most: seams and folds stay where they are.
    """
    there = ~np.isnan(uv[..., 0])
    ys, xs = np.flatnonzero(there.any(axis=1)), np.flatnonzero(there.any(axis=0))
    if not len(ys):
        return
    box = slice(ys[0], ys[-1] + 1), slice(xs[0], xs[-1] + 1)
    values, there, side = uv[box], there[box], (SMOOTH_PX, SMOOTH_PX)
    packed, h, reach, half = values.copy(), len(values), SMOOTH_PX // 2, np.float32(0.5 / finest)

    def work(rows: slice) -> None:
        padded = slice(max(0, rows.start - reach), min(h, rows.stop + reach))
        inner = slice(rows.start - padded.start, rows.stop - padded.start)
        if there[padded].all():
            mean = cv2.blur(packed[padded], side)[inner]
        else:
            share = cv2.blur(there[padded].astype(np.float32), side)[inner]
            mean = cv2.blur(cv2.patchNaNs(packed[padded].copy()), side)[inner] / np.maximum(share, 1e-6)[..., None]
        np.maximum(mean, packed[rows] - half, out=mean)
        np.minimum(mean, packed[rows] + half, out=values[rows])  # NaN stays NaN

    cores.by_rows(h, STRIP_ROWS, work)
