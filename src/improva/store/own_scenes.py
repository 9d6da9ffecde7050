"""The seller's own scenes: marked photographs and imported packs. Pack folders are written aside and renamed."""

from __future__ import annotations

import json
import re
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ..core.errors import SceneError
from ..io.atomic import sweep, temporary_prefix
from .database import Database, checked

ASIDE = "aside"
"""Folder of removed packs, each by its row's id: two of one name can be there. Scenes are not searched for there."""

PACK = re.compile(r"(?!aside$)[a-z0-9][a-z0-9-]{0,199}")
"""Names of packs."""


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
        self._settle()

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

    def _place(self, pack: str) -> Path:
        """Return the folder of a pack. Raises :class:`MissingFileError` for a name that is none."""
        return self.folder / checked(PACK, pack)

    def _aside(self, scene_id: int) -> Path:
        return self.folder / ASIDE / f"row {scene_id}"  # no pack can have this name

    def put_pack(self, name: str, write: Callable[[Path], object]) -> None:
        """Write a whole pack under its name, in place of an existing one."""
        target = self._place(name)
        with tempfile.TemporaryDirectory(prefix=temporary_prefix(name), dir=self.folder) as place:
            folder = Path(place) / name
            folder.mkdir()
            write(folder)
            if target.exists():
                target.rename(Path(place) / "old")
            folder.rename(target)

    def set_pack(self, scene_id: int, pack: str) -> None:
        """Set the pack of a scene."""
        with self._database.writing() as connection:
            connection.execute("UPDATE own_scene SET pack = ? WHERE id = ?", (pack, scene_id))

    def set_removed(self, row: OwnSceneRow, removed: bool) -> None:
        """Remove a scene or restore it; its pack is kept aside meanwhile.

        Raises:
            SceneError: another scene has a pack of the same id now.
        """
        if not removed and row.pack is not None and self._aside(row.id).exists() and self._place(row.pack).exists():
            raise SceneError(f"There is another scene '{row.pack}' now: remove that one first.")
        when = "strftime('%Y-%m-%dT%H:%M:%fZ', 'now')" if removed else "NULL"
        with self._database.writing() as connection:
            connection.execute(f"UPDATE own_scene SET removed_at = {when} WHERE id = ?", (row.id,))
        self._settle()

    def _settle(self) -> None:
        """Move each pack to where its row says it is; a process may have been killed between the two."""
        rows = self._database.connection.execute(
            "SELECT id, pack, removed_at IS NOT NULL AS removed FROM own_scene WHERE pack IS NOT NULL"
        ).fetchall()
        present = {row["pack"] for row in rows if not row["removed"]}
        for row in rows:
            here, aside = self._place(row["pack"]), self._aside(row["id"])
            by_name = self.folder / ASIDE / row["pack"]  # where earlier versions kept it
            if by_name.exists() and not aside.exists() and row["removed"]:
                by_name.rename(aside)
            if row["removed"] and here.exists() and not aside.exists() and row["pack"] not in present:
                here.rename(aside)
            if not row["removed"] and aside.exists() and not here.exists():
                aside.rename(here)


def _row(row: Any) -> OwnSceneRow:
    return OwnSceneRow(
        row["id"], row["photo_id"], row["template_id"], row["panel_id"], row["title"], json.loads(row["marks"]), row["pack"]
    )
