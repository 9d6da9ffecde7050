"""Files are written beside their name and renamed, so that a name never holds half a file."""

from __future__ import annotations

import errno
import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ..errors import BadOutput

FULL = (errno.ENOSPC, errno.EDQUOT, errno.EFBIG)


def _what_to_do(problem: OSError) -> str:
    return "make room on the disk and try again" if problem.errno in FULL else "choose another name"


@contextmanager
def beside(path: Path) -> Iterator[Path]:
    """A temporary path in the same folder with the same ending; renamed to ``path`` if the block succeeds.

    Raises:
        BadOutput: the folder is missing or cannot be written.
    """
    try:
        handle, name = tempfile.mkstemp(suffix=path.suffix, prefix=f".{path.stem[:40]}-", dir=path.parent)
        os.close(handle)
    except OSError as problem:
        raise BadOutput(f"'{path}' cannot be written ({problem.strerror}): choose another folder.") from problem
    temporary = Path(name)
    try:
        yield temporary
        with temporary.open("rb") as written:
            os.fsync(written.fileno())
        temporary.chmod(0o644)
        temporary.replace(path)
    except BaseException as problem:
        temporary.unlink(missing_ok=True)
        if isinstance(problem, OSError):
            raise BadOutput(f"'{path}' cannot be written ({problem.strerror}): {_what_to_do(problem)}.") from problem
        raise
