"""Long work done beside the answering of requests: queued by Huey on SQLite, followed, stopped, taken up again."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from typing import Any

from huey import SqliteHuey
from huey.consumer import Consumer

from ..core.errors import ImprovaError, Stopped
from ..core.output import Watch
from ..store import Database, JobRow, JobTable

log = logging.getLogger("improva")
Runner = Callable[[dict[str, Any], Watch], list[str]]
"""Does a job as it was asked, and answers with the keys of the files it made."""

ASKED_EVERY_S = 0.2
"""How often a running job looks whether it should stop."""


class _Workers(Consumer):  # type: ignore[misc]  # Huey carries no types
    """Workers within this process, which keeps its own handling of signals."""

    def _set_signal_handlers(self) -> None:
        pass


class Jobs:
    """The jobs of one data folder. Workers start with the first job."""

    def __init__(self, database: Database, runners: dict[str, Runner]) -> None:
        self.table = JobTable(database)
        self._runners = runners
        self._database = database
        self._lock = threading.Lock()
        self._workers: _Workers | None = None
        self._take: Callable[[int], Any] | None = None

    def start(self, kind: str, asked: dict[str, Any], title: str, artwork_id: int | None = None, template_id: str | None = None
              ) -> JobRow:  # fmt: skip
        """Queue a job. One that is asked the same and has not ended is answered in its place."""
        assert kind in self._runners, f"nobody does '{kind}'"
        row, new = self.table.add(kind, asked, title, artwork_id, template_id)
        if new:
            self._queue(row.id)
        return row

    def take_up(self) -> int:
        """Queue what an earlier run of the program left unfinished; answers how many."""
        self._database.sweep()
        left = self.table.unended()
        for job_id in left:
            self._queue(job_id)
        return len(left)

    def _queue(self, job_id: int) -> None:
        with self._lock:
            if self._take is None:
                logging.getLogger("huey").setLevel(logging.WARNING)
                queue = SqliteHuey("improva", filename=str(self._database.folder / "queue.sqlite"), results=False)
                self._take = queue.task(name="take")(self.run)
                queue.flush()  # what is unfinished is known by the table, and queued anew
                self._workers = _Workers(queue, workers=1, periodic=False, initial_delay=0.05, max_delay=0.2, backoff=1.5)
                self._workers.start()
            take = self._take
        take(job_id)

    def close(self) -> None:
        """Let the workers end after what they are at."""
        if self._workers is not None:
            self._workers.stop()

    def run(self, job_id: int) -> None:
        """Do a queued job, and keep how it ended."""
        row = self.table.claim(job_id)
        if row is None:
            return
        asked_at, stop = 0.0, False

        def stopped() -> bool:
            nonlocal asked_at, stop
            now = time.monotonic()
            if not stop and now - asked_at >= ASKED_EVERY_S:
                asked_at, stop = now, self.table.stopping(job_id)
            return stop

        try:
            files = self._runners[row.kind](row.asked, Watch(lambda share: self.table.tell(job_id, share), stopped))
        except Stopped:
            self.table.end(job_id, "stopped")
        except ImprovaError as problem:
            self.table.end(job_id, "failed", problem=str(problem))
        except Exception as unforeseen:
            log.exception("a job failed", exc_info=unforeseen)
            self.table.end(job_id, "failed", problem="Something went wrong on our side, and nothing was written. Try again.")
        else:
            self.table.end(job_id, "done", files)
