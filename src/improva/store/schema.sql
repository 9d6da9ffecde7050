-- One row a thing the seller has or has decided. Files are blobs named by the hash of their content.
PRAGMA journal_mode = WAL;
PRAGMA foreign_keys = ON;

CREATE TABLE IF NOT EXISTS artwork (
    id          INTEGER PRIMARY KEY,
    title       TEXT    NOT NULL,
    file_name   TEXT    NOT NULL,
    sha256      TEXT    NOT NULL UNIQUE,
    facts       TEXT    NOT NULL CHECK (json_valid(facts)),
    added_at    TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at  TEXT
) STRICT;

-- An artwork on a blank. It exists from the first decision on; before that, defaults hold.
CREATE TABLE IF NOT EXISTS pair (
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    step        INTEGER NOT NULL DEFAULT 0,
    route       TEXT    CHECK (route IN ('press', 'upload')),
    angle       REAL    NOT NULL DEFAULT 0,
    colours     TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(colours)),
    PRIMARY KEY (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- Every placing a pair has had, so that undo and redo never end. Step 0 is the default and has no row.
CREATE TABLE IF NOT EXISTS placing (
    artwork_id  INTEGER NOT NULL,
    template_id TEXT    NOT NULL,
    step        INTEGER NOT NULL CHECK (step > 0),
    placing     TEXT    NOT NULL CHECK (json_valid(placing)),
    PRIMARY KEY (artwork_id, template_id, step),
    FOREIGN KEY (artwork_id, template_id) REFERENCES pair (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- A proof is a pure function of what its key hashes.
CREATE TABLE IF NOT EXISTS proof (
    key         TEXT PRIMARY KEY,
    result      TEXT NOT NULL CHECK (json_valid(result))
) STRICT, WITHOUT ROWID;

-- Files made for a pair. The key hashes all that went into the file.
CREATE TABLE IF NOT EXISTS made (
    key         TEXT    PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    kind        TEXT    NOT NULL CHECK (kind IN ('print', 'picture')),
    placing     TEXT    NOT NULL,
    file_name   TEXT    NOT NULL,
    made_at     TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT, WITHOUT ROWID;
CREATE INDEX IF NOT EXISTS made_for_pair ON made (artwork_id, template_id);
