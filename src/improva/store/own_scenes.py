"""The seller's own scenes: marked photographs and imported packs. Pack folders are written aside and renamed."""

from __future__ import annotations

import json
import shutil
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ..io.atomic import sweep, temporary_prefix
from .database import Database

ASIDE = "aside"
"""Folder of removed packs. Scenes are not searched for there."""


@dataclass(frozen=True)
class OwnSceneRow:
    """One of the seller's own scenes; ``pack`` is its scene's id once made. Without ``photo_id`` it is an imported pack."""

    id: int
    photo_id: int | None
    template_id: str
    panel_id: str
    title: str
    marks: dict[str, Any]
    pack: str | None


class OwnScenes:
    """The seller's own scenes in one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self.folder = database.folder / "scenes"
        (self.folder / ASIDE).mkdir(parents=True, exist_ok=True)
        sweep(self.folder)

    def all(self) -> list[OwnSceneRow]:
        """Return every scene that was not removed, the newest last."""
        rows = self._database.connection.execute("SELECT * FROM own_scene WHERE removed_at IS NULL ORDER BY id")
        return [_row(row) for row in rows]

    def get(self, scene_id: int) -> OwnSceneRow | None:
        """Return one scene, also a removed one."""
        row = self._database.connection.execute("SELECT * FROM own_scene WHERE id = ?", (scene_id,)).fetchone()
        return _row(row) if row else None

    def add(self, photo_id: int | None, template_id: str, panel_id: str, title: str, pack: str | None = None) -> OwnSceneRow:
        """Add a scene."""
        with self._database.writing() as connection:
            cursor = connection.execute(
                "INSERT INTO own_scene (photo_id, template_id, panel_id, title, pack) VALUES (?, ?, ?, ?, ?) RETURNING *",
                (photo_id, template_id, panel_id, title, pack),
            ).fetchone()
        return _row(cursor)

    def mark(self, scene_id: int, panel_id: str, title: str, marks: dict[str, Any]) -> None:
        """Store the marks."""
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE own_scene SET panel_id = ?, title = ?, marks = ? WHERE id = ?",
                (panel_id, title, json.dumps(marks), scene_id),
            )

    def put_pack(self, name: str, write: Callable[[Path], object]) -> None:
        """Write a whole pack under its name, in place of an existing one."""
        with tempfile.TemporaryDirectory(prefix=temporary_prefix(name), dir=self.folder) as place:
            folder = Path(place) / name
            folder.mkdir()
            write(folder)
            old = Path(place) / "old"
            if (self.folder / name).exists():
                (self.folder / name).rename(old)
            folder.rename(self.folder / name)

    def set_pack(self, scene_id: int, pack: str) -> None:
        """Set the pack of a scene."""
        with self._database.writing() as connection:
            connection.execute("UPDATE own_scene SET pack = ? WHERE id = ?", (pack, scene_id))

    def set_removed(self, row: OwnSceneRow, removed: bool) -> None:
        """Remove a scene or restore it; its pack is kept aside meanwhile."""
        when = "strftime('%Y-%m-%dT%H:%M:%fZ', 'now')" if removed else "NULL"
        with self._database.writing() as connection:
            connection.execute(f"UPDATE own_scene SET removed_at = {when} WHERE id = ?", (row.id,))
        if row.pack is None:
            return
        here, aside = self.folder / row.pack, self.folder / ASIDE / row.pack
        source, target = (here, aside) if removed else (aside, here)
        if source.exists():
            shutil.rmtree(target, ignore_errors=True)
            source.rename(target)


def _row(row: Any) -> OwnSceneRow:
    return OwnSceneRow(
        row["id"], row["photo_id"], row["template_id"], row["panel_id"], row["title"], json.loads(row["marks"]), row["pack"]
    )
