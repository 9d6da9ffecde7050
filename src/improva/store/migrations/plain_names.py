"""Keys inside stored JSON by the names of docs/glossary.md."""

from __future__ import annotations

import json
import sqlite3
from typing import Any


def rename_keys(connection: sqlite3.Connection) -> None:
    """Rename keys in the pieces of placements, and in the parameters of jobs."""
    for artwork_id, template_id, step, text in connection.execute(
        "SELECT artwork_id, template_id, step, pieces FROM placement"
    ):
        pieces = {
            panel: [_renamed(piece, "placing", "placement") for piece in each] for panel, each in json.loads(text).items()
        }
        connection.execute(
            "UPDATE placement SET pieces = ? WHERE artwork_id = ? AND template_id = ? AND step = ?",
            (json.dumps(pieces, ensure_ascii=False), artwork_id, template_id, step),
        )
    for job_id, text in connection.execute("SELECT id, parameters FROM job").fetchall():
        parameters = _renamed(json.loads(text), "showing", "mockup_settings")
        connection.execute("UPDATE job SET parameters = ? WHERE id = ?", (json.dumps(parameters, sort_keys=True), job_id))


def _renamed(values: dict[str, Any], old: str, new: str) -> dict[str, Any]:
    return {new if name == old else name: value for name, value in values.items()}
