"""Properties that are computed at their first use and then kept with the object."""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, Self, TypeVar, overload

T = TypeVar("T")
Owner = TypeVar("Owner")


class cached_property(Generic[Owner, T]):
    """A property that is computed once for each object.

    Until Python 3.11, that of :mod:`functools` holds one lock for all objects of a class while it computes, so that only one
    thread at a time could run a check (the lock was removed in Python 3.12). Two threads that ask the same object at once may
    both compute the value.
    """

    def __init__(self, compute: Callable[[Owner], T]) -> None:
        self._compute = compute
        self._name = ""
        self.__doc__ = compute.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        """Remember the name under which the value is kept."""
        self._name = name

    @overload
    def __get__(self, instance: None, owner: type) -> Self: ...
    @overload
    def __get__(self, instance: Owner, owner: type) -> T: ...
    def __get__(self, instance: Owner | None, owner: type) -> T | Self:
        """Return the value. It is found in the object's dictionary from then on, so this is called once."""
        if instance is None:
            return self
        value = self._compute(instance)
        instance.__dict__[self._name] = value
        return value
