"""Files made for a pair: print files, mock-ups and listing packs, each under a hash of all that it depends on."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

from .database import Database


@dataclass(frozen=True)
class MadeFileRow:
    """A file made for a pair: its kind, its name, and the key of the placement it was made with."""

    key: str
    kind: str
    placement_key: str
    file_name: str


class MadeFiles:
    """The made files of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def file(self, row: MadeFileRow, artwork_id: int, template_id: str, make: Callable[[Path], None]) -> Path:
        """Return the file of a key. If there is none, ``make`` must write the path whole or raise."""
        path = self._database.made_path(row.key, Path(row.file_name).suffix)
        if not path.exists():
            make(path)
        self.note({**asdict(row), "artwork_id": artwork_id, "template_id": template_id})
        return path

    def note(self, row: dict[str, Any]) -> None:
        """Record an existing file: the values of a :class:`MadeFileRow`, the artwork's id and the blank's."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO made_file (key, artwork_id, template_id, kind, placement_key, file_name) "
                "VALUES (:key, :artwork_id, :template_id, :kind, :placement_key, :file_name)",
                row,
            )

    def all(self) -> list[dict[str, Any]]:
        """Return every recorded file, in the form that :meth:`note` takes."""
        rows = self._database.connection.execute(
            "SELECT key, artwork_id, template_id, kind, placement_key, file_name FROM made_file"
        )
        return [dict(row) for row in rows]

    def named(self, key: str) -> tuple[str, Path] | None:
        """Return the name and the path of a made file, or None."""
        row = self._database.connection.execute("SELECT file_name FROM made_file WHERE key = ?", (key,)).fetchone()
        if row is None:
            return None
        path = self._database.made_path(key, Path(row[0]).suffix)
        return (row[0], path) if path.exists() else None

    def kinds(self, artwork_id: int, template_id: str, placement: str) -> set[str]:
        """Return the kinds of files made for a pair with its current placement."""
        rows = self._database.connection.execute(
            "SELECT DISTINCT kind FROM made_file WHERE artwork_id = ? AND template_id = ? AND placement_key = ?",
            (artwork_id, template_id, placement),
        )
        return {row[0] for row in rows}

    def kinds_of_art(self, artwork_id: int) -> dict[tuple[str, str], set[str]]:
        """Return the kinds of files made of an artwork, by blank and placement key."""
        kinds: dict[tuple[str, str], set[str]] = {}
        rows = self._database.connection.execute(
            "SELECT DISTINCT template_id, placement_key, kind FROM made_file WHERE artwork_id = ?", (artwork_id,)
        )
        for row in rows:
            kinds.setdefault((row[0], row[1]), set()).add(row[2])
        return kinds
