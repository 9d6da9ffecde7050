"""Work on parts of a picture, on all cores at once: NumPy and OpenCV let go of the interpreter while they compute."""

from __future__ import annotations

import math
import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor

CORES = os.cpu_count() or 2
_pool = ThreadPoolExecutor(max_workers=CORES, thread_name_prefix="picture")


def by_rows(height: int, least_rows: int, work: Callable[[slice], object]) -> None:
    """Call ``work`` with strips of rows that together are all of them, as many for each core, each of about ``least_rows``.

    Raises what the work raises. Work must not ask for strips of its own: it would wait for cores that wait for it.
    """
    strips = CORES * math.ceil(height / max(1, least_rows) / CORES)
    step = math.ceil(height / strips)
    for job in [_pool.submit(work, slice(y, min(y + step, height))) for y in range(0, height, step)]:
        job.result()
