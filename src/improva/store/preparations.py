"""Preparations of artworks, with their history and results."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from ..core.artwork.pixels import Artwork
from ..core.artwork.reading import ArtFacts, facts_from_dict
from ..core.artwork.traits import Traits, traits_from_dict
from ..core.preparation import Preparation
from .database import Database
from .undo import Steps

STEPS = Steps("artwork", "preparation_step", "preparation", {"id": "artwork_id"})


@dataclass(frozen=True)
class PreparedRow:
    """A prepared artwork: the hash of its content, its properties, and its report."""

    sha256: str
    facts: ArtFacts
    traits: Traits
    report: dict[str, Any]


class Preparations:
    """The preparations of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def decide(self, artwork_id: int, preparation: Preparation) -> None:
        """Set a preparation. Undone steps are removed; equal values change nothing."""
        text = json.dumps(preparation.as_dict())
        with self._database.writing() as connection:
            (now,) = connection.execute(
                "SELECT preparation FROM artwork LEFT JOIN preparation ON artwork_id = id AND step = preparation_step WHERE id = ?",
                (artwork_id,),
            ).fetchone()
            if text == (now or json.dumps(Preparation().as_dict())):
                return
            step = STEPS.begin(connection, {"id": artwork_id})
            connection.execute("INSERT INTO preparation VALUES (?, ?, ?)", (artwork_id, step, text))

    def move(self, artwork_id: int, by: int) -> None:
        """Undo (-1) or redo (+1) a preparation; at either end nothing happens."""
        with self._database.writing() as connection:
            STEPS.move(connection, {"id": artwork_id}, by)

    def prepared(self, key: str) -> PreparedRow | None:
        """Return the result of a preparation, or None."""
        row = self._database.connection.execute("SELECT * FROM prepared WHERE key = ?", (key,)).fetchone()
        if row is None:
            return None
        facts, traits = facts_from_dict(json.loads(row["facts"])), traits_from_dict(json.loads(row["traits"]))
        return PreparedRow(row["sha256"], facts, traits, json.loads(row["report"]))

    def keep(self, key: str, art: Artwork, traits: Traits, report: dict[str, Any]) -> PreparedRow:
        """Store the result of a preparation."""
        sha256 = self._database.put_blob(art.data)
        texts = (json.dumps(part, ensure_ascii=False) for part in (art.facts.as_dict(), traits.as_dict(), report))
        with self._database.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO prepared VALUES (?, ?, ?, ?, ?)", (key, sha256, *texts))
        return PreparedRow(sha256, art.facts, traits, report)
