"""Run work on strips of a picture on all cores: NumPy and OpenCV release the interpreter lock while they compute."""

from __future__ import annotations

import math
import os
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import numpy as np
from numpy.typing import NDArray

CORES = os.cpu_count() or 2
_pool = ThreadPoolExecutor(max_workers=CORES, thread_name_prefix="picture")
_kept = threading.local()


def by_rows(height: int, least_rows: int, work: Callable[[slice], object]) -> None:
    """Call ``work`` with strips that cover all rows, evenly for each core, each of about ``least_rows``.

    Raises what the work raises. Work must not ask for strips of its own: it would wait for cores that wait for it.
    """
    strips = CORES * math.ceil(height / max(1, least_rows) / CORES)
    step = math.ceil(height / strips)
    for job in [_pool.submit(work, slice(y, min(y + step, height))) for y in range(0, height, step)]:
        job.result()


def scratch(name: str, shape: tuple[int, ...], kind: type) -> NDArray[Any]:
    """Return this thread's working array of a name and ``shape`` (…), reused between calls: allocating it costs as much as the
    arithmetic."""
    arrays: dict[str, NDArray[Any]] = _kept.__dict__.setdefault("arrays", {})
    size = math.prod(shape)
    if name not in arrays or arrays[name].size < size:
        arrays[name] = np.empty(size, kind)
    return arrays[name][:size].reshape(shape)
