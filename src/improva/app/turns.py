"""Turns for expensive pictures and checks: a few at a time, so that everything else is answered meanwhile."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from .errors import GivenUpError


class Turns:
    """Lets at most ``at_once`` renderings run. Those that wait run in the order in which they came.

    A person looks at one preview at a time: of those that wait for one person, only the newest is rendered.

    Args:
        at_once: most renderings at a time; no more than there are processors, for each uses one.
    """

    def __init__(self, at_once: int = 2) -> None:
        self._free = at_once
        self._changed = threading.Condition()
        self._waiting: list[tuple[object, str]] = []

    @contextmanager
    def turn(self, person: str = "") -> Iterator[None]:
        """Wait for a turn.

        Args:
            person: who looks at the picture, and where; without a name, nothing replaces this request.

        Raises:
            GivenUpError: a newer request of the same person has come while this one waited.
        """
        me = (object(), person)
        with self._changed:
            if person:
                self._waiting = [each for each in self._waiting if each[1] != person]
            self._waiting.append(me)
            self._changed.notify_all()
            self._changed.wait_for(lambda: me not in self._waiting or (self._free > 0 and self._waiting[0] is me))
            if me not in self._waiting:
                raise GivenUpError("A newer preview was asked for.")
            self._waiting.remove(me)
            self._free -= 1
            self._changed.notify_all()
        try:
            yield
        finally:
            with self._changed:
                self._free += 1
                self._changed.notify_all()
