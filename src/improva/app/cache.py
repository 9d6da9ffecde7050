"""Results of costly functions in memory, up to a number of bytes; the least recently used are removed first."""

from __future__ import annotations

import threading
from collections.abc import Callable, Hashable
from dataclasses import fields, is_dataclass
from typing import Any, Generic, TypeVar

import numpy as np
import pyvips
from cachetools import LRUCache

T = TypeVar("T")
MB = 1_000_000


def size_of(value: object) -> int:
    """Return the bytes of the arrays, images and byte strings in a value; a shared one counts once."""
    return _size(value, set())


def _size(value: object, counted: set[int]) -> int:
    if isinstance(value, np.ndarray | pyvips.Image | bytes):
        if id(value) in counted:
            return 0
        counted.add(id(value))
    if isinstance(value, np.ndarray):
        return value.nbytes
    if isinstance(value, pyvips.Image):
        return int(value.width * value.height * value.bands)
    if isinstance(value, bytes):
        return len(value)
    if isinstance(value, dict):
        return sum(_size(each, counted) for each in value.values())
    if isinstance(value, tuple):
        return sum(_size(each, counted) for each in value)
    if is_dataclass(value):
        return sum(_size(getattr(value, field.name), counted) for field in fields(value))
    return 0


class SizedLru:
    """Storage for the results of one or more :class:`Memo`, up to a total size.

    Args:
        capacity: the largest total size, in the unit of ``size_of``.
        size_of: size of a value; without one each value counts 1. A value larger than the capacity is stored alone.
    """

    def __init__(self, capacity: int, size_of: Callable[[Any], int] = lambda _: 1) -> None:
        self.capacity = capacity
        self.changed = threading.Condition()
        """Guards the entries and the keys that are being made; it is notified whenever a result has come or failed."""
        self.entries: LRUCache[Hashable, Any] = LRUCache(capacity, getsizeof=lambda value: min(size_of(value), capacity))
        self.pending: set[Hashable] = set()

    def clear(self) -> None:
        """Remove every value."""
        with self.changed:
            self.entries.clear()

    def reserve(self, size: int) -> None:
        """Remove the least recently used values until ``size`` more fits. The caller holds :attr:`changed`."""
        while self.entries and self.entries.currsize + size > self.capacity:
            self.entries.popitem()

    @property
    def size(self) -> int:
        """Total size of the stored values."""
        return int(self.entries.currsize)


class Memo(Generic[T]):
    """The results of one costly function in a :class:`SizedLru`. Threads that ask for the same key at once wait for one call."""

    def __init__(self, storage: SizedLru) -> None:
        self._storage = storage

    def get(self, key: Hashable, make: Callable[[], T], expected_size: int = 0) -> T:
        """Return the value of ``key``; call ``make`` if it is not stored.

        ``expected_size`` is freed before a large value is made, so that old and new are never held at once. An error of
        ``make`` is raised and not kept; of the threads that waited, the next one calls ``make`` again.
        """
        storage, entry = self._storage, (id(self), key)
        with storage.changed:
            storage.changed.wait_for(lambda: entry not in storage.pending)
            if entry in storage.entries:
                return storage.entries[entry]  # type: ignore[no-any-return]
            storage.pending.add(entry)
            storage.reserve(expected_size)
        try:
            value = make()
        except BaseException:
            self._end(entry)
            raise
        self._end(entry, (value,))
        return value

    def _end(self, entry: Hashable, result: tuple[T] | None = None) -> None:
        """Store a result and release the waiting threads in one step, so that no thread sees neither."""
        with self._storage.changed:
            if result is not None:
                self._storage.entries[entry] = result[0]
            self._storage.pending.discard(entry)
            self._storage.changed.notify_all()
