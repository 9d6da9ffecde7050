"""Batches: many jobs started together, which can be paused, resumed and stopped."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from .database import Database

FILE_NAMES = "file_names"


@dataclass(frozen=True)
class NewJob:
    """A job of a new batch."""

    kind: str
    parameters: dict[str, Any]
    title: str
    artwork_id: int
    template_id: str


@dataclass(frozen=True)
class BatchRow:
    """A batch: the number of its jobs, how many ended and how, and the part that is done, 0…1."""

    id: int
    kind: str
    title: str
    paused: bool
    jobs: int
    done: int
    failed: int
    stopped: int
    share: float

    @property
    def under_way(self) -> bool:
        """Return whether any job has not ended."""
        return self.done + self.failed + self.stopped < self.jobs


_SELECT = (
    "SELECT batch.id, batch.kind, batch.title, paused, count(job.id) AS jobs, sum(state = 'done') AS done, "
    "sum(state = 'failed') AS failed, sum(state = 'stopped') AS stopped, "
    "avg(CASE WHEN state IN ('queued', 'running') THEN share ELSE 1 END) AS share "
    "FROM batch JOIN job ON job.batch_id = batch.id"
)


class Batches:
    """The batches of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, kind: str, title: str, jobs: Iterable[NewJob]) -> int:
        """Store a batch with all its jobs in one transaction, and return its id."""
        with self._database.writing() as connection:
            batch = connection.execute("INSERT INTO batch (kind, title) VALUES (?, ?) RETURNING id", (kind, title)).fetchone()
            connection.executemany(
                "INSERT INTO job (kind, parameters, title, artwork_id, template_id, batch_id) VALUES (?, ?, ?, ?, ?, ?)",
                (
                    (j.kind, json.dumps(j.parameters, sort_keys=True), j.title, j.artwork_id, j.template_id, batch[0])
                    for j in jobs
                ),
            )
        return int(batch[0])

    def _rows(self, where: str, *values: Any) -> list[BatchRow]:
        rows = self._database.connection.execute(f"{_SELECT} WHERE {where} GROUP BY batch.id ORDER BY batch.id DESC", values)
        return [
            BatchRow(
                row["id"],
                row["kind"],
                row["title"],
                bool(row["paused"]),
                row["jobs"],
                row["done"],
                row["failed"],
                row["stopped"],
                row["share"],
            )
            for row in rows
        ]

    def get(self, batch_id: int) -> BatchRow | None:
        """Return a batch, or None."""
        return next(iter(self._rows("batch.id = ?", batch_id)), None)

    def shown(self) -> list[BatchRow]:
        """Return the batches that were not dismissed, the newest first."""
        return self._rows("NOT dismissed")

    def pause(self, batch_id: int, paused: bool) -> None:
        """Pause jobs that have not started, or resume them."""
        with self._database.writing() as connection:
            connection.execute("UPDATE batch SET paused = ? WHERE id = ?", (paused, batch_id))

    def stop(self, batch_id: int) -> None:
        """Ask all jobs of a batch to stop; waiting ones end at once."""
        with self._database.writing() as connection:
            connection.execute("UPDATE job SET stopping = 1 WHERE batch_id = ? AND state IN ('queued', 'running')", (batch_id,))
            connection.execute("UPDATE job SET state = 'stopped' WHERE batch_id = ? AND state = 'queued'", (batch_id,))

    def again(self, batch_id: int) -> None:
        """Queue failed and stopped jobs again."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE job SET state = 'queued', stopping = 0, share = 0, problem = NULL "
                "WHERE batch_id = ? AND state IN ('failed', 'stopped')",
                (batch_id,),
            )
            connection.execute("UPDATE batch SET paused = 0 WHERE id = ?", (batch_id,))

    def put_away(self, batch_id: int) -> None:
        """Dismiss a batch; its files and records stay."""
        with self._database.writing() as connection:
            connection.execute("UPDATE batch SET dismissed = 1 WHERE id = ?", (batch_id,))

    def problems(self, batch_id: int, most: int = 5) -> list[tuple[str, str]]:
        """Return the first failures: titles and problems."""
        rows = self._database.connection.execute(
            "SELECT title, problem FROM job WHERE batch_id = ? AND state = 'failed' ORDER BY id LIMIT ?", (batch_id, most)
        )
        return [(row[0], row[1]) for row in rows]

    def file_names(self) -> dict[str, str]:
        """Return the patterns for names of files in archives; empty before they are set."""
        return self._database.setting(FILE_NAMES) or {}

    def keep_file_names(self, patterns: dict[str, str]) -> None:
        """Store the patterns for names of files in archives."""
        self._database.keep_setting(FILE_NAMES, patterns)

    def files(self, batch_id: int) -> list[tuple[int, str, str]]:
        """Return artwork, blank and key of every file of a batch, each once, in order."""
        rows = self._database.connection.execute(
            "SELECT DISTINCT artwork_id, template_id, value FROM job, json_each(files) WHERE batch_id = ? ORDER BY job.id",
            (batch_id,),
        )
        return [(row[0], row[1], row[2]) for row in rows]
