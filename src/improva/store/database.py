"""The data folder: one SQLite file in WAL mode, and a folder of blobs."""

from __future__ import annotations

import hashlib
import json
import re
import sqlite3
import threading
import unicodedata
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from ..core.errors import ImprovaError
from ..io.atomic import atomic_write, sweep
from .cache_folder import CacheFolder
from .migrations import migrate

BLOB, KEY = re.compile(r"[0-9a-f]{64}"), re.compile(r"[0-9A-Za-z][0-9A-Za-z_-]{0,99}")
"""Names of files in the data folder: hashes of contents, and keys of made files. A stored name may come from a stranger's backup;
these patterns keep it inside its folder.
"""


class DataFolderError(ImprovaError):
    """The data folder cannot be used."""


def cannot_use(folder: Path, problem: OSError) -> DataFolderError:
    """Return the error for a folder that cannot be made or written."""
    return DataFolderError(f"'{folder}' cannot be used ({problem.strerror}): name a folder that can be written.")


def damaged(folder: Path, why: object) -> DataFolderError:
    """Return the error for a damaged database."""
    return DataFolderError(
        f"The database in '{folder}' is damaged ({why}): restore a backup to a new folder with 'improva restore'."
    )


class MissingFileError(ImprovaError):
    """A file that a record names is not in the data folder, or the name cannot be one."""


def checked(pattern: re.Pattern[str], name: str) -> str:
    """Return a stored name that matches its pattern. Raises :class:`MissingFileError` for any other."""
    if not pattern.fullmatch(name):
        raise MissingFileError("A record of this data folder names a file that cannot be there: restore it from a backup.")
    return name


def key_of(*parts: Any) -> str:
    """Return a hash of any JSON values, used as the key of a stored result."""
    text = json.dumps(parts, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def folded(text: str) -> str:
    """Return a text in lower case without accents, for searching."""
    if text.isascii():
        return text.lower()
    return "".join(c for c in unicodedata.normalize("NFKD", text.casefold()) if not unicodedata.combining(c))


def holds(text: str | None, words: str) -> bool:
    """Return whether a text contains words that are :func:`folded`; also an SQL function."""
    return text is not None and words in folded(text)


class Database:
    """The data folder of one seller. Connections are one a thread; writes are transactions."""

    def __init__(self, folder: Path, file: Path | None = None) -> None:
        """Open the database of a data folder and bring it up to this version; a missing folder is made.

        Args:
            folder: holds the database and the folders of blobs and made files.
            file: the database's own file, where it is not the folder's: an extract beside shared blobs.

        Raises:
            NewerDatabaseError: a newer version of Improva has written the database.
            DataFolderError: the folder cannot be written, or the database is damaged.
        """
        self.folder = folder
        self._file = file or folder / "improva.sqlite"
        self._blobs = folder / "blobs"
        self._made = folder / "made"
        self.cache = CacheFolder(folder / "cache")
        self._local = threading.local()
        try:
            for place in (folder, self._blobs, self._made) if file is None else ():
                place.mkdir(parents=True, exist_ok=True)
            self.connection.execute("PRAGMA journal_mode = WAL")
            migrate(self.connection, self._file)
        except OSError as problem:
            raise cannot_use(folder, problem) from problem
        except sqlite3.OperationalError as problem:
            raise DataFolderError(
                f"The database in '{folder}' cannot be opened ({problem}): can the folder be written?"
            ) from problem
        except sqlite3.DatabaseError as broken:
            raise damaged(folder, broken) from broken

    def check(self) -> None:
        """Read the whole database once. Raises :class:`DataFolderError` where it is damaged."""
        try:
            found = self.connection.execute("PRAGMA quick_check(1)").fetchone()[0]
        except sqlite3.DatabaseError as broken:
            raise damaged(self.folder, broken) from broken
        if found != "ok":
            raise damaged(self.folder, found)

    @property
    def connection(self) -> sqlite3.Connection:
        """Return this thread's connection."""
        opened: sqlite3.Connection | None = getattr(self._local, "connection", None)
        if opened is None:
            opened = sqlite3.connect(self._file, isolation_level=None, timeout=30)
            opened.row_factory = sqlite3.Row
            opened.create_function("holds", 2, holds, deterministic=True)
            opened.execute("PRAGMA foreign_keys = ON")
            opened.execute("PRAGMA synchronous = NORMAL")
            self._local.connection = opened
        return opened

    def close(self) -> None:
        """Close this thread's connection."""
        self.connection.close()
        del self._local.connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """Run a transaction: it is stored whole or not at all. Inside another one it is a part of that one."""
        connection = self.connection
        if connection.in_transaction:
            yield connection
            return
        connection.execute("BEGIN IMMEDIATE")
        try:
            yield connection
        except BaseException:
            connection.execute("ROLLBACK")
            raise
        connection.execute("COMMIT")

    def setting(self, name: str) -> Any:
        """Return a global setting, or None."""
        row = self.connection.execute("SELECT value FROM setting WHERE name = ?", (name,)).fetchone()
        return json.loads(row[0]) if row else None

    def keep_setting(self, name: str, value: Any) -> None:
        """Store a global setting, any JSON value."""
        text = json.dumps(value, ensure_ascii=False)
        with self.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO setting (name, value) VALUES (?, ?)", (name, text))

    def put_blob(self, data: bytes) -> str:
        """Store bytes under the hash of their content, and return the hash."""
        sha256 = hashlib.sha256(data).hexdigest()
        path = self._blobs / sha256
        if not path.exists():
            atomic_write(path, data)
        return sha256

    def blob(self, sha256: str) -> bytes:
        """Return the bytes stored under a hash.

        Raises:
            MissingFileError: there are none, or this is no hash.
        """
        try:
            return (self._blobs / checked(BLOB, sha256)).read_bytes()
        except FileNotFoundError as missing:
            raise MissingFileError("A file of this data folder is missing: restore it from a backup.") from missing

    @property
    def work(self) -> Path:
        """Return the folder for unfinished files, for :func:`.work_folder`."""
        return self.folder / "work"

    def sweep(self) -> None:
        """Remove unfinished files of killed processes, and files of the cache beyond its capacity."""
        for folder in (self.folder, self._blobs, self._made, self.work):
            sweep(folder)
        self.cache.trim()

    def made_path(self, key: str, ending: str) -> Path:
        """Return the path of a made file, whether it exists or not. Raises :class:`MissingFileError` for a key that is none."""
        return self._made / f"{checked(KEY, key)}{ending}"
