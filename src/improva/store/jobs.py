"""Jobs: their parameters, progress and results."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal

from .database import Database

JobState = Literal["queued", "running", "done", "failed", "stopped"]
ENDED: tuple[JobState, ...] = ("done", "failed", "stopped")


_QUEUE_AGAIN = "UPDATE job SET state = 'queued', share = 0, lost = lost + 1"


@dataclass(frozen=True)
class JobRow:
    """A job.

    Attributes:
        share: the part that is done, 0…1.
        files: keys of its results.
        attempt: how often it was handed out.
        lost: how often the process that did it ended before the job.
    """

    id: int
    kind: str
    parameters: dict[str, Any]
    title: str
    artwork_id: int | None
    template_id: str | None
    state: JobState
    stopping: bool
    share: float
    problem: str | None
    files: list[str]
    attempt: int = 0
    batch_id: int | None = None
    lost: int = 0


def job_row(row: sqlite3.Row) -> JobRow:
    """Return a job as it is stored."""
    return JobRow(
        row["id"],
        row["kind"],
        json.loads(row["parameters"]),
        row["title"],
        row["artwork_id"],
        row["template_id"],
        row["state"],
        bool(row["stopping"]),
        row["share"],
        row["problem"],
        json.loads(row["files"]),
        row["attempt"],
        row["batch_id"],
        row["lost"],
    )


class JobTable:
    """The jobs of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(
        self, kind: str, parameters: dict[str, Any], title: str, artwork_id: int | None = None, template_id: str | None = None
    ) -> tuple[JobRow, bool]:
        """Return a new job and True, or the unended job with the same parameters and False."""
        text = json.dumps(parameters, sort_keys=True)
        with self._database.writing() as connection:
            same = connection.execute(
                "SELECT * FROM job WHERE kind = ? AND parameters = ? AND state IN ('queued', 'running') AND NOT stopping",
                (kind, text),
            ).fetchone()
            if same:
                return job_row(same), False
            cursor = connection.execute(
                "INSERT INTO job (kind, parameters, title, artwork_id, template_id) VALUES (?, ?, ?, ?, ?) RETURNING *",
                (kind, text, title, artwork_id, template_id),
            ).fetchone()
            return job_row(cursor), True

    def get(self, job_id: int) -> JobRow | None:
        """Return a job, or None."""
        row = self._database.connection.execute("SELECT * FROM job WHERE id = ?", (job_id,)).fetchone()
        return job_row(row) if row else None

    def of_pair(self, artwork_id: int, template_id: str, most: int = 12) -> list[JobRow]:
        """Return the newest jobs of a pair, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM job WHERE artwork_id = ? AND template_id = ? ORDER BY id DESC LIMIT ?",
            (artwork_id, template_id, most),
        )
        return [job_row(row) for row in rows]

    def waiting(self, most: int = -1, without: Sequence[int] = ()) -> list[JobRow]:
        """Return the jobs that have not started, without some: single jobs before those of batches, in order."""
        marks = ",".join("?" * len(without))
        rows = self._database.connection.execute(
            f"SELECT * FROM job WHERE state = 'queued' AND NOT stopping AND id NOT IN ({marks}) "
            "AND NOT EXISTS (SELECT 1 FROM batch WHERE batch.id = job.batch_id AND batch.paused) "
            "ORDER BY batch_id IS NOT NULL, id LIMIT ?",
            (*without, most),
        )
        return [job_row(row) for row in rows]

    def handed_out(self) -> list[JobRow]:
        """Return unended jobs that were handed out at least once."""
        rows = self._database.connection.execute("SELECT * FROM job WHERE state IN ('queued', 'running') AND attempt > 0")
        return [job_row(row) for row in rows]

    def hand_out(self, job_id: int) -> int | None:
        """Count one more attempt at a waiting job and return its number; None if it was stopped."""
        with self._database.writing() as connection:
            row = connection.execute(
                "UPDATE job SET attempt = attempt + 1 WHERE id = ? AND state = 'queued' AND NOT stopping RETURNING attempt",
                (job_id,),
            ).fetchone()
        return int(row[0]) if row else None

    def give_back(self, job_id: int) -> None:
        """Queue a job again whose worker was lost."""
        with self._database.writing() as connection:
            connection.execute("UPDATE job SET state = 'stopped' WHERE id = ? AND state = 'running' AND stopping", (job_id,))
            connection.execute(f"{_QUEUE_AGAIN} WHERE id = ? AND state = 'running'", (job_id,))

    def take_up(self, job_id: int) -> None:
        """Note that a worker has taken a job."""
        self._database.connection.execute("UPDATE job SET state = 'running' WHERE id = ? AND state = 'queued'", (job_id,))

    def tell(self, job_id: int, share: float) -> None:
        """Store a job's progress."""
        self._database.connection.execute(
            "UPDATE job SET state = 'running', share = ? WHERE id = ? AND state IN ('queued', 'running')", (share, job_id)
        )

    def stop(self, job_id: int) -> None:
        """Ask a job to stop; a waiting one ends at once."""
        with self._database.writing() as connection:
            connection.execute("UPDATE job SET stopping = 1 WHERE id = ? AND state IN ('queued', 'running')", (job_id,))
            connection.execute("UPDATE job SET state = 'stopped' WHERE id = ? AND state = 'queued'", (job_id,))

    def stopping(self, job_id: int) -> bool:
        """Return whether a job was asked to stop."""
        row = self._database.connection.execute("SELECT stopping FROM job WHERE id = ?", (job_id,)).fetchone()
        return bool(row and row[0])

    def end(self, job_id: int, state: JobState, files: list[str] | None = None, problem: str | None = None) -> None:
        """Store how a job ended."""
        self._database.connection.execute(
            "UPDATE job SET state = ?, files = ?, problem = ?, share = CASE ? WHEN 'done' THEN 1 ELSE share END, "
            "ended_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ? AND state IN ('queued', 'running')",
            (state, json.dumps(files or []), problem, state, job_id),
        )

    def unended(self) -> list[int]:
        """Queue the jobs again that an earlier run left unfinished, and return them."""
        with self._database.writing() as connection:
            connection.execute("UPDATE job SET state = 'stopped' WHERE state = 'running' AND stopping")
            connection.execute(f"{_QUEUE_AGAIN} WHERE state = 'running'")
            return [row[0] for row in connection.execute("SELECT id FROM job WHERE state = 'queued' ORDER BY id")]
