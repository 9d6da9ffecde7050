"""Databases as earlier versions laid them out."""

from __future__ import annotations

import sqlite3
from pathlib import Path

from improva.store.migrations import MIGRATIONS


def database_of_version_1(folder: Path) -> sqlite3.Connection:
    """A database with the tables of version 0.1, in a data folder."""
    connection = sqlite3.connect(folder / "improva.sqlite", isolation_level=None)
    MIGRATIONS[0](connection)
    connection.execute("PRAGMA user_version = 1")
    return connection
