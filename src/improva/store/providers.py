"""Print providers with their offers and samples."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass
from typing import Any

from ..core.providers import Sample
from .database import Database


@dataclass(frozen=True)
class ProviderRow:
    """A provider: where it ships from, and the seller's notes."""

    name: str
    origin: str
    note: str


@dataclass(frozen=True)
class SampleRow:
    """A sample of a pair, with the hashes of its photographs."""

    id: int
    artwork_id: int
    template_id: str
    sample: Sample
    photos: tuple[str, ...]


def _sample(row: sqlite3.Row) -> SampleRow:
    return SampleRow(
        row["id"], row["artwork_id"], row["template_id"], Sample(**json.loads(row["sample"])), tuple(json.loads(row["photos"]))
    )


class Providers:
    """The providers and samples of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[ProviderRow]:
        """Return every provider, by name."""
        rows = self._database.connection.execute("SELECT name, origin, note FROM provider ORDER BY name COLLATE NOCASE")
        return [ProviderRow(**dict(row)) for row in rows]

    def keep(self, row: ProviderRow) -> None:
        """Store a provider; it replaces one of the same name."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO provider (name, origin, note) VALUES (:name, :origin, :note) "
                "ON CONFLICT (name) DO UPDATE SET origin = excluded.origin, note = excluded.note",
                asdict(row),
            )

    def forget(self, name: str) -> None:
        """Remove a provider with its offers; its samples stay."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM provider WHERE name = ?", (name,))

    def offers(self, template_id: str) -> dict[str, dict[str, Any]]:
        """Return the offers for a blank, by provider."""
        rows = self._database.connection.execute(
            "SELECT provider, offer FROM provider_offer WHERE template_id = ?", (template_id,)
        )
        return {row["provider"]: json.loads(row["offer"]) for row in rows}

    def keep_offer(self, provider: str, template_id: str, offer: dict[str, Any] | None) -> None:
        """Store a provider's offer for a blank; None removes it."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM provider_offer WHERE provider = ? AND template_id = ?", (provider, template_id))
            if offer is not None:
                connection.execute(
                    "INSERT INTO provider_offer VALUES (?, ?, ?)",
                    (provider, template_id, json.dumps(offer, ensure_ascii=False)),
                )

    def samples(self, template_id: str | None = None, artwork_id: int | None = None) -> list[SampleRow]:
        """Return the samples of a blank or a pair, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM sample WHERE removed_at IS NULL AND template_id = ifnull(?, template_id) AND artwork_id = ifnull(?, artwork_id) "
            "ORDER BY id DESC",
            (template_id, artwork_id),
        )
        return [_sample(row) for row in rows]

    def sample(self, sample_id: int) -> SampleRow | None:
        """Return one sample, or None."""
        row = self._database.connection.execute(
            "SELECT * FROM sample WHERE id = ? AND removed_at IS NULL", (sample_id,)
        ).fetchone()
        return _sample(row) if row else None

    def add_sample(self, artwork_id: int, template_id: str, sample: Sample) -> int:
        """Add a sample and return its id."""
        with self._database.writing() as connection:
            return int(
                connection.execute(
                    "INSERT INTO sample (artwork_id, template_id, sample) VALUES (?, ?, ?)",
                    (artwork_id, template_id, _told(sample)),
                ).lastrowid
                or 0
            )

    def change_sample(self, sample_id: int, sample: Sample) -> None:
        """Change a sample's record."""
        with self._database.writing() as connection:
            connection.execute("UPDATE sample SET sample = ? WHERE id = ?", (_told(sample), sample_id))

    def add_photo(self, sample_id: int, sha256: str) -> None:
        """Store a photograph of a sample."""
        with self._database.writing() as connection:
            connection.execute("UPDATE sample SET photos = json_insert(photos, '$[#]', ?) WHERE id = ?", (sha256, sample_id))

    def remove_sample(self, sample_id: int) -> None:
        """Remove a sample."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE sample SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", (sample_id,)
            )


def _told(sample: Sample) -> str:
    return json.dumps({**asdict(sample), "checks": dict(sample.checks)}, ensure_ascii=False)
