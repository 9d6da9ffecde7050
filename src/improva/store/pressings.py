"""Presses, makers' figures, and the log of pressings."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass

from ..core.press import Figures, Method, Pressing
from .database import Database


@dataclass(frozen=True)
class PressRow:
    """One of the seller's presses."""

    name: str
    method: Method
    platen_mm: tuple[float, float]


@dataclass(frozen=True)
class PressingRow:
    """An entry of the log: the pressing, its pair, and the hash of its photograph."""

    pressing: Pressing
    artwork_id: int | None
    press: str
    photo: str | None


def _row(row: sqlite3.Row) -> PressingRow:
    pressing = Pressing(
        row["id"],
        row["done_on"],
        Figures(**json.loads(row["figures"])),
        row["result"],
        tuple(json.loads(row["faults"])),
        row["note"],
    )
    return PressingRow(pressing, row["artwork_id"], row["press"], row["photo"])


class Pressings:
    """The presses, figures and press log of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def presses(self, method: Method) -> list[PressRow]:
        """Return the seller's presses of a kind, by name."""
        rows = self._database.connection.execute("SELECT * FROM press WHERE method = ? ORDER BY name", (method,))
        return [PressRow(row["name"], row["method"], (row["platen_w_mm"], row["platen_h_mm"])) for row in rows]

    def keep_press(self, press: PressRow) -> None:
        """Store a press; it replaces one of the same name."""
        with self._database.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO press VALUES (?, ?, ?, ?)", (press.name, press.method, *press.platen_mm))

    def maker(self, template_id: str, finish: str, method: Method) -> Figures | None:
        """Return the maker's figures, or None."""
        row = self._database.connection.execute(
            "SELECT figures FROM maker_figures WHERE template_id = ? AND finish = ? AND method = ?",
            (template_id, finish, method),
        ).fetchone()
        return Figures(**json.loads(row[0])) if row else None

    def keep_maker(self, template_id: str, finish: str, method: Method, figures: Figures | None) -> None:
        """Store the maker's figures; None removes them."""
        key = (template_id, finish, method)
        with self._database.writing() as connection:
            if figures is None:
                connection.execute("DELETE FROM maker_figures WHERE template_id = ? AND finish = ? AND method = ?", key)
            else:
                connection.execute(
                    "INSERT OR REPLACE INTO maker_figures VALUES (?, ?, ?, ?)", (*key, json.dumps(asdict(figures)))
                )

    def log(self, template_id: str, finish: str, method: Method, press: str) -> list[PressingRow]:
        """Return the pressings of a blank and finish in a press, the newest first."""
        rows = self._database.connection.execute(
            "SELECT * FROM pressing WHERE template_id = ? AND finish = ? AND method = ? AND press = ? AND removed_at IS NULL "
            "ORDER BY done_on DESC, id DESC",
            (template_id, finish, method, press),
        )
        return [_row(row) for row in rows]

    def add(self, template_id: str, finish: str, method: Method, press: str, artwork_id: int, pressing: Pressing) -> int:
        """Add a pressing and return its id."""
        with self._database.writing() as connection:
            row = connection.execute(
                "INSERT INTO pressing (template_id, finish, method, press, artwork_id, done_on, figures, result, faults, note) "
                "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id",
                (
                    template_id,
                    finish,
                    method,
                    press,
                    artwork_id,
                    pressing.on,
                    json.dumps(asdict(pressing.figures)),
                    pressing.result,
                    json.dumps(pressing.faults),
                    pressing.note,
                ),
            ).fetchone()
        return int(row[0])

    def keep_photo(self, pressing_id: int, data: bytes) -> None:
        """Store a photograph with a pressing."""
        sha256 = self._database.put_blob(data)
        with self._database.writing() as connection:
            connection.execute("UPDATE pressing SET photo = ? WHERE id = ?", (sha256, pressing_id))

    def photo(self, pressing_id: int) -> str | None:
        """Return the hash of a pressing's photograph, or None."""
        row = self._database.connection.execute("SELECT photo FROM pressing WHERE id = ?", (pressing_id,)).fetchone()
        return row[0] if row else None

    def remove(self, pressing_id: int) -> None:
        """Remove an entry from the log; it stays stored but no longer counts."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE pressing SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = ? AND removed_at IS NULL",
                (pressing_id,),
            )

    def pressed(self) -> set[tuple[int, str]]:
        """Return artwork and blank of every pair with a pressing that did not spoil."""
        rows = self._database.connection.execute(
            "SELECT DISTINCT artwork_id, template_id FROM pressing WHERE removed_at IS NULL AND result != 'spoiled' "
            "AND artwork_id IS NOT NULL"
        )
        return {(row[0], row[1]) for row in rows}
