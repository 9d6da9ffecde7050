"""The data folder: one SQLite file in WAL mode, and a folder of blobs."""

from __future__ import annotations

import hashlib
import json
import sqlite3
import threading
import unicodedata
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path
from typing import Any

from ..core.output.writing import sweep, write_beside


def key_of(*parts: Any) -> str:
    """A hash of anything JSON can hold, by which results are stored: the same parts give the same key."""
    text = json.dumps(parts, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def folded(text: str) -> str:
    """A text without the difference of capitals and of accents: what is looked for is typed as it comes."""
    if text.isascii():
        return text.lower()
    return "".join(c for c in unicodedata.normalize("NFKD", text.casefold()) if not unicodedata.combining(c))


def holds(text: str | None, words: str) -> bool:
    """Whether a text holds words that are :func:`folded`; in SQL too."""
    return text is not None and words in folded(text)


class Database:
    """The data folder of one seller. Connections are one a thread; writes are transactions."""

    def __init__(self, folder: Path, file: Path | None = None) -> None:
        """``file`` is the database's own, where it is not the folder's: an extract beside shared blobs."""
        self.folder = folder
        self._file = file or folder / "improva.sqlite"
        self._blobs = folder / "blobs"
        self._made = folder / "made"
        for place in (folder, self._blobs, self._made) if file is None else ():
            place.mkdir(parents=True, exist_ok=True)
        self._local = threading.local()
        schema = resources.files(__package__ or "improva.store").joinpath("schema.sql").read_text(encoding="utf-8")
        self.connection.executescript(schema)
        self._bring_up_to_date()

    def _bring_up_to_date(self) -> None:
        """Add what a database made by an earlier version lacks."""
        for table, column, kind in (
            ("artwork", "traits", "TEXT"),
            ("proof", "summary", "TEXT"),
            ("artwork", "preparation_step", "INTEGER NOT NULL DEFAULT 0"),
            ("placing", "pieces", "TEXT NOT NULL DEFAULT '{}'"),
            ("pair", "printing", "TEXT NOT NULL DEFAULT '{}'"),
            ("pair", "showing", "TEXT NOT NULL DEFAULT '{}'"),
            ("job", "attempt", "INTEGER NOT NULL DEFAULT 0"),
            ("job", "batch_id", "INTEGER REFERENCES batch (id)"),
        ):
            columns = {row[1] for row in self.connection.execute(f"PRAGMA table_info({table})")}
            if column not in columns:
                self.connection.execute(f"ALTER TABLE {table} ADD COLUMN {column} {kind}")
        self.connection.execute("CREATE INDEX IF NOT EXISTS job_of_batch ON job (batch_id, state)")
        self._take_listings()
        # Placings of one panel, from when the only blank's only panel was its wrap.
        self.connection.execute(
            "UPDATE placing SET placing = json_object('wrap', json(placing)) WHERE json_extract(placing, '$.fit') IS NOT NULL"
        )

    def _take_listings(self) -> None:
        """Let the table of made files take listing packs, where an earlier version allowed only prints and pictures."""
        old = self.connection.execute("SELECT sql FROM sqlite_master WHERE name = 'made'").fetchone()[0]
        if "'listing'" in old:
            return
        with self.writing() as connection:
            connection.execute(old.replace("'picture')", "'picture', 'listing')").replace("TABLE made", "TABLE made_anew"))
            connection.execute("INSERT INTO made_anew SELECT * FROM made")
            connection.execute("DROP TABLE made")
            connection.execute("ALTER TABLE made_anew RENAME TO made")
            connection.execute("CREATE INDEX made_for_pair ON made (artwork_id, template_id)")

    @property
    def connection(self) -> sqlite3.Connection:
        """This thread's connection."""
        found: sqlite3.Connection | None = getattr(self._local, "connection", None)
        if found is None:
            found = sqlite3.connect(self._file, isolation_level=None, timeout=30)
            found.row_factory = sqlite3.Row
            found.create_function("holds", 2, holds, deterministic=True)
            found.execute("PRAGMA foreign_keys = ON")
            found.execute("PRAGMA synchronous = NORMAL")
            self._local.connection = found
        return found

    def close(self) -> None:
        """Close this thread's connection."""
        self.connection.close()
        del self._local.connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """A transaction that is kept whole or not at all."""
        connection = self.connection
        connection.execute("BEGIN IMMEDIATE")
        try:
            yield connection
        except BaseException:
            connection.execute("ROLLBACK")
            raise
        connection.execute("COMMIT")

    def setting(self, name: str) -> Any:
        """A setting that is not of one artwork or blank, or None."""
        row = self.connection.execute("SELECT value FROM setting WHERE name = ?", (name,)).fetchone()
        return json.loads(row[0]) if row else None

    def keep_setting(self, name: str, value: Any) -> None:
        """Keep a setting; any JSON value."""
        text = json.dumps(value, ensure_ascii=False)
        with self.writing() as connection:
            connection.execute("INSERT OR REPLACE INTO setting (name, value) VALUES (?, ?)", (name, text))

    def put_blob(self, data: bytes) -> str:
        """Keep bytes under the hash of their content, which is returned."""
        sha256 = hashlib.sha256(data).hexdigest()
        path = self._blobs / sha256
        if not path.exists():
            write_beside(path, data)
        return sha256

    def blob(self, sha256: str) -> bytes:
        """The bytes kept under a hash."""
        return (self._blobs / sha256).read_bytes()

    def sweep(self) -> None:
        """Take away files that a killed process had begun."""
        for folder in (self.folder, self._blobs, self._made):
            sweep(folder)

    def made_path(self, key: str, ending: str) -> Path:
        """Where a made file of that key lies or will lie."""
        return self._made / f"{key}{ending}"
