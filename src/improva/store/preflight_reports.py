"""Stored preflight reports, each under a hash of all that it depends on."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable
from contextlib import suppress
from typing import Any

from .database import Database

KEYS_A_QUERY = 500


class PreflightReports:
    """The preflight reports of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def get(self, key: str) -> dict[str, Any] | None:
        """Return the report of a key, or None."""
        row = self._database.connection.execute("SELECT result FROM preflight_report WHERE key = ?", (key,)).fetchone()
        return dict(json.loads(row[0])) if row else None

    def summaries(self, keys: list[str]) -> dict[str, dict[str, Any]]:
        """Return the stored summaries of many keys, by key."""
        by_key: dict[str, dict[str, Any]] = {}
        for start in range(0, len(keys), KEYS_A_QUERY):
            some = keys[start : start + KEYS_A_QUERY]
            marks = ",".join("?" * len(some))
            rows = self._database.connection.execute(f"SELECT key, summary FROM preflight_report WHERE key IN ({marks})", some)
            by_key |= {key: json.loads(summary) for key, summary in rows if summary}
        return by_key

    def get_or_make(
        self, key: str, make: Callable[[], dict[str, Any]], summarise: Callable[[dict[str, Any]], Any]
    ) -> dict[str, Any]:
        """Return the report of a key. If there is none, make it and store it with its summary."""
        stored = self.get(key)
        if stored is not None:
            return stored
        result = make()
        with suppress(sqlite3.OperationalError), self._database.writing() as writing:  # a full disk stops no check
            row = (key, json.dumps(result, ensure_ascii=False), json.dumps(summarise(result), ensure_ascii=False))
            writing.execute("INSERT OR REPLACE INTO preflight_report (key, result, summary) VALUES (?, ?, ?)", row)
        return result
