"""Print providers with their offers, and the samples that were ordered of them."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass
from typing import Any

from ..core.providers import Sample
from .database import Database


@dataclass(frozen=True)
class ProviderRow:
    """A provider: where it ships from, and what the seller notes of it."""

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
        """Every provider, by name."""
        rows = self._database.connection.execute("SELECT name, origin, note FROM provider ORDER BY name COLLATE NOCASE")
        return [ProviderRow(**dict(row)) for row in rows]

    def keep(self, row: ProviderRow) -> None:
        """Keep a provider, or what is said of it anew."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO provider (name, origin, note) VALUES (:name, :origin, :note) "
                "ON CONFLICT (name) DO UPDATE SET origin = excluded.origin, note = excluded.note",
                asdict(row),
            )

    def forget(self, name: str) -> None:
        """Take a provider away with its offers; samples of it stay."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM provider WHERE name = ?", (name,))

    def offers(self, template_id: str) -> dict[str, dict[str, Any]]:
        """What each provider asks for a blank, by provider."""
        rows = self._database.connection.execute(
            "SELECT provider, offer FROM provider_offer WHERE template_id = ?", (template_id,)
        )
        return {row["provider"]: json.loads(row["offer"]) for row in rows}

    def keep_offer(self, provider: str, template_id: str, offer: dict[str, Any] | None) -> None:
        """Keep what a provider asks for a blank; None where it does not make it."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM provider_offer WHERE provider = ? AND template_id = ?", (provider, template_id))
            if offer is not None:
                connection.execute(
                    "INSERT INTO provider_offer VALUES (?, ?, ?)",
                    (provider, template_id, json.dumps(offer, ensure_ascii=False)),
                )

    def samples(self, template_id: str | None = None, artwork_id: int | None = None) -> list[SampleRow]:
        """Samples of a blank or a pair, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM sample WHERE removed_at IS NULL AND template_id = ifnull(?, template_id) AND artwork_id = ifnull(?, artwork_id) "
            "ORDER BY id DESC",
            (template_id, artwork_id),
        )
        return [_sample(row) for row in rows]

    def sample(self, sample_id: int) -> SampleRow | None:
        """One sample, or None."""
        row = self._database.connection.execute(
            "SELECT * FROM sample WHERE id = ? AND removed_at IS NULL", (sample_id,)
        ).fetchone()
        return _sample(row) if row else None

    def add_sample(self, artwork_id: int, template_id: str, sample: Sample) -> int:
        """Note a sample; answers with its id."""
        with self._database.writing() as connection:
            return int(connection.execute("INSERT INTO sample (artwork_id, template_id, sample) VALUES (?, ?, ?)",
                                          (artwork_id, template_id, _told(sample))).lastrowid or 0)  # fmt: skip

    def change_sample(self, sample_id: int, sample: Sample) -> None:
        """Note how it went on."""
        with self._database.writing() as connection:
            connection.execute("UPDATE sample SET sample = ? WHERE id = ?", (_told(sample), sample_id))

    def add_photo(self, sample_id: int, sha256: str) -> None:
        """Keep a photograph of a sample."""
        with self._database.writing() as connection:
            connection.execute("UPDATE sample SET photos = json_insert(photos, '$[#]', ?) WHERE id = ?", (sha256, sample_id))

    def remove_sample(self, sample_id: int) -> None:
        """Let a sample count no more."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE sample SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ?", (sample_id,)
            )


def _told(sample: Sample) -> str:
    return json.dumps({**asdict(sample), "checks": dict(sample.checks)}, ensure_ascii=False)
