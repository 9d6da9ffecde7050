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


def side_by_side(ours: Callable[[], Any], floor: Callable[[], Any], rounds: int = ROUNDS) -> tuple[float, float]:
    """The medians of both in seconds, each round of one followed by one of the other: a machine's moods meet both."""
    both = [(times_of(ours, 1)[0], times_of(floor, 1)[0]) for _ in range(rounds + 1)][1:]
    return float(np.median([a for a, _ in both])), float(np.median([b for _, b in both]))


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
    return {
        "name": name,
        "seconds": round(ours, 4),
        "floor": floor_name,
        "floor_seconds": round(floor, 4),
        "ratio": round(ours / floor, 3),
        "limit": limit,
    }
