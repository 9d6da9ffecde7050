"""Child processes kept ready, each for one file."""

from __future__ import annotations

import json
import multiprocessing
import os
import signal
import tempfile
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerProcess
from typing import Any, Protocol

from ..core.errors import ImprovaError
from .limits import MB, MEMORY, TIME, LimitError, Limits
from .task import Reply, Task, error_of, work

CHILDREN = 2
"""Files read at a time. Each may take 1 GB of memory and a processor."""

FILES_EACH = 100
"""Files after which a process is replaced, with whatever memory its libraries have kept."""

HEAD_BYTES = 64 * MB
"""Most bytes of a reply's values."""


LONGEST_TEMPORARY = 75
"""Longest name of the temporary folder in bytes: the address of a Unix socket in it has 108 at most (unix(7))."""


class SandboxError(ImprovaError):
    """Child processes cannot be started here."""


class Reader(Protocol):
    """Runs tasks on foreign files."""

    def read(self, task: Task, data: bytes, *arguments: Any) -> Reply:
        """Run a task on a file. Raises what the task raises, and :class:`LimitError`."""


class Here:
    """Reads files in this process, without limits: for the command line, whose user chose the file."""

    def read(self, task: Task, data: bytes, *arguments: Any) -> Reply:
        """Run a task on a file. Raises what the task raises."""
        return task(data, *arguments)


@dataclass
class _Child:
    """A child process, the connection to it, and how many files it has read."""

    process: ForkServerProcess
    connection: Connection
    files: int = 0

    def end(self) -> None:
        self.connection.close()
        self.process.kill()
        self.process.join()
        self.process.close()


class Sandbox:
    """Reads files in child processes, which are killed when they exceed their limits.

    The processes are forked from one that has loaded ``modules``, and wait for files, so that an ordinary one is read at once.

    Args:
        modules: modules that tasks need, by name.
        warm_up: called in each new process before its first file; a function of a module.

    Raises:
        SandboxError: the name of the temporary folder is too long for the sockets that reach the processes.
    """

    def __init__(self, modules: tuple[str, ...] = (), warm_up: Callable[[], object] = int) -> None:
        if len(os.fsencode(tempfile.gettempdir())) > LONGEST_TEMPORARY:
            raise SandboxError(
                f"The name of the temporary folder '{tempfile.gettempdir()}' is too long: set TMPDIR to one with at most "
                f"{LONGEST_TEMPORARY} characters."
            )
        self._context = multiprocessing.get_context("forkserver")
        self._context.set_forkserver_preload(list(modules))
        self._warm_up = warm_up
        self._slots = threading.Semaphore(CHILDREN)
        self._lock = threading.Lock()
        self._waiting: list[_Child] = []
        self._maker = ThreadPoolExecutor(max_workers=1, thread_name_prefix="sandbox")

    def warm(self) -> None:
        """Start the processes that wait for files."""
        for _ in range(CHILDREN):
            self._maker.submit(self._refill)

    def _replace(self, child: _Child) -> None:
        """End a process, and start another in its place."""
        child.end()
        self._maker.submit(self._refill)

    def _refill(self) -> None:
        """Start a process that waits, where one is missing."""
        if len(self._waiting) < CHILDREN:
            self._keep(self._start())

    def _start(self) -> _Child:
        ours, theirs = self._context.Pipe()
        process = self._context.Process(target=work, args=(theirs, self._warm_up), daemon=True)
        process.start()
        theirs.close()
        return _Child(process, ours)

    def _keep(self, child: _Child) -> None:
        with self._lock:
            if len(self._waiting) < CHILDREN:
                self._waiting.append(child)
                return
        child.end()

    def _take(self) -> _Child:
        with self._lock:
            while self._waiting:
                child = self._waiting.pop()
                if child.process.is_alive():
                    return child
                child.end()
        return self._start()

    def read(self, task: Task, data: bytes, *arguments: Any) -> Reply:
        """Run a task on a file.

        Raises:
            ImprovaError: what the task raises.
            LimitError: the file takes more memory, time or output than the task's limits.
        """
        with self._slots:
            child = self._take()
            try:
                reply = _ask(child.connection, task, data, arguments)
            except _EndedError:
                child.process.join(1)
                problem = _exceeded(child.process.exitcode, task.limits)
                self._replace(child)
                raise problem from None
            except BaseException:
                self._replace(child)
                raise
        child.files += 1
        if child.files < FILES_EACH:
            self._keep(child)
        else:
            self._replace(child)
        if isinstance(reply, ImprovaError):
            raise reply
        return reply

    def close(self) -> None:
        """End the waiting processes."""
        self._maker.shutdown()
        with self._lock:
            for child in self._waiting:
                child.end()
            self._waiting.clear()


class _EndedError(Exception):
    """The child process has ended without an answer, or ran out of memory."""


def _ask(connection: Connection, task: Task, data: bytes, arguments: tuple[Any, ...]) -> Reply | ImprovaError:
    """Send a file and wait for the reply: what the task found, or its error."""
    limits = task.limits
    try:
        connection.send((task, arguments))
        connection.send_bytes(data)
        if not connection.poll(limits.wall_s):
            raise LimitError(TIME.format(round(limits.wall_s)))
        head = json.loads(connection.recv_bytes(HEAD_BYTES))
        if "error" not in head:
            return Reply(head["values"], [connection.recv_bytes(limits.output_mb * MB) for _ in range(head["blobs"])])
    except (OSError, EOFError):
        raise _EndedError from None
    if head["error"] == "MemoryError":
        raise _EndedError
    return error_of(head["error"], head["message"])


def _exceeded(exit_code: int | None, limits: Limits) -> ImprovaError:
    """Return the error for a child process that ended without an answer, by its exit code."""
    if exit_code == -signal.SIGXCPU:
        return LimitError(TIME.format(limits.cpu_s))
    return LimitError(MEMORY.format(limits.memory_mb))
