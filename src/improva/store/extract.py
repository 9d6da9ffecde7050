"""The part of a data folder's records that one piece of work needs, for workers that share only its files."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path
from typing import Any

from .database import Database

Extract = dict[str, list[dict[str, Any]]]
"""Rows by table, every value as SQLite holds it, in an order in which they can be put in again."""


def _among(column: str, values: Iterable[Any]) -> tuple[str, list[Any]]:
    wanted = list(values)
    return f"{column} IN ({','.join('?' * len(wanted))})", wanted


def take_extract(database: Database, artwork_ids: Iterable[int], template_ids: Iterable[str], prepared_keys: Iterable[str]
                 ) -> Extract:  # fmt: skip
    """All that is kept of some artworks, some blanks and their pairs, as it holds now: no histories, no results."""
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
        ("placing", f"{arts} AND {blanks} AND step = (SELECT step FROM pair WHERE pair.artwork_id = placing.artwork_id "
         "AND pair.template_id = placing.template_id)", [*art_values, *blank_values]),
        ("blank", blanks.replace("template_id", "id"), blank_values),
        ("own_limit", blanks, blank_values),
        ("blank_file", blanks, blank_values),
        ("setting", "1", []),
        ("calibration", blanks, blank_values),
    ]  # fmt: skip
    found = {}
    for table, where, values in wanted:
        rows = database.connection.execute(f"SELECT * FROM {table} WHERE {where}", values).fetchall()
        if rows:
            found[table] = [dict(row) for row in rows]
    return found


def open_extract(folder: Path, file: Path, extract: Extract) -> Database:
    """A database of an extract's rows in ``file``, beside the shared files of ``folder``.

    Columns that this version lacks are left out: a worker may be older than the board.
    """
    database = Database(folder, file)
    with database.writing() as connection:
        for table, rows in extract.items():
            known = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
            columns = [name for name in rows[0] if name in known]
            marks = ",".join(f":{name}" for name in columns)
            connection.executemany(f"INSERT INTO {table} ({','.join(columns)}) VALUES ({marks})", rows)
    return database
