"""Items of personalised orders: what each one holds, and how far its proof has come."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Literal, get_args

from .database import Database
from .jobs import JobRow, job_row

ProofState = Literal["made", "sent", "changes", "approved", "printed", "shipped"]
"""How far an item has come. ``changes``: the buyer asks for changes; its words are kept with it."""

PROOF_STATES: tuple[ProofState, ...] = get_args(ProofState)


@dataclass(frozen=True)
class NewItem:
    """An item that was made.

    Attributes:
        contents: ``values`` and ``photos`` of the open places.
        design: hash of the design that its proof shows.
        held: whether its print file waits for the buyer's approval.
    """

    name: str
    quantity: int
    contents: dict[str, Any]
    design: str
    held: bool


@dataclass(frozen=True)
class ItemRow(NewItem):
    """A stored item; ``words`` are what the buyer asks for."""

    id: int
    artwork_id: int
    template_id: str
    state: ProofState
    words: str
    changed_at: str


def _row(row: sqlite3.Row) -> ItemRow:
    return ItemRow(**{**dict(row), "contents": json.loads(row["contents"]), "held": bool(row["held"])})


class OrderItems:
    """The order items of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def unread(self) -> list[JobRow]:
        """Return the jobs of orders that are done, and whose items are not stored yet; the oldest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM job WHERE kind = 'orders' AND state = 'done' AND id NOT IN (SELECT job_id FROM order_report) ORDER BY id"
        )
        return [job_row(row) for row in rows]

    def take_in(self, job: JobRow, items: Iterable[NewItem]) -> None:
        """Store what a job made. An item whose contents or design changed begins anew: its proof is another one."""
        with self._database.writing() as connection:
            for item in reversed(list(items)):  # the list shows those that were stored last first
                contents = json.dumps(item.contents, sort_keys=True)
                pair = (job.artwork_id, job.template_id, item.name)
                connection.execute(
                    "DELETE FROM order_item WHERE artwork_id = ? AND template_id = ? AND name = ? AND (contents, design) != (?, ?)",
                    (*pair, contents, item.design),
                )
                connection.execute(
                    "INSERT INTO order_item (artwork_id, template_id, name, quantity, contents, design, held) "
                    "VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT (artwork_id, template_id, name) "
                    "DO UPDATE SET quantity = excluded.quantity, held = excluded.held",
                    (*pair, item.quantity, contents, item.design, item.held),
                )
            connection.execute("INSERT OR IGNORE INTO order_report VALUES (?)", (job.id,))

    def all(self, artwork_id: int | None = None, template_id: str | None = None) -> list[ItemRow]:
        """Return the items of a pair, or of all pairs; those that were made last come first."""
        where, values = ("artwork_id = ? AND template_id = ?", (artwork_id, template_id)) if template_id else ("1", ())
        rows = self._database.connection.execute(f"SELECT * FROM order_item WHERE {where} ORDER BY id DESC", values)
        return [_row(row) for row in rows]

    def put_state(self, ids: Sequence[int], state: ProofState, words: str) -> int:
        """Note how far items have come; return how many there are of them."""
        marks = ",".join("?" * len(ids))
        with self._database.writing() as connection:
            changed = connection.execute(
                f"UPDATE order_item SET state = ?, words = ?, changed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id IN ({marks})",
                (state, words, *ids),
            )
        return changed.rowcount
