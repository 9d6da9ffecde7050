"""The job queue and the signals between dispatcher and workers: Huey, on SQLite or on Redis."""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

from huey import Huey, RedisHuey, SqliteHuey
from huey.constants import EmptyData
from huey.registry import Message
from huey.serializer import Serializer

from ..core.errors import ImprovaError

QUEUE_URL = "IMPROVA_QUEUE"
"""Environment variable that names the queue: ``redis://host:port/number``. Without it each board has its own, on SQLite."""


class QueueError(ImprovaError):
    """The queue cannot be reached, or its URL is wrong."""


class PlainSerializer(Serializer):  # type: ignore[misc]  # Huey carries no types
    """Messages as JSON. Unlike a pickle, a message from a stranger cannot run code."""

    def _serialize(self, data: Any) -> bytes:
        return json.dumps(data, separators=(",", ":")).encode()

    def _deserialize(self, data: bytes) -> Message:
        return Message(*json.loads(data))


def queue_url() -> str | None:
    """Return the URL of the configured queue, or None."""
    return os.environ.get(QUEUE_URL)


def open_queue(url: str | None, folder: Path) -> Huey:
    """Open the queue of a URL, or without one that of a data folder. Raises :class:`QueueError`."""
    if url is None:
        return SqliteHuey("improva", filename=str(folder / "queue.sqlite"), results=False, serializer=PlainSerializer())
    if not url.startswith(("redis://", "rediss://", "unix://")):
        raise QueueError(f"{QUEUE_URL} is '{url}', which is no queue: write for example redis://127.0.0.1:6379/0.")
    queue = RedisHuey("improva", url=url, results=False, serializer=PlainSerializer())
    try:
        queue.storage.queue_size()
    except Exception as unreachable:
        raise QueueError(f"There is no answer from the queue at {url}: start it, or correct {QUEUE_URL}.") from unreachable
    return queue


class JobSignals:
    """Signals between dispatcher and workers, by job: who runs it, its progress, and whether it should stop."""

    def __init__(self, queue: Huey) -> None:
        self._storage = queue.storage

    def claim(self, place: str) -> bool:
        """Claim a job; False where another worker has claimed it."""
        return bool(self._storage.put_if_empty(f"claim {place}", b"1"))

    def claimed(self, place: str) -> bool:
        """Return whether a worker has taken the job."""
        return bool(self._storage.has_data_for_key(f"claim {place}"))

    def tell(self, place: str, report: dict[str, Any]) -> None:
        """Report a job's progress."""
        self._storage.put_data(f"told {place}", json.dumps(report).encode())

    def newest_report(self, place: str) -> dict[str, Any] | None:
        """Return the last report, or None."""
        message = self._storage.peek_data(f"told {place}")
        return None if message is EmptyData else dict(json.loads(message))

    def ask_to_stop(self, place: str) -> None:
        """Ask the worker of a job to stop."""
        self._storage.put_data(f"stop {place}", b"1")

    def should_stop(self, place: str) -> bool:
        """Return whether the job was asked to stop."""
        return bool(self._storage.has_data_for_key(f"stop {place}"))

    def waiting(self) -> bool:
        """Return whether any job waits in the queue."""
        return bool(self._storage.queue_size())

    def forget(self, place: str) -> None:
        """Remove all signals of a job."""
        for kind in ("told", "stop", "claim"):
            self._storage.pop_data(f"{kind} {place}")
