"""The processors that compute a picture. NumPy and OpenCV release the interpreter lock, so threads share the work."""

from __future__ import annotations

import math
import os
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import numpy as np
from numpy.typing import NDArray


class Cores:
    """The calling thread alone: work runs in order, and working memory is new at each call."""

    def by_rows(self, height: int, least_rows: int, work: Callable[[slice], object]) -> None:
        """Call ``work`` with strips of about ``least_rows`` that cover all rows. Raises what the work raises."""
        step = max(1, least_rows)
        for y in range(0, height, step):
            work(slice(y, min(y + step, height)))

    def scratch(self, name: str, shape: tuple[int, ...], kind: type) -> NDArray[Any]:
        """Return a working array; its contents are undefined, and valid until the next call with its name in this thread."""
        return np.empty(shape, kind)


ONE_CORE = Cores()


class ThreadedCores(Cores):
    """A pool of threads, each with working memory that it keeps: allocating it costs as much as the arithmetic.

    Args:
        count: number of threads; one for each processor by default.
    """

    def __init__(self, count: int | None = None) -> None:
        self._count = count or os.cpu_count() or 2
        self._pool = ThreadPoolExecutor(max_workers=self._count, thread_name_prefix="picture")
        self._own = threading.local()

    def by_rows(self, height: int, least_rows: int, work: Callable[[slice], object]) -> None:
        """Share strips of about ``least_rows`` evenly between the threads; return when all are done.

        Raises what the work raises. Work must not call this method: it would wait for threads that wait for it.
        """
        strips = self._count * math.ceil(height / max(1, least_rows) / self._count)
        step = math.ceil(height / strips)
        for job in [self._pool.submit(work, slice(y, min(y + step, height))) for y in range(0, height, step)]:
            job.result()

    def scratch(self, name: str, shape: tuple[int, ...], kind: type) -> NDArray[Any]:
        """Return this thread's working array of a name, which is reused between calls."""
        arrays: dict[str, NDArray[Any]] = self._own.__dict__.setdefault("arrays", {})
        size = math.prod(shape)
        if name not in arrays or arrays[name].size < size:
            arrays[name] = np.empty(size, kind)
        return arrays[name][:size].reshape(shape)
