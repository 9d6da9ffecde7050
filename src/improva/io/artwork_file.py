"""Artwork files as bytes."""

from __future__ import annotations

from pathlib import Path

from ..core.errors import ArtworkError


def read_file(path: Path) -> bytes:
    """Return the bytes of an artwork file. Raises :class:`ArtworkError` if it cannot be read."""
    try:
        return path.read_bytes()
    except OSError as problem:
        raise ArtworkError(f"'{path.name}' cannot be read ({problem.strerror}): check where it is.") from problem
