"""Back up a data folder to one file, and restore it."""

from __future__ import annotations

import hashlib
import json
import shutil
import sqlite3
import tempfile
import zipfile
from pathlib import Path, PurePosixPath

from .. import __version__
from ..core.errors import ImprovaError
from ..io.atomic import atomic_path
from .migrations import check_version, version_of

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
    with tempfile.TemporaryDirectory() as place, atomic_path(path) as temporary:
        copy = Path(place) / DATABASE
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


def read_backup(path: Path, folder: Path) -> int:
    """Restore a backup to a new or empty folder, and return the number of files.

    It is checked whole before the folder gets its name: names, sizes, checksums, contents by their hashes, the database.
    Raises :class:`BackupError`; then nothing is written.
    """
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())):
        raise BackupError(f"'{folder}' is there and not empty: name a new folder, so that nothing is lost.")
    folder.parent.mkdir(parents=True, exist_ok=True)
    place = Path(tempfile.mkdtemp(prefix=f".{folder.name}-", dir=folder.parent))
    try:
        try:
            with zipfile.ZipFile(path) as archive:
                count = _unpack(archive, place)
        except (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError) as broken:
            raise BackupError(f"'{path.name}' cannot be read as a backup ({broken}): copy it again.") from broken
        _check_database(place / DATABASE, path)
        place.chmod(0o755)
        if folder.exists():
            folder.rmdir()
        place.rename(folder)
    except BaseException:
        shutil.rmtree(place, ignore_errors=True)
        raise
    return count


def _unpack(archive: zipfile.ZipFile, place: Path) -> int:
    names = set(archive.namelist())
    if not {ABOUT, DATABASE} <= names:
        raise BackupError("This ZIP is not a backup of Improva: it was made by something else.")
    try:
        about = json.loads(archive.read(ABOUT))
        form, files = int(about["format"]), int(about["files"])
    except (ValueError, KeyError, TypeError) as broken:
        raise BackupError("The backup does not say what it is: it is damaged.") from broken
    if form > FORMAT:
        raise BackupError("The backup was made by a newer Improva: bring this one up to date first.")
    if files != len(names) - 2 or len(names) != len(archive.namelist()):
        raise BackupError("Files are missing from the backup: copy it again.")
    for name in names - {ABOUT}:
        parts = PurePosixPath(name).parts
        safe = name == DATABASE or (len(parts) > 1 and parts[0] in FOLDERS and not {"..", "."} & set(parts))
        if not safe or "\\" in name or name != "/".join(parts):
            raise BackupError(f"The backup holds '{name}', which does not belong in one: it was made by something else.")
        target = place.joinpath(*parts)
        target.parent.mkdir(parents=True, exist_ok=True)
        digest = hashlib.sha256()
        with archive.open(name) as source, target.open("wb") as out:
            while chunk := source.read(CHUNK):
                digest.update(chunk)
                out.write(chunk)
        if parts[0] == "blobs" and digest.hexdigest() != parts[-1]:
            raise BackupError(f"The backup's {name} is not what it was: it is damaged.")
    return files


def _check_database(file: Path, path: Path) -> None:
    """Raises :class:`BackupError` for a damaged database, :class:`NewerDatabaseError` for one of a newer version."""
    connection = sqlite3.connect(file)
    try:
        sound = connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        known = connection.execute("SELECT count(*) FROM sqlite_master WHERE name = 'artwork'").fetchone()[0]
        check_version(version_of(connection))
    except sqlite3.DatabaseError as broken:
        raise BackupError(f"The database in '{path.name}' is damaged: copy the backup again.") from broken
    finally:
        connection.close()
    if not (sound and known):
        raise BackupError(f"The database in '{path.name}' is damaged: copy the backup again.")
