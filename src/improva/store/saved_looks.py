"""Looks: choices about pictures that a seller keeps under a name and uses again."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from .database import Database


@dataclass(frozen=True)
class LookRow:
    """A look: what is made, and in which colours parts, grounds and backdrops are shown."""

    name: str
    showing: dict[str, Any]
    colours: dict[str, str | None]


class Looks:
    """The looks of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[LookRow]:
        """Every look, by name."""
        rows = self._database.connection.execute("SELECT * FROM look ORDER BY name COLLATE NOCASE")
        return [LookRow(row["name"], json.loads(row["showing"]), json.loads(row["colours"])) for row in rows]

    def keep(self, look: LookRow) -> None:
        """Keep a look; one of the same name is replaced."""
        values = (look.name, json.dumps(look.showing), json.dumps(look.colours))
        with self._database.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO look (name, showing, colours) VALUES (?, ?, ?)", values)

    def forget(self, name: str) -> None:
        """Take a look away."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM look WHERE name = ?", (name,))
