"""Costly results kept in memory within a room: what was not used for longest goes first."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import fields, is_dataclass
from typing import Any, Generic, TypeVar

import numpy as np
import pyvips

T = TypeVar("T")


def megabytes(thing: object) -> float:
    """What the arrays and pictures in a dataclass hold, in MB; one that is held twice counts once."""
    return _weigh(thing, set())


def _weigh(thing: object, met: set[int]) -> float:
    if isinstance(thing, np.ndarray | pyvips.Image | bytes):
        if id(thing) in met:
            return 0.0
        met.add(id(thing))
    if isinstance(thing, np.ndarray):
        return thing.nbytes / 1e6
    if isinstance(thing, pyvips.Image):
        return float(thing.width * thing.height * thing.bands) / 1e6
    if isinstance(thing, bytes):
        return len(thing) / 1e6
    if isinstance(thing, dict):
        return sum(_weigh(v, met) for v in thing.values())
    if isinstance(thing, tuple):
        return sum(_weigh(v, met) for v in thing)
    if is_dataclass(thing):
        return sum(_weigh(getattr(thing, f.name), met) for f in fields(thing))
    return 0.0


class Room:
    """Room for so much of results of many kinds, by whatever ``weigh`` counts: results by default."""

    def __init__(self, room: float, weigh: Callable[[Any], float] = lambda _: 1.0) -> None:
        self._room = room
        self._weigh = weigh
        self._held: OrderedDict[tuple[int, object], tuple[Any, float]] = OrderedDict()
        self.lock = threading.Lock()

    def find(self, key: tuple[int, object]) -> tuple[Any] | None:
        """What is held under a key, now the last used; the caller holds the lock."""
        if key not in self._held:
            return None
        self._held.move_to_end(key)
        return (self._held[key][0],)

    def put(self, key: tuple[int, object], value: Any) -> None:
        """Hold a value; the caller holds the lock."""
        self._held[key] = value, self._weigh(value)
        self.make_way(spare=1)

    def make_way(self, coming: float = 0.0, spare: int = 0) -> None:
        """Let go of what was not used for longest, until so much more finds room or no more than ``spare`` are left; the
        caller holds the lock.
        """
        while len(self._held) > spare and self.held + coming > self._room:
            self._held.popitem(last=False)

    def empty(self) -> None:
        """Let go of everything."""
        with self.lock:
            self._held.clear()

    @property
    def held(self) -> float:
        """How much is held."""
        return sum(weight for _, weight in self._held.values())


class Kept(Generic[T]):
    """The results of one costly function in a room, made once each even when asked for by several threads."""

    def __init__(self, room: Room) -> None:
        self._room = room
        self._making: dict[object, threading.Lock] = {}

    def get(self, key: object, make: Callable[[], T], expected: float = 0.0) -> T:
        """The value kept under ``key``, made now if it is not there.

        Way is made for what is expected to be large before it is made, so that both are never held at once.
        """
        room, place = self._room, (id(self), key)
        with room.lock:
            if (found := room.find(place)) is not None:
                return found[0]  # type: ignore[no-any-return]
            making = self._making.setdefault(key, threading.Lock())
        with making:
            with room.lock:
                if (found := room.find(place)) is not None:
                    return found[0]  # type: ignore[no-any-return]
                room.make_way(expected)
            try:
                value = make()
            finally:
                with room.lock:
                    self._making.pop(key, None)
            with room.lock:
                room.put(place, value)
            return value
