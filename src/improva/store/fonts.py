"""The seller's own fonts."""

from __future__ import annotations

from dataclasses import dataclass

from .database import Database


@dataclass(frozen=True)
class FontRow:
    """An added font; its key is the hash of its content."""

    sha256: str
    title: str
    file_name: str


class Fonts:
    """The fonts of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[FontRow]:
        """Return all added fonts, oldest first."""
        rows = self._database.connection.execute("SELECT sha256, title, file_name FROM font ORDER BY added_at, sha256")
        return [FontRow(*row) for row in rows]

    def add(self, data: bytes, title: str, file_name: str) -> FontRow:
        """Store a font. The same file again is the same font."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO font (sha256, title, file_name) VALUES (?, ?, ?) ON CONFLICT DO NOTHING",
                (sha256, title, file_name),
            )
        return FontRow(sha256, title, file_name)

    def data(self, sha256: str) -> bytes | None:
        """Return a font's file, or None."""
        row = self._database.connection.execute("SELECT 1 FROM font WHERE sha256 = ?", (sha256,)).fetchone()
        return self._database.blob(sha256) if row else None
