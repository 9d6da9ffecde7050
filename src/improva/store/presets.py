"""Presets: mock-up settings under a name."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from .database import Database


@dataclass(frozen=True)
class PresetRow:
    """A preset: its settings, and the colours of parts, grounds and backgrounds."""

    name: str
    mockup_settings: dict[str, Any]
    colours: dict[str, str | None]


class Presets:
    """The presets of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[PresetRow]:
        """Return every preset, by name."""
        rows = self._database.connection.execute("SELECT * FROM preset ORDER BY name COLLATE NOCASE")
        return [PresetRow(row["name"], json.loads(row["mockup_settings"]), json.loads(row["colours"])) for row in rows]

    def keep(self, look: PresetRow) -> None:
        """Store a preset; it replaces one of the same name."""
        values = (look.name, json.dumps(look.mockup_settings), json.dumps(look.colours))
        with self._database.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO preset (name, mockup_settings, colours) VALUES (?, ?, ?)", values)

    def forget(self, name: str) -> None:
        """Remove a preset."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM preset WHERE name = ?", (name,))
