"""Blanks: the seller's own, which ones stand on the board, and what each is judged by."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass

from ..core.template import Template
from ..core.template_file import parse_template, write_toml
from .database import Database


@dataclass(frozen=True)
class BlankFile:
    """A file that belongs to a blank: its content's hash and the name it came with."""

    sha256: str
    file_name: str


class Blanks:
    """The blanks of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def own(self) -> list[Template]:
        """The seller's own blanks, oldest first."""
        found = self._database.connection.execute("SELECT toml FROM blank WHERE removed_at IS NULL ORDER BY added_at, id")
        return [parse_template(tomllib.loads(row[0]), own=True) for row in found]

    def keep(self, template: Template) -> None:
        """Keep a blank of one's own, in place of the one of that id if there is one."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO blank (id, toml) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET toml = excluded.toml, removed_at = NULL",
                (template.id, write_toml(template)),
            )

    def remove(self, template_id: str) -> None:
        """Put a blank of one's own away. Its pairs are kept, so that it can be brought back."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE blank SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", (template_id,)
            )
            connection.execute("DELETE FROM board_blank WHERE template_id = ?", (template_id,))

    def restore(self, template_id: str) -> None:
        """Bring back a blank that was put away."""
        with self._database.writing() as connection:
            connection.execute("UPDATE blank SET removed_at = NULL WHERE id = ?", (template_id,))

    def used_ids(self) -> set[str]:
        """Ids that were ever given to a blank of one's own."""
        return {row[0] for row in self._database.connection.execute("SELECT id FROM blank")}

    def on_board(self) -> list[str]:
        """Ids of the blanks on the board, in their order; empty until some were chosen."""
        return [row[0] for row in self._database.connection.execute("SELECT template_id FROM board_blank ORDER BY position")]

    def set_board(self, template_ids: list[str]) -> None:
        """Choose the blanks on the board, and their order."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM board_blank")
            connection.executemany(
                "INSERT INTO board_blank VALUES (?, ?)", [(t, i) for i, t in enumerate(dict.fromkeys(template_ids))]
            )

    def limits(self) -> dict[str, dict[str, float]]:
        """The seller's own limits, by blank and name."""
        found: dict[str, dict[str, float]] = {}
        for row in self._database.connection.execute("SELECT template_id, name, value FROM own_limit"):
            found.setdefault(row[0], {})[row[1]] = row[2]
        return found

    def set_limit(self, template_id: str, name: str, value: float | None) -> None:
        """Judge a blank by another limit; None goes back to what ships."""
        with self._database.writing() as connection:
            if value is None:
                connection.execute("DELETE FROM own_limit WHERE template_id = ? AND name = ?", (template_id, name))
            else:
                connection.execute("INSERT OR REPLACE INTO own_limit VALUES (?, ?, ?)", (template_id, name, value))

    def file(self, template_id: str, kind: str, panel_id: str = "") -> BlankFile | None:
        """A blank's file of that kind, or None."""
        row = self._database.connection.execute(
            "SELECT sha256, file_name FROM blank_file WHERE template_id = ? AND panel_id = ? AND kind = ?",
            (template_id, panel_id, kind),
        ).fetchone()
        return BlankFile(row[0], row[1]) if row else None

    def profiles(self) -> dict[str, str]:
        """Hashes of the ICC profiles by blank."""
        return dict(
            self._database.connection.execute("SELECT template_id, sha256 FROM blank_file WHERE kind = 'profile'").fetchall()
        )

    def keep_file(self, template_id: str, kind: str, data: bytes, file_name: str, panel_id: str = "") -> None:
        """Keep a file for a blank, in place of the one before."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO blank_file (template_id, panel_id, kind, sha256, file_name) VALUES (?, ?, ?, ?, ?)",
                (template_id, panel_id, kind, sha256, file_name),
            )

    def drop_file(self, template_id: str, kind: str, panel_id: str = "") -> None:
        """Take a blank's file away."""
        with self._database.writing() as connection:
            connection.execute(
                "DELETE FROM blank_file WHERE template_id = ? AND panel_id = ? AND kind = ?", (template_id, panel_id, kind)
            )
