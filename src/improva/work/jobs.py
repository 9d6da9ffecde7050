"""The board's long work: handed to workers here or on other machines, followed, stopped, and given anew where one is lost."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from ..store import Database, JobRow, JobTable, Made
from .queue import Slips, open_queue
from .working import Runner, Workers, takes

log = logging.getLogger("improva")
LOOKED_EVERY_S = 0.1
LEASE_S = 20.0
"""A worker that has not been heard of for so long is lost, and its work is given to another."""

HANDED_OUT, HANDED_OUT_HERE = 16, 2
"""Pieces of work that are out at a time, on other machines and here: enough that none waits, few enough that a pause is felt."""

Sealer = Callable[[str, dict[str, Any]], dict[str, Any]]
"""Takes the extract of the board's records that a worker needs for a kind of job."""


@dataclass
class _Out:
    """A piece of work that was handed out: where, what was last heard of it, and when."""

    place: str
    beat: int
    heard_at: float
    asked_to_stop: bool = False


class Jobs:
    """The jobs of one data folder. With the queue of the folder itself, workers start here with the first job.

    ``url`` names a queue that workers on other machines take from; ``lease_s`` is how long one may be silent.
    """

    def __init__(self, database: Database, runners: dict[str, Runner], seal: Sealer = lambda kind, asked: {},
                 url: str | None = None, lease_s: float = LEASE_S) -> None:  # fmt: skip
        self.table = JobTable(database)
        self._database, self._runners, self._seal = database, runners, seal
        self._url, self.lease_s = url, lease_s
        self._made = Made(database)
        self._out: dict[int, _Out] = {}
        self._lock = threading.Lock()
        self._work_there = threading.Event()
        self._ended = threading.Event()
        self._threads: tuple[threading.Thread, Workers | None] | None = None

    def start(self, kind: str, asked: dict[str, Any], title: str, artwork_id: int | None = None, template_id: str | None = None
              ) -> JobRow:  # fmt: skip
        """Queue a job. One that is asked the same and has not ended is answered in its place."""
        assert kind in self._runners, f"nobody does '{kind}'"
        row, _ = self.table.add(kind, asked, title, artwork_id, template_id)
        self.wake()
        return row

    def take_up(self) -> int:
        """Go on with what an earlier run of the program left unfinished; answers how many jobs.

        Workers on other machines may be at some of it still: they are listened for, as long as any other.
        """
        self._database.sweep()
        if self._url is None:
            left = self.table.unended()
        else:
            begun = [(row, self._place(row.id, row.attempt)) for row in self.table.handed_out()]
            self._out = {row.id: _Out(place, 0, time.monotonic()) for row, place in begun}
            left = [row.id for row in self.table.waiting()]
        if left or self._out:
            self.wake()
        return len({*left, *self._out})

    def wake(self) -> None:
        """Look for work: there is some."""
        with self._lock:
            if self._threads is None:
                queue = open_queue(self._url, self._database.folder)
                own = self._url is None
                self._slips, self._hand = Slips(queue), takes(queue, self._runners if own else None)
                if own:
                    queue.flush()  # what is unfinished is known by the table, and handed out anew
                workers = Workers(queue) if own else None
                if workers:
                    workers.start()
                thread = threading.Thread(target=self._follow, daemon=True)
                self._threads = thread, workers
                thread.start()
        self._work_there.set()

    def close(self) -> None:
        """Let the workers end after what they are at."""
        self._ended.set()
        self._work_there.set()
        if self._threads is not None:
            thread, workers = self._threads
            thread.join()
            if workers is not None:
                workers.stop()

    def _follow(self) -> None:
        """Hand out work and hear of it, as long as there is any."""
        while not self._ended.is_set():
            self._work_there.wait()
            try:
                self._hear()
                self._hand_out()
                if not self._out and not self.table.waiting(1):
                    self._work_there.clear()
                    if self.table.waiting(1):  # one that came in between
                        self._work_there.set()
                    continue
            except Exception as unforeseen:  # a queue that is gone for a while: its work is handed out anew
                log.exception("the queue cannot be followed", exc_info=unforeseen)
                self._ended.wait(2)
            self._ended.wait(LOOKED_EVERY_S)

    def _hand_out(self) -> None:
        most = HANDED_OUT_HERE if self._url is None else HANDED_OUT
        for row in self.table.waiting(max(0, most - len(self._out)), without=list(self._out)):
            self._give(row)

    def _give(self, row: JobRow) -> None:
        try:
            extract = self._seal(row.kind, row.asked)
        except Exception as unforeseen:
            log.exception("a job cannot be handed out", exc_info=unforeseen)
            self.table.end(row.id, "failed", problem=f"It cannot be begun: {unforeseen}")
            return
        attempt = self.table.hand_out(row.id)
        if attempt is None:  # stopped meanwhile
            return
        out = self._out[row.id] = _Out(self._place(row.id, attempt), 0, time.monotonic())
        self._hand(out.place, row.kind, row.asked, extract)

    def _place(self, job_id: int, attempt: int) -> str:
        """Where workers and board note what concerns one attempt at a job."""
        return f"{self._board} {job_id} {attempt}"

    @property
    def _board(self) -> str:
        """Tells this board's work from that of others on the same queue."""
        known = self._database.setting("board")
        if known is None:
            known = uuid4().hex[:12]
            self._database.keep_setting("board", known)
        return str(known)

    def _hear(self) -> None:
        for job_id, out in list(self._out.items()):
            told = self._slips.told(out.place)
            now = time.monotonic()
            if told is not None and told["beat"] != out.beat:
                out.beat, out.heard_at = told["beat"], now
                if told["state"] != "running":
                    self._end(job_id, out, told)
                    continue
                self.table.tell(job_id, told["share"])
            if self.table.stopping(job_id) and not out.asked_to_stop:
                out.asked_to_stop = True
                self._slips.ask_to_stop(out.place)
            # one that nobody has taken is lost only if it does not wait in the queue either
            if now - out.heard_at > self.lease_s and (out.beat or not self._slips.waiting()):
                log.warning("job %d: nothing heard of its worker, given anew", job_id)
                self._slips.forget(out.place)
                del self._out[job_id]
                self.table.give_back(job_id)

    def _end(self, job_id: int, out: _Out, told: dict[str, Any]) -> None:
        for row in told.get("made", ()):
            self._made.note(row)
        if told["state"] == "stopped" and not self.table.stopping(job_id):  # it is wanted again meanwhile
            self.table.give_back(job_id)
        else:
            self.table.end(job_id, told["state"], told.get("files"), told.get("problem"))
        self._slips.forget(out.place)
        del self._out[job_id]
