"""Atomic writes: files are written under a temporary name and renamed when complete."""

from __future__ import annotations

import errno
import os
import platform
import shutil
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ..core.errors import OutputError

FULL = (errno.ENOSPC, errno.EDQUOT, errno.EFBIG)


def temporary_prefix(stem: str) -> str:
    """Return the prefix of this process's temporary files: hidden, with machine and process id, for :func:`sweep`."""
    return f".{stem[:40]}~{platform.node()[:40]}~{os.getpid()}~"


def sweep(folder: Path) -> int:
    """Delete temporary files of killed processes of this machine; return how many."""
    swept = 0
    for left in folder.glob(f".*~{platform.node()[:40]}~*~*"):
        pid = left.name.split("~")[2]
        if pid.isdigit() and not _alive(int(pid)):
            shutil.rmtree(left) if left.is_dir() else left.unlink(missing_ok=True)
            swept += 1
    return swept


def _alive(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        pass
    return True


def _what_to_do(problem: OSError) -> str:
    return "make room on the disk and try again" if problem.errno in FULL else "choose another name"


def atomic_write(path: Path, data: bytes, mode: int = 0o644) -> None:
    """Write a whole file under its name with permissions ``mode``, or nothing. Raises :class:`OutputError`."""
    with atomic_path(path, mode) as temporary:
        temporary.write_bytes(data)


@contextmanager
def atomic_path(path: Path, mode: int = 0o644) -> Iterator[Path]:
    """Yield a temporary path in the same folder with the same ending; rename it to ``path`` if the block succeeds.

    Only its owner can read it before; then it has the permissions ``mode``.

    Raises:
        OutputError: the folder is missing or cannot be written.
    """
    try:
        handle, name = tempfile.mkstemp(suffix=path.suffix, prefix=temporary_prefix(path.stem), dir=path.parent)
        os.close(handle)
    except OSError as problem:
        raise OutputError(f"'{path}' cannot be written ({problem.strerror}): choose another folder.") from problem
    temporary = Path(name)
    try:
        yield temporary
        with temporary.open("rb") as written:
            os.fsync(written.fileno())
        temporary.chmod(mode)
        temporary.replace(path)
    except BaseException as problem:
        temporary.unlink(missing_ok=True)
        if isinstance(problem, OSError):
            raise OutputError(f"'{path}' cannot be written ({problem.strerror}): {_what_to_do(problem)}.") from problem
        raise
