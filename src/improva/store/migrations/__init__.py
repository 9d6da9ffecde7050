"""Bring a database up to the version of this code: numbered migrations, each in its own file.

``PRAGMA user_version`` holds the number of the last migration that a database has had. To change the schema, add a file
``NNNN_what_it_does.sql`` with the next number, or a module with a function where SQL alone cannot do it, and list it in
:data:`MIGRATIONS`. A migration that has been released is never edited.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterator
from importlib import resources
from pathlib import Path

from ...core.errors import ImprovaError
from .baseline import upgrade_unnumbered
from .plain_names import rename_keys

Migration = Callable[[sqlite3.Connection], None]


class NewerDatabaseError(ImprovaError):
    """A database that a newer version of Improva has written."""


def statements(script: str) -> Iterator[str]:
    """Split an SQL script into its statements; triggers with statements of their own stay whole."""
    statement = ""
    for line in script.splitlines(keepends=True):
        statement += line
        if sqlite3.complete_statement(statement):
            yield statement
            statement = ""


def _script(name: str) -> Migration:
    """A migration that runs the SQL file of this folder."""

    def run(connection: sqlite3.Connection) -> None:
        for statement in statements(resources.files(__name__).joinpath(name).read_text(encoding="utf-8")):
            connection.execute(statement)

    return run


def _baseline(connection: sqlite3.Connection) -> None:
    """The tables as they were when numbering began, in a new database or in one from before."""
    _script("0001_baseline.sql")(connection)
    upgrade_unnumbered(connection)


def _plain_names(connection: sqlite3.Connection) -> None:
    """Tables, columns and keys by the names of the glossary."""
    _script("0002_plain_names.sql")(connection)
    rename_keys(connection)


MIGRATIONS: tuple[Migration, ...] = (_baseline, _plain_names, _script("0003_lost_jobs.sql"), _script("0004_order_items.sql"))
"""All migrations in order; the number of a migration is its position, counted from 1."""

LATEST = len(MIGRATIONS)


def version_of(connection: sqlite3.Connection) -> int:
    """The number of the last migration that a database has had; 0 for a new one, or one from before numbering."""
    return int(connection.execute("PRAGMA user_version").fetchone()[0])


def check_version(version: int) -> None:
    """Refuse a database of a version that this code does not know.

    Raises:
        NewerDatabaseError: the version is higher than the latest migration.
    """
    if version > LATEST:
        raise NewerDatabaseError(
            f"This data was last used by a newer Improva (version {version} of the database; this one knows {LATEST}): "
            "update Improva, or name another data folder."
        )


def migrate(connection: sqlite3.Connection, file: Path) -> None:
    """Bring a database up to :data:`LATEST` in one transaction; a copy of its file is made beside it first.

    Processes that open the same database at once wait for each other. After a failure the database is as it was.

    Raises:
        NewerDatabaseError: a newer version of Improva has written it; nothing is changed.
    """
    check_version(version_of(connection))
    if version_of(connection) == LATEST:
        return
    connection.execute("PRAGMA foreign_keys = OFF")  # tables are rebuilt; the keys are checked as a whole below
    connection.execute("BEGIN IMMEDIATE")
    try:
        version = version_of(connection)  # another process may have migrated it first
        if connection.execute("SELECT count(*) FROM sqlite_master").fetchone()[0] and version < LATEST:
            _copy(file, file.with_name(f"{file.stem}-before-version-{LATEST}{file.suffix}"))
        for run in MIGRATIONS[version:]:
            run(connection)
        if broken := connection.execute("PRAGMA foreign_key_check").fetchone():
            raise sqlite3.IntegrityError(f"a row of '{broken[0]}' refers to one that is missing in '{broken[2]}'")
        connection.execute(f"PRAGMA user_version = {LATEST}")
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise
    finally:
        connection.execute("PRAGMA foreign_keys = ON")


def _copy(file: Path, target: Path) -> None:
    """Copy the committed state of a database; an unfinished copy of a killed process is replaced."""
    source, copy = sqlite3.connect(file), sqlite3.connect(target)
    try:
        source.backup(copy)
    finally:
        copy.close()
        source.close()
