"""Results that are kept: proofs, and files made for a pair."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

from .database import Database


@dataclass(frozen=True)
class MadeRow:
    """A file made for a pair: its kind, its telling name, and the key of the placing it was made with."""

    key: str
    kind: str
    placing: str
    file_name: str


KEYS_A_QUERY = 500


class Made:
    """Everything made in one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def kept_proof(self, key: str) -> dict[str, Any] | None:
        """The proof kept under a key, or None."""
        row = self._database.connection.execute("SELECT result FROM proof WHERE key = ?", (key,)).fetchone()
        return dict(json.loads(row[0])) if row else None

    def summaries(self, keys: list[str]) -> dict[str, dict[str, Any]]:
        """The summaries of the proofs kept under any of many keys, by key."""
        found: dict[str, dict[str, Any]] = {}
        for start in range(0, len(keys), KEYS_A_QUERY):
            some = keys[start : start + KEYS_A_QUERY]
            marks = ",".join("?" * len(some))
            rows = self._database.connection.execute(f"SELECT key, summary FROM proof WHERE key IN ({marks})", some)
            found |= {key: json.loads(summary) for key, summary in rows if summary}
        return found

    def proof(self, key: str, make: Callable[[], dict[str, Any]], summarise: Callable[[dict[str, Any]], Any]) -> dict[str, Any]:
        """The proof kept under a key, made now if it is not there and kept with its summary."""
        kept = self.kept_proof(key)
        if kept is not None:
            return kept
        result = make()
        with self._database.writing() as writing:
            row = (key, json.dumps(result, ensure_ascii=False), json.dumps(summarise(result), ensure_ascii=False))
            writing.execute("INSERT OR REPLACE INTO proof (key, result, summary) VALUES (?, ?, ?)", row)
        return result

    def file(self, row: MadeRow, artwork_id: int, template_id: str, make: Callable[[Path], None]) -> Path:
        """The file of that key, made now if it is not there. ``make`` must write the path whole or raise."""
        path = self._database.made_path(row.key, Path(row.file_name).suffix)
        if not path.exists():
            make(path)
        self.note({**asdict(row), "artwork_id": artwork_id, "template_id": template_id})
        return path

    def note(self, row: dict[str, Any]) -> None:
        """Note a file that is there: the values of a :class:`MadeRow`, the artwork's id and the blank's."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO made (key, artwork_id, template_id, kind, placing, file_name) "
                "VALUES (:key, :artwork_id, :template_id, :kind, :placing, :file_name)",
                row,
            )

    def all(self) -> list[dict[str, Any]]:
        """Every file that was noted, as :meth:`note` takes them."""
        found = self._database.connection.execute("SELECT key, artwork_id, template_id, kind, placing, file_name FROM made")
        return [dict(row) for row in found]

    def named(self, key: str) -> tuple[str, Path] | None:
        """The telling name and the path of a made file, or None."""
        row = self._database.connection.execute("SELECT file_name FROM made WHERE key = ?", (key,)).fetchone()
        if row is None:
            return None
        path = self._database.made_path(key, Path(row[0]).suffix)
        return (row[0], path) if path.exists() else None

    def kinds(self, artwork_id: int, template_id: str, placing: str) -> set[str]:
        """What has been made for a pair with the placing it has now."""
        found = self._database.connection.execute(
            "SELECT DISTINCT kind FROM made WHERE artwork_id = ? AND template_id = ? AND placing = ?",
            (artwork_id, template_id, placing),
        )
        return {row[0] for row in found}

    def kinds_of_art(self, artwork_id: int) -> dict[tuple[str, str], set[str]]:
        """What has been made of an artwork, by blank and placing key."""
        found: dict[tuple[str, str], set[str]] = {}
        rows = self._database.connection.execute(
            "SELECT DISTINCT template_id, placing, kind FROM made WHERE artwork_id = ?", (artwork_id,)
        )
        for row in rows:
            found.setdefault((row[0], row[1]), set()).add(row[2])
        return found
