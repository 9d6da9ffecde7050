"""Listings: texts per blank and per artwork, each pair's pictures, overrulings, and submissions to marketplaces."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from ..core.listing import MARKETS, Market, Overruling
from .database import Database

MARKETS_AT = "markets"


@dataclass(frozen=True)
class HandedIn:
    """A submitted pack and the marketplace's answer."""

    market: str
    made_key: str
    accepted: bool
    number: str | None
    reasons: tuple[str, ...]
    at: str


class Listings:
    """The listings of one data folder, as plain values."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def markets(self) -> dict[str, Market]:
        """Return the marketplaces by id: the invented ones that ship, replaced or joined by the seller's own."""
        own = {name: Market(**values) for name, values in (self._database.setting(MARKETS_AT) or {}).items()}
        return {**MARKETS, **own}

    def keep_market(self, name: str, values: dict[str, Any] | None) -> None:
        """Store a marketplace's limits; None removes the seller's. Raises :class:`ListingError`."""
        own = self._database.setting(MARKETS_AT) or {}
        own.pop(name, None)
        if values is not None:
            Market(**values)
            own[name] = values
        self._database.keep_setting(MARKETS_AT, own)

    def blank_words(self, template_id: str) -> dict[str, Any]:
        """Return a blank's texts; empty before any are stored."""
        return self._one("SELECT words FROM blank_words WHERE template_id = ?", template_id)

    def keep_blank_words(self, template_id: str, words: dict[str, Any]) -> None:
        """Store a blank's texts, for every design on it."""
        self._keep("INSERT OR REPLACE INTO blank_words (words, template_id) VALUES (?, ?)", words, template_id)

    def art_words(self, artwork_id: int) -> dict[str, Any]:
        """Return an artwork's texts; empty before any are stored."""
        return self._one("SELECT words FROM artwork_words WHERE artwork_id = ?", artwork_id)

    def keep_art_words(self, artwork_id: int, words: dict[str, Any]) -> None:
        """Store an artwork's texts, for every blank it is on."""
        self._keep("INSERT OR REPLACE INTO artwork_words (words, artwork_id) VALUES (?, ?)", words, artwork_id)

    def listing(self, artwork_id: int, template_id: str) -> dict[str, Any]:
        """Return the stored decisions on a pair's listing; empty before any."""
        return self._one("SELECT listing FROM pair_listing WHERE artwork_id = ? AND template_id = ?", artwork_id, template_id)

    def keep_listing(self, artwork_id: int, template_id: str, listing: dict[str, Any]) -> None:
        """Store the decisions on a pair's listing."""
        self._keep(
            "INSERT OR REPLACE INTO pair_listing (listing, artwork_id, template_id) VALUES (?, ?, ?)",
            listing,
            artwork_id,
            template_id,
        )

    def overruling(self, artwork_id: int, template_id: str, reasons: list[str]) -> Overruling | None:
        """Return the overruling of exactly these reasons, or None."""
        rows = self._database.connection.execute(
            "SELECT reasons, why, at FROM overruling WHERE artwork_id = ? AND template_id = ? AND withdrawn_at IS NULL ORDER BY id DESC",
            (artwork_id, template_id),
        )
        overrulings = (Overruling(tuple(json.loads(row["reasons"])), row["why"], row["at"]) for row in rows)
        return next((each for each in overrulings if list(each.reasons) == reasons), None)

    def overrule(self, artwork_id: int, template_id: str, reasons: list[str], why: str) -> None:
        """Record that the seller lists a pair in spite of these reasons."""
        self._keep(
            "INSERT INTO overruling (reasons, artwork_id, template_id, why) VALUES (?, ?, ?, ?)",
            reasons,
            artwork_id,
            template_id,
            why,
        )

    def withdraw(self, artwork_id: int, template_id: str) -> None:
        """Withdraw the overrulings of a pair; they stay on record."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE overruling SET withdrawn_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') "
                "WHERE artwork_id = ? AND template_id = ? AND withdrawn_at IS NULL",
                (artwork_id, template_id),
            )

    def hand_in(self, artwork_id: int, template_id: str, submission: HandedIn) -> None:
        """Store a marketplace's answer; ``told.at`` is set by the database."""
        self._keep(
            "INSERT INTO submission (reasons, artwork_id, template_id, market, made_key, accepted, number) VALUES (?, ?, ?, ?, ?, ?, ?)",
            list(submission.reasons),
            artwork_id,
            template_id,
            submission.market,
            submission.made_key,
            int(submission.accepted),
            submission.number,
        )

    def handed_in(self, artwork_id: int, template_id: str) -> list[HandedIn]:
        """Return the submissions of a pair, newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM submission WHERE artwork_id = ? AND template_id = ? ORDER BY id DESC", (artwork_id, template_id)
        )
        return [
            HandedIn(r["market"], r["made_key"], bool(r["accepted"]), r["number"], tuple(json.loads(r["reasons"])), r["at"])
            for r in rows
        ]

    def listed(self) -> set[tuple[int, str]]:
        """Return the pairs that a marketplace has accepted."""
        rows = self._database.connection.execute("SELECT DISTINCT artwork_id, template_id FROM submission WHERE accepted = 1")
        return {(row[0], row[1]) for row in rows}

    def _one(self, query: str, *ids: int | str) -> dict[str, Any]:
        row = self._database.connection.execute(query, ids).fetchone()
        return dict(json.loads(row[0])) if row else {}

    def _keep(self, query: str, value: Any, *ids: int | str | None) -> None:
        with self._database.writing() as connection:
            connection.execute(query, (json.dumps(value, ensure_ascii=False), *ids))
