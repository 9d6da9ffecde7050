"""Snapshots: the records that one job needs, for workers that share only the folder's files."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from .database import Database
from .migrations import LATEST, MIGRATIONS, check_version

Rows = dict[str, list[dict[str, Any]]]
"""Rows by table, every value as SQLite stores it, in an order in which they can be inserted."""

Snapshot = dict[str, Any]
"""The rows and the ``version`` of their database, as JSON values."""


def _among(column: str, values: Iterable[Any]) -> tuple[str, list[Any]]:
    wanted = list(values)
    return f"{column} IN ({','.join('?' * len(wanted))})", wanted


def take_snapshot(
    database: Database, artwork_ids: Iterable[int], template_ids: Iterable[str], prepared_keys: Iterable[str]
) -> Snapshot:
    """Return the current records of some artworks, blanks and their pairs, without histories and results."""
    arts, art_values = _among("artwork_id", artwork_ids)
    blanks, blank_values = _among("template_id", template_ids)
    keys, key_values = _among("key", prepared_keys)
    wanted: list[tuple[str, str, list[Any]]] = [
        ("artwork", arts.replace("artwork_id", "id"), art_values),
        ("preparation", f"{arts} AND step = (SELECT preparation_step FROM artwork WHERE id = artwork_id)", art_values),
        ("prepared", keys, key_values),
        ("font", "1", []),
        ("origin", arts, art_values),
        ("pair", f"{arts} AND {blanks}", [*art_values, *blank_values]),
        (
            "placement",
            f"{arts} AND {blanks} AND step = (SELECT step FROM pair WHERE pair.artwork_id = placement.artwork_id "
            "AND pair.template_id = placement.template_id)",
            [*art_values, *blank_values],
        ),
        ("blank", blanks.replace("template_id", "id"), blank_values),
        ("own_limit", blanks, blank_values),
        ("blank_file", blanks, blank_values),
        ("setting", "1", []),
        ("calibration", blanks, blank_values),
    ]
    tables: Rows = {}
    for table, where, values in wanted:
        rows = database.connection.execute(f"SELECT * FROM {table} WHERE {where}", values).fetchall()
        if rows:
            tables[table] = [dict(row) for row in rows]
    return {"version": LATEST, "rows": tables}


def open_snapshot(folder: Path, file: Path, snapshot: Snapshot) -> Database:
    """Open a database of a snapshot's rows in ``file``, with the shared files of ``folder``.

    Rows of an earlier version are brought up to this one, as a data folder's are.

    Raises:
        NewerDatabaseError: the board that sent the rows is newer than this worker.
    """
    version = snapshot.get("version", 1)
    check_version(version)
    connection = sqlite3.connect(file, isolation_level=None)
    try:
        for run in MIGRATIONS[:version]:
            run(connection)
        connection.execute("BEGIN")
        for table, rows in snapshot["rows"].items():
            known = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
            columns = [name for name in rows[0] if name in known]
            marks = ",".join(f":{name}" for name in columns)
            connection.executemany(f"INSERT INTO {table} ({','.join(columns)}) VALUES ({marks})", rows)
        connection.execute(f"PRAGMA user_version = {version}")
        connection.execute("COMMIT")
    finally:
        connection.close()
    return Database(folder, file)
