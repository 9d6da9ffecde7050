"""Blanks: the seller's own, those on the board, and the seller's limits."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass

from ..core.template import Template
from ..core.template_file import parse_template, write_toml
from .database import Database

OFFERED = "offered_colours"


@dataclass(frozen=True)
class BlankFile:
    """A file of a blank: the hash of its content and its original name."""

    sha256: str
    file_name: str


class Blanks:
    """The blanks of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def own(self) -> list[Template]:
        """Return the seller's own blanks, oldest first."""
        rows = self._database.connection.execute("SELECT toml FROM blank WHERE removed_at IS NULL ORDER BY added_at, id")
        return [parse_template(tomllib.loads(row[0]), own=True) for row in rows]

    def keep(self, template: Template) -> None:
        """Store one of the seller's own blanks; it replaces one of the same id."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO blank (id, toml) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET toml = excluded.toml, removed_at = NULL",
                (template.id, write_toml(template)),
            )

    def remove(self, template_id: str) -> None:
        """Remove one of the seller's own blanks. Its pairs stay stored, so that it can be restored."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE blank SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", (template_id,)
            )
            connection.execute("DELETE FROM board_blank WHERE template_id = ?", (template_id,))

    def restore(self, template_id: str) -> None:
        """Restore a removed blank."""
        with self._database.writing() as connection:
            connection.execute("UPDATE blank SET removed_at = NULL WHERE id = ?", (template_id,))

    def used_ids(self) -> set[str]:
        """Return all ids ever given to the seller's own blanks."""
        return {row[0] for row in self._database.connection.execute("SELECT id FROM blank")}

    def on_board(self) -> list[str]:
        """Return the ids of the blanks on the board, in order; empty before the first choice."""
        return [row[0] for row in self._database.connection.execute("SELECT template_id FROM board_blank ORDER BY position")]

    def set_board(self, template_ids: list[str]) -> None:
        """Set the blanks on the board and their order."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM board_blank")
            connection.executemany(
                "INSERT INTO board_blank VALUES (?, ?)", [(t, i) for i, t in enumerate(dict.fromkeys(template_ids))]
            )

    def limits(self) -> dict[str, dict[str, float]]:
        """Return the seller's limits by blank and name."""
        by_blank: dict[str, dict[str, float]] = {}
        for row in self._database.connection.execute("SELECT template_id, name, value FROM own_limit"):
            by_blank.setdefault(row[0], {})[row[1]] = row[2]
        return by_blank

    def set_limit(self, template_id: str, name: str, value: float | None) -> None:
        """Set one of a blank's limits; None restores the shipped value."""
        with self._database.writing() as connection:
            if value is None:
                connection.execute("DELETE FROM own_limit WHERE template_id = ? AND name = ?", (template_id, name))
            else:
                connection.execute("INSERT OR REPLACE INTO own_limit VALUES (?, ?, ?)", (template_id, name, value))

    def offered(self, template_id: str) -> dict[str, list[str]]:
        """Return the colours in which the seller offers a blank, by part; empty before a choice."""
        return dict((self._database.setting(OFFERED) or {}).get(template_id, {}))

    def offer(self, template_id: str, part: str, colours: list[str] | None) -> None:
        """Set the colours in which a part of a blank is offered; None for its usual colour only."""
        with self._database.writing():
            every = dict(self._database.setting(OFFERED) or {})
            parts = {**every.get(template_id, {}), part: colours}
            every[template_id] = {name: names for name, names in parts.items() if names}
            self._database.keep_setting(OFFERED, every)

    def file(self, template_id: str, kind: str, panel_id: str = "") -> BlankFile | None:
        """Return a blank's file of a kind, or None."""
        row = self._database.connection.execute(
            "SELECT sha256, file_name FROM blank_file WHERE template_id = ? AND panel_id = ? AND kind = ?",
            (template_id, panel_id, kind),
        ).fetchone()
        return BlankFile(row[0], row[1]) if row else None

    def profiles(self) -> dict[str, str]:
        """Return the hashes of the ICC profiles by blank."""
        return dict(
            self._database.connection.execute("SELECT template_id, sha256 FROM blank_file WHERE kind = 'profile'").fetchall()
        )

    def keep_file(self, template_id: str, kind: str, data: bytes, file_name: str, panel_id: str = "") -> None:
        """Store a file of a blank, in place of the previous one."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT OR REPLACE INTO blank_file (template_id, panel_id, kind, sha256, file_name) VALUES (?, ?, ?, ?, ?)",
                (template_id, panel_id, kind, sha256, file_name),
            )

    def drop_file(self, template_id: str, kind: str, panel_id: str = "") -> None:
        """Remove a blank's file."""
        with self._database.writing() as connection:
            connection.execute(
                "DELETE FROM blank_file WHERE template_id = ? AND panel_id = ? AND kind = ?", (template_id, panel_id, kind)
            )
