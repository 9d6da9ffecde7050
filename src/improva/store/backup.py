"""Back up a data folder to one file; :mod:`.restore` reads it."""

from __future__ import annotations

import json
import sqlite3
import zipfile
from pathlib import Path

from .. import __version__
from ..core.errors import ImprovaError
from ..io.atomic import atomic_path, work_folder

ABOUT = "backup.json"
DATABASE = "improva.sqlite"
FOLDERS = ("blobs", "made", "scenes")
"""Folders of a data folder beside its database: originals, results, the seller's own scenes."""

FORMAT = 1
CHUNK = 1 << 20


class BackupError(ImprovaError):
    """The file is no backup or damaged, or the target folder is not empty."""


def _files(folder: Path) -> list[tuple[str, Path]]:
    """Return files by their names in the backup, without unfinished ones."""
    paths = [path for name in FOLDERS for path in sorted((folder / name).rglob("*")) if path.is_file()]
    names = [(path.relative_to(folder), path) for path in paths]
    return [(name.as_posix(), path) for name, path in names if not any(part.startswith(".") for part in name.parts)]


def write_backup(folder: Path, path: Path) -> int:
    """Write all of a data folder to one ZIP, also while it is in use, and return the number of files.

    The database is copied as it is at one moment, so that nothing in it is half done; files are named by their content or
    written whole, so that those it speaks of are there. Raises :class:`BackupError` and :class:`OutputError`.
    """
    if not (folder / DATABASE).is_file():
        raise BackupError(f"'{folder}' is not a data folder of Improva: there is no {DATABASE} in it.")
    with work_folder(folder / "work", "backup") as place, atomic_path(path) as temporary:
        copy = place / DATABASE
        source, target = sqlite3.connect(folder / DATABASE), sqlite3.connect(copy)
        try:
            source.backup(target)
        finally:
            target.close()
            source.close()
        files = _files(folder)
        about = {"format": FORMAT, "version": __version__, "files": len(files)}
        with zipfile.ZipFile(temporary, "w", zipfile.ZIP_STORED) as archive:
            archive.writestr(ABOUT, json.dumps(about, indent=2))
            archive.write(copy, DATABASE, zipfile.ZIP_DEFLATED)
            for name, file in files:
                archive.write(file, name)
    return len(files)
