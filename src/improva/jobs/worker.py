"""The worker: takes a job from the queue, runs it, and reports its progress."""

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
from ..core.progress import Progress
from .queue import JobSignals

log = logging.getLogger("improva")

STOP_CHECK_S = 0.2
"""Seconds between two checks of a running job whether it should stop."""

BEAT_S = 1.0
"""Seconds between two heartbeats of a worker."""


@dataclass(frozen=True)
class Outcome:
    """The result of a job: the keys of its files, and the rows of the files that it made."""

    files: list[str]
    made: list[dict[str, Any]] = field(default_factory=list)


JobHandler = Callable[[dict[str, Any], dict[str, Any], Progress], Outcome]
"""Runs a job: its parameters, the snapshot of the records that it needs, and where to report progress."""


class _JobReporter:
    """Reports one job's progress, at every change and at every heartbeat."""

    def __init__(self, signals: JobSignals, place: str) -> None:
        self._signals, self._place = signals, place
        self._report: dict[str, Any] = {
            "state": "running",
            "share": 0.0,
            "beat": 0,
            "by": f"{socket.gethostname()} {os.getpid()}",
        }
        self._lock = threading.Lock()

    def tell(self, **changed: Any) -> None:
        with self._lock:
            self._report = {**self._report, **changed, "beat": self._report["beat"] + 1}
            self._signals.tell(self._place, self._report)

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


def _watch(signals: JobSignals, place: str, reporter: _JobReporter) -> Progress:
    checked_at, stop = 0.0, False

    def stopped() -> bool:
        nonlocal checked_at, stop
        now = time.monotonic()
        if not stop and now - checked_at >= STOP_CHECK_S:
            checked_at, stop = now, signals.should_stop(place)
        return stop

    return Progress(lambda share: reporter.tell(share=share), stopped)


def register_task(
    queue: Huey, handlers: dict[str, JobHandler] | None
) -> Callable[[str, str, dict[str, Any], dict[str, Any]], Any]:
    """Register the task of a queue. A call of it queues a job; without handlers no job runs in this process."""
    signals = JobSignals(queue)

    def take(place: str, kind: str, parameters: dict[str, Any], snapshot: dict[str, Any]) -> None:
        assert handlers is not None, "a board without workers of its own runs no consumer"
        if not signals.claim(place):
            return
        reporter = _JobReporter(signals, place)
        if signals.should_stop(place):  # stopped while it waited
            reporter.tell(state="stopped")
            return
        reporter.tell()
        with reporter.beating():
            ended = _do(handlers[kind], parameters, snapshot, _watch(signals, place, reporter))
        reporter.tell(**ended)

    return queue.task(name="improva-take")(take)  # type: ignore[no-any-return]


def _do(run: JobHandler, parameters: dict[str, Any], snapshot: dict[str, Any], progress: Progress) -> dict[str, Any]:
    """Run a job and return how it ended."""
    try:
        outcome = run(parameters, snapshot, progress)
    except Stopped:
        return {"state": "stopped"}
    except ImprovaError as problem:
        return {"state": "failed", "problem": str(problem)}
    except Exception as unforeseen:
        log.exception("a job failed", exc_info=unforeseen)
        return {"state": "failed", "problem": "Something went wrong on our side, and nothing was written. Try again."}
    return {"state": "done", "share": 1.0, "files": outcome.files, "made": outcome.made}


class Workers(Consumer):  # type: ignore[misc]  # Huey carries no types
    """Workers inside this process, which keeps its own signal handlers."""

    def __init__(self, queue: Huey, workers: int = 1) -> None:
        logging.getLogger("huey").setLevel(logging.WARNING)
        super().__init__(queue, workers=workers, periodic=False, initial_delay=0.05, max_delay=0.2, backoff=1.5)

    def _set_signal_handlers(self) -> None:
        pass
