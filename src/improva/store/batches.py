"""Many jobs asked for in one go: how far they are together, held back, gone on with, stopped."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from .database import Database


@dataclass(frozen=True)
class NewJob:
    """A job as a batch asks for it."""

    kind: str
    asked: dict[str, Any]
    title: str
    artwork_id: int
    template_id: str


@dataclass(frozen=True)
class BatchRow:
    """A batch: how many of its jobs there are, how many ended and how, and the share that is done of all, 0…1."""

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
        """Whether something of it has not ended."""
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
        """A new batch with all its jobs, or none; answers with its id."""
        with self._database.writing() as connection:
            batch = connection.execute("INSERT INTO batch (kind, title) VALUES (?, ?) RETURNING id", (kind, title)).fetchone()
            connection.executemany(
                "INSERT INTO job (kind, asked, title, artwork_id, template_id, batch_id) VALUES (?, ?, ?, ?, ?, ?)",
                ((j.kind, json.dumps(j.asked, sort_keys=True), j.title, j.artwork_id, j.template_id, batch[0]) for j in jobs),
            )
        return int(batch[0])

    def _rows(self, where: str, *values: Any) -> list[BatchRow]:
        found = self._database.connection.execute(f"{_SELECT} WHERE {where} GROUP BY batch.id ORDER BY batch.id DESC", values)
        return [BatchRow(row["id"], row["kind"], row["title"], bool(row["paused"]), row["jobs"], row["done"], row["failed"],
                         row["stopped"], row["share"]) for row in found]  # fmt: skip

    def get(self, batch_id: int) -> BatchRow | None:
        """A batch, or None."""
        return next(iter(self._rows("batch.id = ?", batch_id)), None)

    def shown(self) -> list[BatchRow]:
        """The batches that were not put away, the newest first."""
        return self._rows("NOT dismissed")

    def pause(self, batch_id: int, paused: bool) -> None:
        """Hold back what has not begun, or go on with it."""
        with self._database.writing() as connection:
            connection.execute("UPDATE batch SET paused = ? WHERE id = ?", (paused, batch_id))

    def stop(self, batch_id: int) -> None:
        """Ask all its jobs to stop; those that wait end at once."""
        with self._database.writing() as connection:
            connection.execute("UPDATE job SET stopping = 1 WHERE batch_id = ? AND state IN ('queued', 'running')", (batch_id,))
            connection.execute("UPDATE job SET state = 'stopped' WHERE batch_id = ? AND state = 'queued'", (batch_id,))

    def again(self, batch_id: int) -> None:
        """Let what failed or was stopped wait anew."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE job SET state = 'queued', stopping = 0, share = 0, problem = NULL "
                "WHERE batch_id = ? AND state IN ('failed', 'stopped')",
                (batch_id,),
            )
            connection.execute("UPDATE batch SET paused = 0 WHERE id = ?", (batch_id,))

    def put_away(self, batch_id: int) -> None:
        """Show it no more; its files and records stay."""
        with self._database.writing() as connection:
            connection.execute("UPDATE batch SET dismissed = 1 WHERE id = ?", (batch_id,))

    def problems(self, batch_id: int, most: int = 5) -> list[tuple[str, str]]:
        """What failed and why, the first few: titles and problems."""
        found = self._database.connection.execute(
            "SELECT title, problem FROM job WHERE batch_id = ? AND state = 'failed' ORDER BY id LIMIT ?", (batch_id, most)
        )
        return [(row[0], row[1]) for row in found]

    def files(self, batch_id: int) -> list[tuple[int, str, str]]:
        """Artwork, blank and key of every file its jobs made, each once, in order."""
        found = self._database.connection.execute(
            "SELECT DISTINCT artwork_id, template_id, value FROM job, json_each(files) WHERE batch_id = ? ORDER BY job.id",
            (batch_id,),
        )
        return [(row[0], row[1], row[2]) for row in found]
