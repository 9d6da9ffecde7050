"""Artworks: the files that a seller has imported."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass, field

from ..core.artwork.pixels import Artwork
from ..core.artwork.reading import ArtFacts, facts_from_dict
from ..core.artwork.traits import Traits, traits_from_dict
from ..core.origin import Origin
from ..core.preparation import Preparation, preparation_from_dict
from .database import Database


@dataclass(frozen=True)
class ArtRow:
    """An artwork as stored."""

    id: int
    title: str
    file_name: str
    sha256: str
    facts: ArtFacts
    traits: Traits | None
    preparation: Preparation = field(default_factory=Preparation)
    step: int = 0
    last_step: int = 0
    origin: Origin = field(default_factory=Origin)

    @property
    def altered(self) -> bool:
        """Return whether the artwork was changed after import: by its preparation, or because the seller says so."""
        if self.origin.changed is not None:
            return self.origin.changed
        return self.preparation.alters


def _row(row: sqlite3.Row) -> ArtRow:
    facts = facts_from_dict(json.loads(row["facts"]))
    traits = traits_from_dict(json.loads(row["traits"])) if row["traits"] else None
    prepared = preparation_from_dict(json.loads(row["preparation"])) if row["preparation"] else Preparation()
    origin = Origin(**json.loads(row["origin"])) if row["origin"] else Origin()
    return ArtRow(
        row["id"],
        row["title"],
        row["file_name"],
        row["sha256"],
        facts,
        traits,
        prepared,
        row["preparation_step"],
        row["last_step"] or 0,
        origin,
    )


NOW = "strftime('%Y-%m-%dT%H:%M:%fZ', 'now')"

_SELECT = (
    "SELECT artwork.*, preparation, origin.origin, (SELECT max(step) FROM preparation AS p WHERE p.artwork_id = artwork.id) "
    "AS last_step FROM artwork LEFT JOIN preparation ON preparation.artwork_id = artwork.id AND step = preparation_step "
    "LEFT JOIN origin ON origin.artwork_id = artwork.id"
)


class Artworks:
    """The artworks of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[ArtRow]:
        """Return all artworks on the board, oldest first."""
        rows = self._database.connection.execute(f"{_SELECT} WHERE removed_at IS NULL ORDER BY artwork.id")
        return [_row(row) for row in rows]

    def ever_any(self) -> bool:
        """Return whether any artwork was ever stored, also one removed since."""
        return self._database.connection.execute("SELECT 1 FROM artwork LIMIT 1").fetchone() is not None

    def get(self, artwork_id: int) -> ArtRow | None:
        """Return one artwork, or None."""
        row = self._database.connection.execute(f"{_SELECT} WHERE artwork.id = ?", (artwork_id,)).fetchone()
        return _row(row) if row else None

    def add(self, title: str, file_name: str, art: Artwork, traits: Traits, aside: bool = False) -> ArtRow:
        """Store an artwork. The same file again is the same artwork, restored if it was removed.

        One stored ``aside`` is not on the board: a photograph for a frame.
        """
        sha256 = self._database.put_blob(art.data)
        facts, traits_json = (json.dumps(part.as_dict(), ensure_ascii=False) for part in (art.facts, traits))
        with self._database.writing() as connection:
            cursor = connection.execute(
                f"INSERT INTO artwork (title, file_name, sha256, facts, traits, removed_at) VALUES (?, ?, ?, ?, ?, {NOW if aside else 'NULL'}) "
                f"ON CONFLICT (sha256) DO UPDATE SET removed_at = {'removed_at' if aside else 'NULL'}, facts = excluded.facts, "
                "traits = excluded.traits RETURNING id",
                (title, file_name, sha256, facts, traits_json),
            ).fetchone()
            row = connection.execute(f"{_SELECT} WHERE artwork.id = ?", (cursor["id"],)).fetchone()
        return _row(row)

    def set_traits(self, artwork_id: int, traits: Traits) -> None:
        """Store the traits of an artwork's pixels."""
        with self._database.writing() as connection:
            connection.execute("UPDATE artwork SET traits = ? WHERE id = ?", (json.dumps(traits.as_dict()), artwork_id))

    def rename(self, artwork_id: int, title: str) -> None:
        """Give an artwork another title."""
        with self._database.writing() as connection:
            connection.execute("UPDATE artwork SET title = ? WHERE id = ?", (title, artwork_id))

    def set_removed(self, artwork_id: int, removed: bool) -> None:
        """Remove an artwork from the board, or restore it. Nothing is deleted."""
        stamp = NOW if removed else "NULL"
        with self._database.writing() as connection:
            connection.execute(f"UPDATE artwork SET removed_at = {stamp} WHERE id = ?", (artwork_id,))

    def open(self, row: ArtRow) -> Artwork:
        """Open the artwork's file."""
        return Artwork(self._database.blob(row.sha256), row.facts)
