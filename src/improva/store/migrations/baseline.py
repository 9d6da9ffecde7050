"""What databases from before numbered versions lack."""

from __future__ import annotations

import sqlite3

ADDED_COLUMNS = (
    ("artwork", "traits", "TEXT"),
    ("proof", "summary", "TEXT"),
    ("artwork", "preparation_step", "INTEGER NOT NULL DEFAULT 0"),
    ("placing", "pieces", "TEXT NOT NULL DEFAULT '{}'"),
    ("pair", "printing", "TEXT NOT NULL DEFAULT '{}'"),
    ("pair", "showing", "TEXT NOT NULL DEFAULT '{}'"),
    ("job", "attempt", "INTEGER NOT NULL DEFAULT 0"),
    ("job", "batch_id", "INTEGER REFERENCES batch (id)"),
)


def upgrade_unnumbered(connection: sqlite3.Connection) -> None:
    """Add the columns, the kinds of files and the form of placements that an older database lacks."""
    for table, column, kind in ADDED_COLUMNS:
        columns = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
        if column not in columns:
            connection.execute(f"ALTER TABLE {table} ADD COLUMN {column} {kind}")
    connection.execute("CREATE INDEX IF NOT EXISTS job_of_batch ON job (batch_id, state)")
    _allow_listing_packs(connection)
    # Placements of one panel, from when the only blank had one panel, its wrap.
    connection.execute(
        "UPDATE placing SET placing = json_object('wrap', json(placing)) WHERE json_extract(placing, '$.fit') IS NOT NULL"
    )


def _allow_listing_packs(connection: sqlite3.Connection) -> None:
    """Rebuild the table of made files where it allows only print files and pictures."""
    schema = connection.execute("SELECT sql FROM sqlite_master WHERE name = 'made'").fetchone()[0]
    if "'listing'" in schema:
        return
    connection.execute(schema.replace("'picture')", "'picture', 'listing')").replace("TABLE made", "TABLE made_anew"))
    connection.execute("INSERT INTO made_anew SELECT * FROM made")
    connection.execute("DROP TABLE made")
    connection.execute("ALTER TABLE made_anew RENAME TO made")
    connection.execute("CREATE INDEX made_for_pair ON made (artwork_id, template_id)")
