"""Origins of artworks, and the files of their licences."""

from __future__ import annotations

import json

from ..core.origin import Origin
from .database import Database


class Origins:
    """The origins of one data folder's artworks."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def note(self, artwork_id: int, origin: Origin) -> None:
        """Store an artwork's origin, in place of the previous one."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO origin (artwork_id, origin) VALUES (?, ?) ON CONFLICT DO UPDATE SET origin = excluded.origin",
                (artwork_id, json.dumps(origin.as_dict(), ensure_ascii=False)),
            )

    def licence(self, artwork_id: int) -> tuple[str, str] | None:
        """Return the hash and the name of the licence's file, or None."""
        row = self._database.connection.execute(
            "SELECT sha256, file_name FROM origin WHERE artwork_id = ? AND sha256 IS NOT NULL", (artwork_id,)
        ).fetchone()
        return (row[0], row[1]) if row else None

    def keep_licence(self, artwork_id: int, data: bytes, file_name: str) -> None:
        """Store the licence's file of an artwork, in place of the previous one."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO origin (artwork_id, origin, sha256, file_name) VALUES (?, ?, ?, ?) "
                "ON CONFLICT DO UPDATE SET sha256 = excluded.sha256, file_name = excluded.file_name",
                (artwork_id, json.dumps(Origin().as_dict()), sha256, file_name),
            )

    def drop_licence(self, artwork_id: int) -> None:
        """Remove the licence's file."""
        with self._database.writing() as connection:
            connection.execute("UPDATE origin SET sha256 = NULL, file_name = NULL WHERE artwork_id = ?", (artwork_id,))
