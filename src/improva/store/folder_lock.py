"""One server a data folder: two would both do its jobs."""

from __future__ import annotations

import fcntl
import json
import os
import platform
from datetime import datetime
from pathlib import Path

from ..core.errors import ImprovaError
from .database import cannot_use

FILE = "server.lock"


class FolderInUseError(ImprovaError):
    """Another server has the data folder."""


class FolderLock:
    """The lock of a data folder, held until the process ends. The system releases it also when the process is killed (flock(2))."""

    def __init__(self, folder: Path, address: str) -> None:
        """Take the lock, and note who has it.

        Raises:
            FolderInUseError: another process has it; the sentence says which.
            DataFolderError: the folder cannot be written.
        """
        try:
            folder.mkdir(parents=True, exist_ok=True)
            self._file = (folder / FILE).open("a+", encoding="utf-8")
        except OSError as problem:
            raise cannot_use(folder, problem) from problem
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            self._file.seek(0)
            holder = _who(self._file.read())
            self._file.close()
            raise FolderInUseError(f"'{folder}' is served already{holder}: stop that server, or name another folder.") from None
        note = {"address": address, "process": os.getpid(), "machine": platform.node()}
        self._file.truncate(0)
        self._file.write(json.dumps({**note, "since": datetime.now().astimezone().isoformat(timespec="minutes")}))
        self._file.flush()

    def release(self) -> None:
        """Release the lock."""
        self._file.close()


def _who(text: str) -> str:
    try:
        note = json.loads(text)
        return f" at {note['address']} (process {note['process']} on {note['machine']}, since {note['since']})"
    except (ValueError, KeyError, TypeError):
        return ""
