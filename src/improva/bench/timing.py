"""Timing helpers: medians, and result rows."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

import numpy as np

ROUNDS = 15


def median(work: Callable[[], Any], rounds: int = ROUNDS) -> float:
    """Return the median time of some work in seconds, after one warm-up."""
    work()
    return float(np.median(times_of(work, rounds)))


def side_by_side(ours: Callable[[], Any], floor: Callable[[], Any], rounds: int = ROUNDS) -> tuple[float, float]:
    """Return the medians of two kinds of work in seconds, in alternating rounds, so that a machine's load affects both."""
    both = [(times_of(ours, 1)[0], times_of(floor, 1)[0]) for _ in range(rounds + 1)][1:]
    return float(np.median([a for a, _ in both])), float(np.median([b for _, b in both]))


def times_of(work: Callable[[], Any], rounds: int) -> list[float]:
    """Return the time of each round of some work, in seconds."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return times


def row(name: str, ours: float, floor_name: str, floor: float, limit: float) -> dict[str, Any]:
    """Return a result row: what took how long, against what reference, and the highest accepted ratio."""
    return {
        "name": name,
        "seconds": round(ours, 4),
        "floor": floor_name,
        "floor_seconds": round(floor, 4),
        "ratio": round(ours / floor, 3),
        "limit": limit,
    }
