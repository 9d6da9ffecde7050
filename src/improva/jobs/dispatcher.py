"""The job dispatcher: queues jobs, follows their progress, stops them, and queues them again if a worker is lost."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from ..store import Database, JobRow, JobTable, MadeFiles
from .queue import JobSignals, open_queue
from .worker import JobHandler, Workers, register_task

log = logging.getLogger("improva")
SIGNAL_CHECK_S = 0.1
LEASE_S = 20.0
"""Seconds without a signal after which a worker counts as lost, and its job is queued again."""

MOST_LOST = 3
"""Times that a job may end the process that does it."""

GIVEN_UP = (
    f"It was begun {MOST_LOST} times, and each time the program ended before it was done. It is not begun again by itself: "
    "start it once more, or leave out what is in it."
)

HANDED_OUT, HANDED_OUT_HERE = 16, 2
"""Most jobs handed out at a time, to other machines and to this one: enough to keep workers busy, few enough that a pause takes effect soon."""

SnapshotTaker = Callable[[str, dict[str, Any]], dict[str, Any]]
"""Takes the snapshot of the records that a worker needs for a kind of job."""


@dataclass
class _Out:
    """A job that is queued or running: its place, its last signal, and when that came."""

    place: str
    beat: int
    heard_at: float
    stop_requested: bool = False


class JobDispatcher:
    """The jobs of one data folder. With the queue of the folder itself, workers start here with the first job.

    ``url`` names a queue that workers on other machines take from; ``lease_s`` is how long one may be silent.
    """

    def __init__(
        self,
        database: Database,
        handlers: dict[str, JobHandler],
        take_snapshot: SnapshotTaker = lambda kind, parameters: {},
        url: str | None = None,
        lease_s: float = LEASE_S,
    ) -> None:
        self.table = JobTable(database)
        self._database, self._handlers, self._take_snapshot = database, handlers, take_snapshot
        self._url, self.lease_s = url, lease_s
        self._made = MadeFiles(database)
        self._out: dict[int, _Out] = {}
        self._lock = threading.Lock()
        self._work_there = threading.Event()
        self._ended = threading.Event()
        self._threads: tuple[threading.Thread, Workers | None] | None = None

    def start(
        self, kind: str, parameters: dict[str, Any], title: str, artwork_id: int | None = None, template_id: str | None = None
    ) -> JobRow:
        """Queue a job. If the same job has not ended yet, return that one."""
        assert kind in self._handlers, f"nobody does '{kind}'"
        row, _ = self.table.add(kind, parameters, title, artwork_id, template_id)
        self.wake()
        return row

    def take_up(self) -> int:
        """Resume the jobs that an earlier run left unfinished, and return their number.

        Workers on other machines may still be doing some of them, so their signals are awaited as usual.
        """
        self._database.sweep()
        if self._url is None:
            self._note_claimed()
            left = self.table.unended()
        else:
            resumed = [(row, self._place(row.id, row.attempt)) for row in self.table.handed_out()]
            self._out = {row.id: _Out(place, 0, time.monotonic()) for row, place in resumed}
            left = [row.id for row in self.table.waiting()]
        if left or self._out:
            self.wake()
        return len({*left, *self._out})

    def _note_claimed(self) -> None:
        """Mark jobs as running that an earlier process of this folder had begun, also where it ended too soon to say so."""
        rows = [row for row in self.table.handed_out() if row.state == "queued"]
        if rows:
            signals = JobSignals(open_queue(self._url, self._database.folder))
            for row in rows:
                if signals.claimed(self._place(row.id, row.attempt)):
                    self.table.take_up(row.id)

    def wake(self) -> None:
        """Wake the dispatcher, because a job was added."""
        with self._lock:
            if self._threads is None:
                queue = open_queue(self._url, self._database.folder)
                own = self._url is None
                self._signals, self._hand = JobSignals(queue), register_task(queue, self._handlers if own else None)
                if own:
                    queue.flush()  # unfinished jobs are in the table and are handed out again
                workers = Workers(queue) if own else None
                if workers:
                    workers.start()
                thread = threading.Thread(target=self._follow, daemon=True)
                self._threads = thread, workers
                thread.start()
        self._work_there.set()

    def close(self) -> None:
        """Stop the workers after their current jobs."""
        self._ended.set()
        self._work_there.set()
        if self._threads is not None:
            thread, workers = self._threads
            thread.join()
            if workers is not None:
                workers.stop()

    def _follow(self) -> None:
        """Hand out jobs and read their signals until none is left."""
        while not self._ended.is_set():
            self._work_there.wait()
            try:
                self._hear()
                self._hand_out()
                if not self._out and not self.table.waiting(1):
                    self._work_there.clear()
                    if self.table.waiting(1):  # a signal that arrived in the meantime
                        self._work_there.set()
                    continue
            except Exception as unforeseen:  # the queue is unreachable for a while: its work is handed out again
                log.exception("the queue cannot be followed", exc_info=unforeseen)
                self._ended.wait(2)
            self._ended.wait(SIGNAL_CHECK_S)

    def _hand_out(self) -> None:
        most = HANDED_OUT_HERE if self._url is None else HANDED_OUT
        for row in self.table.waiting(max(0, most - len(self._out)), without=list(self._out)):
            self._give(row)

    def _give(self, row: JobRow) -> None:
        if row.lost >= MOST_LOST:
            self.table.end(row.id, "failed", problem=GIVEN_UP)
            return
        try:
            snapshot = self._take_snapshot(row.kind, row.parameters)
        except Exception as unforeseen:
            log.exception("a job cannot be handed out", exc_info=unforeseen)
            self.table.end(row.id, "failed", problem=f"It cannot be begun: {unforeseen}")
            return
        attempt = self.table.hand_out(row.id)
        if attempt is None:  # stopped in the meantime
            return
        out = self._out[row.id] = _Out(self._place(row.id, attempt), 0, time.monotonic())
        self._hand(out.place, row.kind, row.parameters, snapshot)

    def _place(self, job_id: int, attempt: int) -> str:
        """Return the key under which dispatcher and worker exchange signals on one attempt at a job."""
        return f"{self._board} {job_id} {attempt}"

    @property
    def _board(self) -> str:
        """Return an id that separates this data folder's jobs from others on the same queue."""
        known = self._database.setting("board")
        if known is None:
            known = uuid4().hex[:12]
            self._database.keep_setting("board", known)
        return str(known)

    def _hear(self) -> None:
        for job_id, out in list(self._out.items()):
            report = self._signals.newest_report(out.place)
            now = time.monotonic()
            if report is not None and report["beat"] != out.beat:
                out.beat, out.heard_at = report["beat"], now
                if report["state"] != "running":
                    self._end(job_id, out, report)
                    continue
                self.table.tell(job_id, report["share"])
            if self.table.stopping(job_id) and not out.stop_requested:
                out.stop_requested = True
                self._signals.ask_to_stop(out.place)
            # a job that no worker has taken is lost only if it is not in the queue either
            if now - out.heard_at > self.lease_s and (out.beat or not self._signals.waiting()):
                log.warning("job %d: nothing heard of its worker, given anew", job_id)
                self._signals.forget(out.place)
                del self._out[job_id]
                self.table.give_back(job_id)

    def _end(self, job_id: int, out: _Out, report: dict[str, Any]) -> None:
        for row in report.get("made", ()):
            self._made.note(row)
        if report["state"] == "stopped" and not self.table.stopping(job_id):  # it was requested again in the meantime
            self.table.give_back(job_id)
        else:
            self.table.end(job_id, report["state"], report.get("files"), report.get("problem"))
        self._signals.forget(out.place)
        del self._out[job_id]
