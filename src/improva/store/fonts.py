"""Fonts of the seller's own."""

from __future__ import annotations

from dataclasses import dataclass

from .database import Database


@dataclass(frozen=True)
class FontRow:
    """A font that was added: its key is the hash of its content."""

    sha256: str
    title: str
    file_name: str


class Fonts:
    """The fonts of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[FontRow]:
        """All fonts that were added, oldest first."""
        found = self._database.connection.execute("SELECT sha256, title, file_name FROM font ORDER BY added_at, sha256")
        return [FontRow(*row) for row in found]

    def add(self, data: bytes, title: str, file_name: str) -> FontRow:
        """Keep a font. The same file again is the same font."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO font (sha256, title, file_name) VALUES (?, ?, ?) ON CONFLICT DO NOTHING",
                (sha256, title, file_name),
            )
        return FontRow(sha256, title, file_name)

    def data(self, sha256: str) -> bytes | None:
        """A font's file, or None where it was never added."""
        row = self._database.connection.execute("SELECT 1 FROM font WHERE sha256 = ?", (sha256,)).fetchone()
        return self._database.blob(sha256) if row else None
