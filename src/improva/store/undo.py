"""Undo and redo: a record has numbered steps and a current one. A new step replaces the undone ones."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Steps:
    """Where the steps of a record are stored. All values are names in the schema, never input.

    Attributes:
        record: table of the record.
        current: its column with the number of the current step; 0 is the state before any step.
        steps: table of the steps, with a column ``step``.
        keys: by column of the record, the column of the steps that refers to it.
    """

    record: str
    current: str
    steps: str
    keys: Mapping[str, str]

    def move(self, connection: sqlite3.Connection, record: Mapping[str, object], by: int) -> None:
        """Undo (-1) or redo (+1) a step of the record with these key values; at either end nothing happens."""
        connection.execute(
            f"UPDATE {self.record} SET {self.current} = {self.current} + :by WHERE {self._is(self.keys)} "
            f"AND {self.current} + :by BETWEEN 0 AND "
            f"(SELECT coalesce(max(step), 0) FROM {self.steps} WHERE {self._is(self.keys.values())})",
            {**self._values(record), "by": by},
        )

    def begin(self, connection: sqlite3.Connection, record: Mapping[str, object]) -> int:
        """Delete the undone steps and make the next step the current one; return its number."""
        values = self._values(record)
        (step,) = connection.execute(f"SELECT {self.current} FROM {self.record} WHERE {self._is(self.keys)}", values).fetchone()
        connection.execute(
            f"DELETE FROM {self.steps} WHERE {self._is(self.keys.values())} AND step > :step", {**values, "step": step}
        )
        connection.execute(f"UPDATE {self.record} SET {self.current} = {self.current} + 1 WHERE {self._is(self.keys)}", values)
        return int(step) + 1

    def _is(self, columns: Iterable[str]) -> str:
        return " AND ".join(f"{column} = :key{i}" for i, column in enumerate(columns))

    def _values(self, record: Mapping[str, object]) -> dict[str, object]:
        return {f"key{i}": record[column] for i, column in enumerate(self.keys)}
