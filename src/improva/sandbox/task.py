"""What a child process does: one task on one file, and a reply that is plain data."""

from __future__ import annotations

import json
import logging
from collections.abc import Callable
from dataclasses import dataclass, field
from multiprocessing.connection import Connection
from typing import Any

from ..core import errors
from ..core.errors import ImprovaError
from .limits import MB, ORDINARY, OUTPUT, LimitError, Limits

log = logging.getLogger("improva")


@dataclass(frozen=True)
class Reply:
    """What a task found: JSON values, and bytes such as pixels."""

    values: dict[str, Any] = field(default_factory=dict)
    blobs: list[bytes] = field(default_factory=list)


@dataclass(frozen=True)
class Task:
    """A way to read a file.

    Attributes:
        run: reads the file's bytes; a function of a module, so that another process can find it. Further arguments are JSON
            values.
        broken: the sentence for a file that raises an error nobody has foreseen: it is damaged, or not what it says.
        error: the error that carries the sentence.
        limits: what it may take.
    """

    run: Callable[..., Reply]
    broken: str
    error: type[ImprovaError] = errors.ArtworkError
    limits: Limits = ORDINARY

    def __call__(self, data: bytes, *arguments: Any) -> Reply:
        """Read a file in this process. Raises the errors of :attr:`run`; every other error becomes :attr:`error`."""
        try:
            return self.run(data, *arguments)
        except (ImprovaError, MemoryError):
            raise
        except Exception as unforeseen:  # decoders raise errors of every kind at what they did not expect
            log.info("a file cannot be read", exc_info=unforeseen)
            raise self.error(self.broken) from unforeseen


def work(connection: Connection, warm_up: Callable[[], object]) -> None:
    """Do tasks within their limits and send the replies, until one runs out of memory or the parent hangs up.

    Args:
        connection: to the parent, which sends a task with its arguments, then the file's bytes.
        warm_up: loads what tasks need, before the first one comes.
    """
    warm_up()
    failed = False
    while not failed:
        try:
            task, arguments = connection.recv()
            data = connection.recv_bytes()
        except EOFError:
            return
        task.limits.impose()
        head, blobs = _attempt(task, data, arguments)
        connection.send_bytes(json.dumps(head).encode())
        for blob in blobs:
            connection.send_bytes(blob)
        failed = head.get("error") == "MemoryError"


def _attempt(task: Task, data: bytes, arguments: tuple[Any, ...]) -> tuple[dict[str, Any], list[bytes]]:
    """Return the values and blobs of a task's reply, or its error by name."""
    try:
        reply = task(data, *arguments)
    except MemoryError:
        return {"error": "MemoryError"}, []
    except ImprovaError as problem:
        return {"error": type(problem).__name__, "message": str(problem)}, []
    if sum(len(blob) for blob in reply.blobs) > task.limits.output_mb * MB:
        return {"error": "LimitError", "message": OUTPUT.format(task.limits.output_mb)}, []
    return {"values": reply.values, "blobs": len(reply.blobs)}, reply.blobs


def error_of(name: str, message: str) -> ImprovaError:
    """Return the error that a child process has named."""
    known = LimitError if name == "LimitError" else getattr(errors, name, None)
    kind = known if isinstance(known, type) and issubclass(known, ImprovaError) else ImprovaError
    return kind(message)
