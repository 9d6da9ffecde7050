"""Timing for the benchmarks: medians, and rows that say what was measured against what."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

import numpy as np

ROUNDS = 15


def median(work: Callable[[], Any], rounds: int = ROUNDS) -> float:
    """The median time of some work in seconds, after one round to warm up."""
    work()
    return float(np.median(times_of(work, rounds)))


def times_of(work: Callable[[], Any], rounds: int) -> list[float]:
    """How long each round of some work takes, in seconds."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return times


def row(name: str, ours: float, floor_name: str, floor: float, limit: float) -> dict[str, Any]:
    """A line of the bench: what took how long, against what floor, and the most the ratio may be."""
    return {"name": name, "seconds": round(ours, 4), "floor": floor_name, "floor_seconds": round(floor, 4),
            "ratio": round(ours / floor, 3), "limit": limit}  # fmt: skip
