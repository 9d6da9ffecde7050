"""Waiting for other processes and threads, which give no event to wait for."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TypeVar

T = TypeVar("T")


def wait_until(condition: Callable[[], T], limit_s: float = 60.0) -> T:
    """Call a condition until its result is true, and return that result. Fails the test after ``limit_s`` seconds."""
    end = time.monotonic() + limit_s
    while not (result := condition()):
        assert time.monotonic() < end, f"still {result!r} after {limit_s:g} s"
        time.sleep(0.02)
    return result
