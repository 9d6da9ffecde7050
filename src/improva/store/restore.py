"""Restore a data folder from a backup. The backup may be damaged, or made by a stranger: everything in it is checked."""

from __future__ import annotations

import hashlib
import json
import re
import shutil
import sqlite3
import tempfile
import zipfile
from pathlib import Path, PurePosixPath

from ..io.atomic import sweep, temporary_prefix
from .backup import ABOUT, CHUNK, DATABASE, FOLDERS, FORMAT, BackupError
from .database import BLOB, KEY, Database, checked
from .migrations import check_version, migrate, version_of
from .own_scenes import PACK
from .repositories import Store

MAX_RATIO, SPARE_BYTES = 50, 200_000_000
"""How many times larger than its ZIP a backup may be, and free space that is left on the disk. Only the database is packed."""

MOST_FILES = 5_000_000
DAMAGED = "The database in '{}' is damaged: copy the backup again."

NAMES: tuple[tuple[str, str, re.Pattern[str]], ...] = (
    ("artwork", "sha256", BLOB),
    ("prepared", "sha256", BLOB),
    ("font", "sha256", BLOB),
    ("blank_file", "sha256", BLOB),
    ("made_file", "key", KEY),
    ("own_scene", "pack", PACK),
)
"""Columns that name files."""


def read_backup(path: Path, folder: Path) -> int:
    """Restore a backup to a new or empty folder, and return the number of files.

    It is checked whole before the folder gets its name: names, sizes, contents by their hashes, and every record. The records are
    copied into a new database, so that nothing but rows of known tables is taken over.

    Raises:
        BackupError: the file is no backup or damaged, or the folder is not empty; then nothing is written.
        NewerDatabaseError: a newer version of Improva has written it.
    """
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())):
        raise BackupError(f"'{folder}' is there and not empty: name a new folder, so that nothing is lost.")
    folder.parent.mkdir(parents=True, exist_ok=True)
    sweep(folder.parent)
    place = Path(tempfile.mkdtemp(prefix=temporary_prefix(folder.name), dir=folder.parent))
    try:
        try:
            with zipfile.ZipFile(path) as archive:
                count = _unpack(archive, path.stat().st_size, place)
        except (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError, ValueError) as broken:
            raise BackupError(f"'{path.name}' cannot be read as a backup ({broken}): copy it again.") from broken
        _renew_database(place, path)
        place.chmod(0o755)
        if folder.exists():
            folder.rmdir()
        place.rename(folder)
    except BaseException:
        shutil.rmtree(place, ignore_errors=True)
        raise
    return count


def _about(archive: zipfile.ZipFile) -> tuple[int, int]:
    """Return the format and the number of files that a backup states."""
    try:
        entry = archive.getinfo(ABOUT)
        about = json.loads(archive.read(entry) if entry.file_size < CHUNK else b"")
        return int(about["format"]), int(about["files"])
    except (ValueError, KeyError, TypeError, RecursionError) as broken:
        raise BackupError("The backup does not say what it is: it is damaged.") from broken


def _check_entries(archive: zipfile.ZipFile, zip_bytes: int, place: Path) -> list[zipfile.ZipInfo]:
    """Return the entries to unpack, whose names, number and sizes are right."""
    entries = archive.infolist()
    names = {entry.filename for entry in entries}
    if not {ABOUT, DATABASE} <= names:
        raise BackupError("This ZIP is not a backup of Improva: it was made by something else.")
    form, files = _about(archive)
    if form > FORMAT:
        raise BackupError("The backup was made by a newer Improva: bring this one up to date first.")
    if files != len(names) - 2 or len(names) != len(entries):
        raise BackupError("Files are missing from the backup: copy it again.")
    total = sum(entry.file_size for entry in entries)
    if len(entries) > MOST_FILES or total > MAX_RATIO * zip_bytes:
        raise BackupError(
            f"The backup would unpack to {total / 1e9:.1f} GB, far more than its size: it was made by something else."
        )
    if total + SPARE_BYTES > shutil.disk_usage(place).free:
        raise BackupError(f"The backup needs {total / 1e9:.1f} GB of space: make room on the disk, and try again.")
    for entry in entries:
        parts = PurePosixPath(entry.filename).parts
        safe = entry.filename in (ABOUT, DATABASE) or (len(parts) > 1 and parts[0] in FOLDERS and not {"..", "."} & set(parts))
        if not safe or "\\" in entry.filename or entry.filename != "/".join(parts):
            raise BackupError(
                f"The backup holds '{entry.filename}', which does not belong in one: it was made by something else."
            )
    return [entry for entry in entries if entry.filename != ABOUT]


def _unpack(archive: zipfile.ZipFile, zip_bytes: int, place: Path) -> int:
    entries = _check_entries(archive, zip_bytes, place)
    for entry in entries:
        parts = PurePosixPath(entry.filename).parts
        target = place.joinpath(*parts)
        target.parent.mkdir(parents=True, exist_ok=True)
        digest = hashlib.sha256()
        with archive.open(entry) as source, target.open("wb") as out:
            while chunk := source.read(CHUNK):
                digest.update(chunk)
                out.write(chunk)
        if parts[0] == "blobs" and digest.hexdigest() != parts[-1]:
            raise BackupError(f"The backup's {entry.filename} is not what it was: it is damaged.")
    return len(entries) - 1


def _renew_database(place: Path, path: Path) -> None:
    """Put a new database with the backup's rows in the place of its own.

    Raises :class:`BackupError` for a damaged one, :class:`NewerDatabaseError` for one of a newer version.
    """
    old, new = place / DATABASE, place / "new.sqlite"
    try:
        _copy_rows(old, new)
        old.unlink()
        for left in place.glob(f"{DATABASE}-*"):
            left.unlink()
        new.rename(old)
        _check_records(place)
    except (sqlite3.Error, OverflowError) as broken:
        raise BackupError(DAMAGED.format(path.name)) from broken


def _copy_rows(old: Path, new: Path) -> None:
    """Copy the rows of every known table into a new database. A stranger's triggers and views stay behind."""
    source = sqlite3.connect(old, isolation_level=None)
    try:
        if source.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
            raise sqlite3.DatabaseError("the integrity check has failed")
        check_version(version_of(source))
        migrate(source, old)
    finally:
        source.close()
    target = sqlite3.connect(new, isolation_level=None)
    try:
        migrate(target, new)
        triggers = target.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").fetchall()
        for name, _ in triggers:  # what they would note was noted when the rows were first written
            target.execute(f"DROP TRIGGER {name}")
        target.execute("PRAGMA foreign_keys = OFF")
        target.execute("ATTACH ? AS backup", (str(old),))
        target.execute("BEGIN")
        for (table,) in target.execute(
            "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%'"
        ).fetchall():
            columns = [row[1] for row in target.execute(f"PRAGMA main.table_info({table})")]
            theirs = ", ".join(f'b."{column}"' for column in columns)  # without "b." SQLite takes a missing column for a text
            target.execute(f"DELETE FROM main.{table}")
            target.execute(f"INSERT INTO main.{table} ({', '.join(columns)}) SELECT {theirs} FROM backup.{table} AS b")
        for _, sql in triggers:
            target.execute(sql)
        target.execute("COMMIT")
        target.execute("DETACH backup")
        if target.execute("PRAGMA foreign_key_check").fetchone():
            raise sqlite3.IntegrityError("a row refers to one that is missing")
    finally:
        target.close()


def _check_records(place: Path) -> None:
    """Read every record once. Raises :class:`BackupError` for one that names files elsewhere or cannot be read."""
    database = Database(place)
    try:
        for table, column, pattern in NAMES:
            for (name,) in database.connection.execute(f"SELECT {column} FROM {table} WHERE {column} IS NOT NULL"):
                checked(pattern, str(name))
        store = Store(database)
        for (artwork_id,) in database.connection.execute("SELECT id FROM artwork").fetchall():
            store.artworks.get(artwork_id)
        for artwork_id, template_id in database.connection.execute("SELECT artwork_id, template_id FROM pair").fetchall():
            store.pairs.get(artwork_id, template_id)
        store.blanks.own()
    except sqlite3.Error:
        raise
    except Exception as unreadable:  # values of every wrong kind
        raise BackupError(f"A record in this backup cannot be read ({unreadable}): it is damaged.") from unreadable
    finally:
        database.connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        database.close()
