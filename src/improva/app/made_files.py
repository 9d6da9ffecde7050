"""Files made for a pair, each made once and stored under a key."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from ..store import MadeFileRow
from .pair import Pair
from .services import Services

MadeFile = tuple[str, str, Path]
"""A made file: its key, its name, and its path."""


def keep_file(services: Services, pair: Pair, kind: str, key: str, name: str, make: Callable[[Path], None]) -> MadeFile:
    """Return the file of a key. If there is none, ``make`` writes it to the path that it receives.

    Args:
        kind: ``picture``, ``print`` or ``listing``.
        key: a hash of all that the file depends on.
        name: the file's name for the seller.
    """
    row = MadeFileRow(key, kind, pair.placement_key, name)
    return key, name, services.store.made_files.file(row, *pair.ids, make)
