"""Pairs of artwork and blank: the placing with all its history, the route, and how the mock-up stands."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass, field, fields
from typing import Any

from ..core.design import Laying, Placing
from ..core.sewing.seams import Follow
from .database import Database

_FIELDS = [f.name for f in fields(Placing)]


def placing_to_dict(placing: Laying) -> dict[str, Any]:
    """Plain values of a placing, or of what a panel follows."""
    if isinstance(placing, Follow):
        return {"seam": placing.seam, "way": placing.way}
    return {name: getattr(placing, name) for name in _FIELDS}


def placing_from_dict(data: dict[str, Any]) -> Laying:
    """The reverse of :func:`placing_to_dict`, after a trip through JSON."""
    if "seam" in data:
        return Follow(**data)
    x, y = data["shift_mm"]
    return Placing(**{**data, "shift_mm": (x, y)})


Placings = dict[str, Laying | None]
"""What was decided of each panel, by its id; None for one that stays empty. Panels that are not there are undecided."""


def _decided(text: str | None) -> Placings:
    return {panel: placing_from_dict(data) if data else None for panel, data in json.loads(text).items()} if text else {}


Pieces = dict[str, list[dict[str, Any]]]
"""What is laid with the artwork on each panel, by its id, as plain values."""


def _row(row: sqlite3.Row) -> PairRow:
    pieces = json.loads(row["pieces"]) if row["pieces"] else {}
    return PairRow(
        _decided(row["placing"]), row["step"], row["last"] or 0, row["route"], row["angle"], json.loads(row["colours"]), pieces,
        json.loads(row["printing"]), json.loads(row["showing"]),
    )  # fmt: skip


@dataclass(frozen=True)
class PairRow:
    """What is kept of a pair. ``placings`` is empty while nothing was decided and the proposals hold."""

    placings: Placings = field(default_factory=dict)
    step: int = 0
    last_step: int = 0
    route: str | None = None
    angle: float = 0.0
    colours: dict[str, str | None] = field(default_factory=dict)
    pieces: Pieces = field(default_factory=dict)
    printing: dict[str, Any] = field(default_factory=dict)
    showing: dict[str, Any] = field(default_factory=dict)


_SELECT = (
    "SELECT pair.*, now.placing, now.pieces, (SELECT max(step) FROM placing AS p WHERE p.artwork_id = pair.artwork_id "
    "AND p.template_id = pair.template_id) AS last FROM pair LEFT JOIN placing AS now USING (artwork_id, template_id, step)"
)


class Pairs:
    """The pairs of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def get(self, artwork_id: int, template_id: str) -> PairRow:
        """A pair; one with nothing decided if it is not kept."""
        row = self._database.connection.execute(
            f"{_SELECT} WHERE artwork_id = ? AND template_id = ?", (artwork_id, template_id)
        ).fetchone()
        return _row(row) if row else PairRow()

    def of_art(self, artwork_id: int) -> dict[str, PairRow]:
        """Every pair of an artwork that is kept, by blank."""
        found = self._database.connection.execute(f"{_SELECT} WHERE artwork_id = ?", (artwork_id,))
        return {row["template_id"]: _row(row) for row in found}

    def place(self, artwork_id: int, template_id: str, decided: Placings, pieces: Pieces | None = None) -> None:
        """Decide the placing of some panels, and what is laid on some with it.

        What had been undone is forgotten; what was decided before is kept.

        Deciding what holds already changes nothing.
        """
        pair = (artwork_id, template_id)
        with self._database.writing() as connection:
            connection.execute("INSERT OR IGNORE INTO pair (artwork_id, template_id) VALUES (?, ?)", pair)
            row = connection.execute(f"{_SELECT} WHERE artwork_id = ? AND template_id = ?", pair).fetchone()
            before, laid = _decided(row["placing"]), json.loads(row["pieces"] or "{}")
            now, with_it = {**before, **decided}, {**laid, **(pieces or {})}
            if (now, with_it) == (
                before,
                laid,
            ):  # the same decision come twice, as when a page is left while its answer is on the way
                return
            text = json.dumps({panel: placing_to_dict(placing) if placing else None for panel, placing in now.items()})
            connection.execute(
                "DELETE FROM placing WHERE artwork_id = ? AND template_id = ? AND step > ?", (*pair, row["step"])
            )
            connection.execute(
                "INSERT INTO placing (artwork_id, template_id, step, placing, pieces) VALUES (?, ?, ?, ?, ?)",
                (*pair, row["step"] + 1, text, json.dumps(with_it, ensure_ascii=False)),
            )
            connection.execute("UPDATE pair SET step = step + 1 WHERE artwork_id = ? AND template_id = ?", pair)

    def move(self, artwork_id: int, template_id: str, by: int) -> None:
        """Undo (-1) or redo (+1) a placing; at either end nothing happens."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE pair SET step = step + :by WHERE artwork_id = :art AND template_id = :template "
                "AND step + :by BETWEEN 0 AND (SELECT coalesce(max(step), 0) FROM placing "
                "WHERE artwork_id = :art AND template_id = :template)",
                {"by": by, "art": artwork_id, "template": template_id},
            )

    def set_printing(self, artwork_id: int, template_id: str, printing: dict[str, Any]) -> None:
        """Keep how the print files are made."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, printing) VALUES (?, ?, ?) "
                "ON CONFLICT DO UPDATE SET printing = excluded.printing",
                (artwork_id, template_id, json.dumps(printing)),
            )

    def set_showing(self, artwork_id: int, template_id: str, showing: dict[str, Any]) -> None:
        """Keep how the pictures are made."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, showing) VALUES (?, ?, ?) "
                "ON CONFLICT DO UPDATE SET showing = excluded.showing",
                (artwork_id, template_id, json.dumps(showing)),
            )

    def set_choices(self, artwork_id: int, template_id: str, route: str | None, angle: float,
                    colours: dict[str, str | None]) -> None:  # fmt: skip
        """Keep the route and how the mock-up stands."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, route, angle, colours) VALUES (?, ?, ?, ?, ?) "
                "ON CONFLICT DO UPDATE SET route = excluded.route, angle = excluded.angle, colours = excluded.colours",
                (artwork_id, template_id, route, angle, json.dumps(colours)),
            )
