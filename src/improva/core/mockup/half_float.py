"""Convert half floats to single precision by a table, about four times as fast as NumPy's conversion."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from .parallel import ONE_CORE, Cores

STRIP_ROWS = 64


def _of_halves(change: Callable[[Floats], Floats]) -> Floats:
    """Return a function's value for every half float, (1, 65536), in order of their bits."""
    with np.errstate(all="ignore"):
        every = np.arange(65536, dtype=np.uint16).view(np.float16).astype(np.float32)
        return np.asarray(change(every), np.float32).reshape(1, -1)


@lru_cache(16)
def _times(gain: float) -> Floats:
    return _of_halves(lambda every: every * np.float32(gain))


def whole(plane: NDArray[np.floating], gain: float = 1.0) -> Floats:
    """Return rows of a plane, (h, w) or (h, w, 3), as single-precision floats multiplied by a gain."""
    if plane.dtype == np.float16:
        return np.asarray(cv2.LUT(plane.view(np.uint16), _times(gain)), np.float32)
    return np.asarray(np.multiply(plane, np.float32(gain), dtype=np.float32))


def mapped(plane: NDArray[np.floating], change: Callable[[Floats], Floats], cores: Cores = ONE_CORE) -> Floats:
    """Apply a function to every value of a large plane (h, w) or (h, w, 3) on all cores; returns single-precision floats."""
    halves = plane.dtype == np.float16
    table = _of_halves(change) if halves else None
    out = np.empty(plane.shape, np.float32)

    def work(rows: slice) -> None:
        if table is not None:
            cv2.LUT(plane[rows].view(np.uint16), table, dst=out[rows])
        else:
            out[rows] = change(np.asarray(plane[rows], np.float32))

    cores.by_rows(len(plane), STRIP_ROWS, work)
    return out
