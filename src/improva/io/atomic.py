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

from ..core.errors import DiskFullError, OutputError

FULL = (errno.ENOSPC, errno.EDQUOT, errno.EFBIG)


def temporary_prefix(stem: str) -> str:
    """Return the prefix of this process's temporary files: hidden, with machine and process id, for :func:`sweep`."""
    return f".{stem[:40]}~{platform.node()[:40]}~{os.getpid()}~"


@contextmanager
def work_folder(parent: Path, stem: str = "work") -> Iterator[Path]:
    """Yield a folder for unfinished files in ``parent``, which is made where it is missing; the folder is deleted afterwards.

    :func:`sweep` deletes that of a killed process.

    Raises:
        OutputError: the folder cannot be made.
    """
    try:
        parent.mkdir(parents=True, exist_ok=True)
        folder = tempfile.mkdtemp(prefix=temporary_prefix(stem), dir=parent)
    except OSError as problem:
        raise cannot_write(parent, problem, "choose another folder") from problem
    try:
        yield Path(folder)
    finally:
        shutil.rmtree(folder, ignore_errors=True)


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


def cannot_write(path: Path, problem: OSError, otherwise: str) -> OutputError:
    """Return the error for a file that cannot be written; ``otherwise`` says what to do where the disk is not full."""
    if problem.errno in FULL:
        return DiskFullError(f"'{path.name}' cannot be written: the disk is full. Make room on it, and try again.")
    return OutputError(f"'{path}' cannot be written ({problem.strerror}): {otherwise}.")


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
        raise cannot_write(path, problem, "choose another folder") from problem
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
            raise cannot_write(path, problem, "choose another name") from problem
        raise
