"""What a worker does: takes a piece of work, does it, and says how far it is."""

from __future__ import annotations

import logging
import os
import socket
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Any

from huey import Huey
from huey.consumer import Consumer

from ..core.errors import ImprovaError, Stopped
from ..core.output import Watch
from .queue import Slips

log = logging.getLogger("improva")

ASKED_EVERY_S = 0.2
"""How often work under way looks whether it should stop."""

BEAT_S = 1.0
"""How often a worker says that it is still there."""


@dataclass(frozen=True)
class Outcome:
    """What came of a piece of work: the keys of its files, and rows of the files it made, for the board's own records."""

    files: list[str]
    made: list[dict[str, Any]] = field(default_factory=list)


Runner = Callable[[dict[str, Any], dict[str, Any], Watch], Outcome]
"""Does what was asked, with the extract of the board's records that came with it."""


class _Slip:
    """A worker's notes on one piece of work, written whenever something changes and at every beat."""

    def __init__(self, slips: Slips, place: str) -> None:
        self._slips, self._place = slips, place
        self._told: dict[str, Any] = {
            "state": "running",
            "share": 0.0,
            "beat": 0,
            "by": f"{socket.gethostname()} {os.getpid()}",
        }
        self._lock = threading.Lock()

    def tell(self, **changed: Any) -> None:
        with self._lock:
            self._told = {**self._told, **changed, "beat": self._told["beat"] + 1}
            self._slips.tell(self._place, self._told)

    @contextmanager
    def beating(self) -> Iterator[None]:
        ended = threading.Event()

        def beat() -> None:
            while not ended.wait(BEAT_S):
                self.tell()

        thread = threading.Thread(target=beat, daemon=True)
        thread.start()
        try:
            yield
        finally:
            ended.set()
            thread.join()


def _watch(slips: Slips, place: str, slip: _Slip) -> Watch:
    asked_at, stop = 0.0, False

    def stopped() -> bool:
        nonlocal asked_at, stop
        now = time.monotonic()
        if not stop and now - asked_at >= ASKED_EVERY_S:
            asked_at, stop = now, slips.should_stop(place)
        return stop

    return Watch(lambda share: slip.tell(share=share), stopped)


def takes(queue: Huey, runners: dict[str, Runner] | None) -> Callable[[str, str, dict[str, Any], dict[str, Any]], Any]:
    """The task of a queue; called, it queues a piece of work. Without runners nobody takes it up here."""
    slips = Slips(queue)

    def take(place: str, kind: str, asked: dict[str, Any], extract: dict[str, Any]) -> None:
        assert runners is not None, "a board without workers of its own runs no consumer"
        if not slips.claim(place):
            return
        slip = _Slip(slips, place)
        if slips.should_stop(place):  # while it waited
            slip.tell(state="stopped")
            return
        slip.tell()
        with slip.beating():
            ended = _do(runners[kind], asked, extract, _watch(slips, place, slip))
        slip.tell(**ended)

    return queue.task(name="improva-take")(take)  # type: ignore[no-any-return]


def _do(run: Runner, asked: dict[str, Any], extract: dict[str, Any], watch: Watch) -> dict[str, Any]:
    """Do a piece of work; answers with how it ended."""
    try:
        outcome = run(asked, extract, watch)
    except Stopped:
        return {"state": "stopped"}
    except ImprovaError as problem:
        return {"state": "failed", "problem": str(problem)}
    except Exception as unforeseen:
        log.exception("a job failed", exc_info=unforeseen)
        return {"state": "failed", "problem": "Something went wrong on our side, and nothing was written. Try again."}
    return {"state": "done", "share": 1.0, "files": outcome.files, "made": outcome.made}


class Workers(Consumer):  # type: ignore[misc]  # Huey carries no types
    """Workers within this process, which keeps its own handling of signals."""

    def __init__(self, queue: Huey, workers: int = 1) -> None:
        logging.getLogger("huey").setLevel(logging.WARNING)
        super().__init__(queue, workers=workers, periodic=False, initial_delay=0.05, max_delay=0.2, backoff=1.5)

    def _set_signal_handlers(self) -> None:
        pass
