"""Files that can be made again: kept between starts up to a total size, and left out of backups."""

from __future__ import annotations

import os
import shutil
from contextlib import suppress
from pathlib import Path

from ..core.errors import OutputError
from ..io.atomic import atomic_write, sweep

CAPACITY = 1_000_000_000
"""Bytes that are kept: the proxies of some 300 photographs, or of 1000 drawings."""

LEAST_FREE = 500_000_000
"""Bytes that must be free on the disk: the last room is for what cannot be made again."""


class CacheFolder:
    """A folder of files under keys; those that were not used for longest are removed first.

    Args:
        folder: made when it is first written to.
        capacity: most bytes that :meth:`trim` leaves.
    """

    def __init__(self, folder: Path, capacity: int = CAPACITY) -> None:
        self._folder, self._capacity = folder, capacity

    def read(self, name: str) -> bytes | None:
        """Return the bytes kept under a name, or None."""
        path = self._folder / name
        try:
            data = path.read_bytes()
        except OSError:
            return None
        with suppress(OSError):  # a folder that is only read keeps its order
            os.utime(path)
        return data

    def keep(self, name: str, data: bytes) -> None:
        """Keep bytes under a name; nothing is kept where little room is left on the disk."""
        with suppress(OutputError, OSError):
            if shutil.disk_usage(self._folder.parent).free < LEAST_FREE:
                return
            self._folder.mkdir(exist_ok=True)
            atomic_write(self._folder / name, data)

    def trim(self) -> None:
        """Remove unfinished files, and the files that were not used for longest until the rest is within the capacity."""
        sweep(self._folder)
        files = [(path.stat(), path) for path in self._folder.glob("[!.]*")]
        excess = sum(each.st_size for each, _ in files) - self._capacity
        for each, path in sorted(files, key=lambda file: file[0].st_mtime):
            if excess <= 0:
                break
            path.unlink(missing_ok=True)
            excess -= each.st_size
