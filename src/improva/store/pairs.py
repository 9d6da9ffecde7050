"""Pairs of artwork and blank: placements with their history, route, colours and angle."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from typing import Any

from ..core.design import PanelContent, Placement
from ..core.sewing.seams import Follow
from .database import Database
from .undo import Steps

_FIELDS = [f.name for f in fields(Placement)]


_LATER = {
    "roll_mm": 0.0, "brightness": 0.0, "saturation": 0.0, "white_point": 255.0,
    "flip": "", "twin": "", "stacked": False,
}  # fmt: skip
"""Fields that earlier versions lacked: at their usual value they are left out, so that hashes of placements and pieces stay the same."""


def as_first_stored(placement: Mapping[str, Any]) -> dict[str, Any]:
    """Return a placement's or a piece's values without those that earlier versions lacked, where they are usual."""
    return {name: value for name, value in placement.items() if name not in _LATER or value != _LATER[name]}


def placement_to_dict(placement: PanelContent) -> dict[str, Any]:
    """Return a placement, or a link to another panel, as plain values."""
    if isinstance(placement, Follow):
        return {"seam": placement.seam, "way": placement.way}
    return as_first_stored({name: getattr(placement, name) for name in _FIELDS})


def placement_from_dict(data: dict[str, Any]) -> PanelContent:
    """The reverse of :func:`placement_to_dict`, after a trip through JSON; keys that this version does not know are ignored."""
    if "seam" in data:
        return Follow(data["seam"], data["way"])
    x, y = data["shift_mm"]
    return Placement(**{**{name: value for name, value in data.items() if name in _FIELDS}, "shift_mm": (x, y)})


Placements = dict[str, PanelContent | None]
"""The content of each panel by its id; None for an empty panel. Panels without an entry have no decision yet."""


def _decided(text: str | None) -> Placements:
    return {panel: placement_from_dict(data) if data else None for panel, data in json.loads(text).items()} if text else {}


Pieces = dict[str, list[dict[str, Any]]]
"""The pieces of each panel by its id, as plain values."""


def _row(row: sqlite3.Row) -> PairRow:
    pieces = json.loads(row["pieces"]) if row["pieces"] else {}
    return PairRow(
        _decided(row["placement"]),
        row["step"],
        row["last"] or 0,
        row["route"],
        row["angle"],
        json.loads(row["colours"]),
        pieces,
        json.loads(row["printing"]),
        json.loads(row["mockup_settings"]),
    )


STEPS = Steps("pair", "step", "placement", {"artwork_id": "artwork_id", "template_id": "template_id"})


@dataclass(frozen=True)
class PairRow:
    """A pair as stored. ``placements`` is empty while the suggestions apply."""

    placements: Placements = field(default_factory=dict)
    step: int = 0
    last_step: int = 0
    route: str | None = None
    angle: float = 0.0
    colours: dict[str, str | None] = field(default_factory=dict)
    pieces: Pieces = field(default_factory=dict)
    printing: dict[str, Any] = field(default_factory=dict)
    mockup_settings: dict[str, Any] = field(default_factory=dict)


_SELECT = (
    "SELECT pair.*, now.placement, now.pieces, (SELECT max(step) FROM placement AS p WHERE p.artwork_id = pair.artwork_id "
    "AND p.template_id = pair.template_id) AS last FROM pair LEFT JOIN placement AS now USING (artwork_id, template_id, step)"
)


class Pairs:
    """The pairs of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def get(self, artwork_id: int, template_id: str) -> PairRow:
        """Return a pair; an empty one if none is stored."""
        row = self._database.connection.execute(
            f"{_SELECT} WHERE artwork_id = ? AND template_id = ?", (artwork_id, template_id)
        ).fetchone()
        return _row(row) if row else PairRow()

    def of_art(self, artwork_id: int) -> dict[str, PairRow]:
        """Return every stored pair of an artwork, by blank."""
        rows = self._database.connection.execute(f"{_SELECT} WHERE artwork_id = ?", (artwork_id,))
        return {row["template_id"]: _row(row) for row in rows}

    def place(self, artwork_id: int, template_id: str, decided: Placements, pieces: Pieces | None = None) -> None:
        """Set the placement of some panels, and the text and extras of some.

        Undone steps are removed; earlier ones stay.

        Equal values change nothing.
        """
        pair = (artwork_id, template_id)
        with self._database.writing() as connection:
            connection.execute("INSERT OR IGNORE INTO pair (artwork_id, template_id) VALUES (?, ?)", pair)
            row = connection.execute(f"{_SELECT} WHERE artwork_id = ? AND template_id = ?", pair).fetchone()
            before, stored_pieces = _decided(row["placement"]), json.loads(row["pieces"] or "{}")
            now, with_it = {**before, **decided}, {**stored_pieces, **(pieces or {})}
            if (now, with_it) == (before, stored_pieces):  # a save can arrive twice, when its page is left before the answer
                return
            text = json.dumps({panel: placement_to_dict(placement) if placement else None for panel, placement in now.items()})
            step = STEPS.begin(connection, {"artwork_id": artwork_id, "template_id": template_id})
            connection.execute(
                "INSERT INTO placement (artwork_id, template_id, step, placement, pieces) VALUES (?, ?, ?, ?, ?)",
                (*pair, step, text, json.dumps(with_it, ensure_ascii=False)),
            )

    def move(self, artwork_id: int, template_id: str, by: int) -> None:
        """Undo (-1) or redo (+1) a step; at either end nothing happens."""
        with self._database.writing() as connection:
            STEPS.move(connection, {"artwork_id": artwork_id, "template_id": template_id}, by)

    def set_printing(self, artwork_id: int, template_id: str, printing: dict[str, Any]) -> None:
        """Store a pair's print settings."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, printing) VALUES (?, ?, ?) "
                "ON CONFLICT DO UPDATE SET printing = excluded.printing",
                (artwork_id, template_id, json.dumps(printing)),
            )

    def set_mockup_settings(self, artwork_id: int, template_id: str, mockup_settings: dict[str, Any]) -> None:
        """Store a pair's mock-up settings."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, mockup_settings) VALUES (?, ?, ?) "
                "ON CONFLICT DO UPDATE SET mockup_settings = excluded.mockup_settings",
                (artwork_id, template_id, json.dumps(mockup_settings)),
            )

    def set_choices(
        self, artwork_id: int, template_id: str, route: str | None, angle: float, colours: dict[str, str | None]
    ) -> None:
        """Store a pair's route, colours and angle."""
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO pair (artwork_id, template_id, route, angle, colours) VALUES (?, ?, ?, ?, ?) "
                "ON CONFLICT DO UPDATE SET route = excluded.route, angle = excluded.angle, colours = excluded.colours",
                (artwork_id, template_id, route, angle, json.dumps(colours)),
            )
