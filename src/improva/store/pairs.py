"""Pairs of artwork and blank: the placing with all its history, the route, and how the mock-up stands."""

from __future__ import annotations

import json
from dataclasses import asdict, dataclass, field
from typing import Any

from ..core.design import Placing
from .database import Database


def placing_to_dict(placing: Placing) -> dict[str, Any]:
    """Plain values of a placing."""
    return asdict(placing)


def placing_from_dict(data: dict[str, Any]) -> Placing:
    """The reverse of :func:`placing_to_dict`, after a trip through JSON."""
    x, y = data["shift_mm"]
    return Placing(**{**data, "shift_mm": (x, y)})


@dataclass(frozen=True)
class PairRow:
    """What is kept of a pair. ``placing`` is None while nothing was decided and the default holds."""

    placing: Placing | None = None
    step: int = 0
    last_step: int = 0
    route: str | None = None
    angle: float = 0.0
    colours: dict[str, str | None] = field(default_factory=dict)


class Pairs:
    """The pairs of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def get(self, artwork_id: int, template_id: str) -> PairRow:
        """A pair; one with nothing decided if it is not kept."""
        row = self._database.connection.execute(
            "SELECT pair.*, now.placing, (SELECT max(step) FROM placing AS p WHERE p.artwork_id = pair.artwork_id "
            "AND p.template_id = pair.template_id) AS last FROM pair LEFT JOIN placing AS now "
            "USING (artwork_id, template_id, step) WHERE artwork_id = ? AND template_id = ?",
            (artwork_id, template_id),
        ).fetchone()
        if row is None:
            return PairRow()
        placing = placing_from_dict(json.loads(row["placing"])) if row["placing"] else None
        return PairRow(placing, row["step"], row["last"] or 0, row["route"], row["angle"], json.loads(row["colours"]))

    def place(self, artwork_id: int, template_id: str, placing: Placing) -> None:
        """Decide a placing. What had been undone is forgotten; what was decided before is kept."""
        text = json.dumps(placing_to_dict(placing))
        pair = (artwork_id, template_id)
        with self._database.writing() as connection:
            connection.execute("INSERT OR IGNORE INTO pair (artwork_id, template_id) VALUES (?, ?)", pair)
            step = connection.execute("SELECT step FROM pair WHERE artwork_id = ? AND template_id = ?", pair).fetchone()[0]
            connection.execute("DELETE FROM placing WHERE artwork_id = ? AND template_id = ? AND step > ?", (*pair, step))
            connection.execute("INSERT INTO placing VALUES (?, ?, ?, ?)", (*pair, step + 1, text))
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

    def set_choices(self, artwork_id: int, template_id: str, route: str | None, angle: float,
                    colours: dict[str, str | None]) -> None:  # fmt: skip
        """Keep the route and how the mock-up stands."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, route, angle, colours) VALUES (?, ?, ?, ?, ?) "
                "ON CONFLICT DO UPDATE SET route = excluded.route, angle = excluded.angle, colours = excluded.colours",
                (artwork_id, template_id, route, angle, json.dumps(colours)),
            )
