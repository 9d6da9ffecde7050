-- The tables as they were when versions began to be numbered. One row for each thing that the seller has or has decided; files
-- are blobs named by the hash of their content. A database older than that may have some of the tables already.

CREATE TABLE IF NOT EXISTS artwork (
    id          INTEGER PRIMARY KEY,
    title       TEXT    NOT NULL,
    file_name   TEXT    NOT NULL,
    sha256      TEXT    NOT NULL UNIQUE,
    facts       TEXT    NOT NULL CHECK (json_valid(facts)),
    traits      TEXT    CHECK (json_valid(traits)),
    preparation_step INTEGER NOT NULL DEFAULT 0,
    added_at    TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at  TEXT
) STRICT;

-- Every preparation an artwork has had, so that undo and redo never end: {"steps": […], "width_mm": …}. Which one holds
-- is the artwork's preparation_step; step 0 is none and has no row.
CREATE TABLE IF NOT EXISTS preparation (
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    step        INTEGER NOT NULL CHECK (step > 0),
    preparation TEXT    NOT NULL CHECK (json_valid(preparation)),
    PRIMARY KEY (artwork_id, step)
) STRICT, WITHOUT ROWID;

-- What came of a preparation: a pure function of the original and its steps, which the key hashes.
CREATE TABLE IF NOT EXISTS prepared (
    key         TEXT PRIMARY KEY,
    sha256      TEXT NOT NULL,
    facts       TEXT NOT NULL CHECK (json_valid(facts)),
    traits      TEXT NOT NULL CHECK (json_valid(traits)),
    report      TEXT NOT NULL CHECK (json_valid(report))
) STRICT, WITHOUT ROWID;

-- Fonts of the seller's own, known by the hash of their content.
CREATE TABLE IF NOT EXISTS font (
    sha256      TEXT PRIMARY KEY,
    title       TEXT NOT NULL,
    file_name   TEXT NOT NULL,
    added_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT, WITHOUT ROWID;

-- Where an artwork comes from and what its licence allows, with the licence's own file if there is one.
CREATE TABLE IF NOT EXISTS origin (
    artwork_id  INTEGER PRIMARY KEY REFERENCES artwork (id),
    origin      TEXT    NOT NULL CHECK (json_valid(origin)),
    sha256      TEXT,
    file_name   TEXT
) STRICT;

-- An artwork on a blank. It exists from the first decision on; before that, defaults hold.
CREATE TABLE IF NOT EXISTS pair (
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    step        INTEGER NOT NULL DEFAULT 0,
    route       TEXT    CHECK (route IN ('press', 'upload')),
    angle       REAL    NOT NULL DEFAULT 0,
    colours     TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(colours)),
    printing    TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(printing)),
    showing     TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(showing)),
    PRIMARY KEY (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- Every placing a pair has had, so that undo and redo never end. Step 0 is the default and has no row.
-- A placing is {"panel id": {…} or null, …}: what was decided of each panel, null for one that stays empty.
-- Pieces are {"panel id": [{"kind": …, …}, …], …}: what is laid with the artwork.
CREATE TABLE IF NOT EXISTS placing (
    artwork_id  INTEGER NOT NULL,
    template_id TEXT    NOT NULL,
    step        INTEGER NOT NULL CHECK (step > 0),
    placing     TEXT    NOT NULL CHECK (json_valid(placing)),
    pieces      TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(pieces)),
    PRIMARY KEY (artwork_id, template_id, step),
    FOREIGN KEY (artwork_id, template_id) REFERENCES pair (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- Choices about pictures that a seller uses again, by the name they gave them.
CREATE TABLE IF NOT EXISTS look (
    name        TEXT PRIMARY KEY,
    showing     TEXT NOT NULL CHECK (json_valid(showing)),
    colours     TEXT NOT NULL CHECK (json_valid(colours))
) STRICT, WITHOUT ROWID;

-- A proof is a pure function of what its key hashes. Its summary is what the board shows of it.
CREATE TABLE IF NOT EXISTS proof (
    key         TEXT PRIMARY KEY,
    result      TEXT NOT NULL CHECK (json_valid(result)),
    summary     TEXT
) STRICT, WITHOUT ROWID;

-- Files made for a pair. The key hashes all that went into the file.
CREATE TABLE IF NOT EXISTS made (
    key         TEXT    PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    kind        TEXT    NOT NULL CHECK (kind IN ('print', 'picture', 'listing')),
    placing     TEXT    NOT NULL,
    file_name   TEXT    NOT NULL,
    made_at     TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT, WITHOUT ROWID;
CREATE INDEX IF NOT EXISTS made_for_pair ON made (artwork_id, template_id);

-- Blanks of the seller's own, as the TOML of their template. A changed one keeps its id.
CREATE TABLE IF NOT EXISTS blank (
    id          TEXT PRIMARY KEY,
    toml        TEXT NOT NULL,
    added_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at  TEXT
) STRICT, WITHOUT ROWID;

-- Which blanks stand on the board, in what order.
CREATE TABLE IF NOT EXISTS board_blank (
    template_id TEXT PRIMARY KEY,
    position    INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- What the seller judges a blank by, where it differs from what ships.
CREATE TABLE IF NOT EXISTS own_limit (
    template_id TEXT NOT NULL,
    name        TEXT NOT NULL,
    value       REAL NOT NULL,
    PRIMARY KEY (template_id, name)
) STRICT, WITHOUT ROWID;

-- Files that belong to a blank: a provider's guide a panel, and the printer's ICC profile (panel '').
CREATE TABLE IF NOT EXISTS blank_file (
    template_id TEXT NOT NULL,
    panel_id    TEXT NOT NULL DEFAULT '',
    kind        TEXT NOT NULL CHECK (kind IN ('guide', 'profile')),
    sha256      TEXT NOT NULL,
    file_name   TEXT NOT NULL,
    PRIMARY KEY (template_id, panel_id, kind)
) STRICT, WITHOUT ROWID;

-- Many jobs asked for in one go. A paused batch's jobs wait until it goes on.
CREATE TABLE IF NOT EXISTS batch (
    id          INTEGER PRIMARY KEY,
    kind        TEXT    NOT NULL,
    title       TEXT    NOT NULL,
    paused      INTEGER NOT NULL DEFAULT 0,
    dismissed   INTEGER NOT NULL DEFAULT 0,
    added_at    TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

-- Long work: what was asked, how far it is, what came of it. Unfinished work is taken up again at the next start.
CREATE TABLE IF NOT EXISTS job (
    id          INTEGER PRIMARY KEY,
    kind        TEXT NOT NULL,
    asked       TEXT NOT NULL CHECK (json_valid(asked)),
    title       TEXT NOT NULL,
    artwork_id  INTEGER,
    template_id TEXT,
    state       TEXT NOT NULL DEFAULT 'queued' CHECK (state IN ('queued', 'running', 'done', 'failed', 'stopped')),
    stopping    INTEGER NOT NULL DEFAULT 0,
    share       REAL NOT NULL DEFAULT 0,
    problem     TEXT,
    files       TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(files)),
    attempt     INTEGER NOT NULL DEFAULT 0,
    batch_id    INTEGER REFERENCES batch (id),
    added_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    ended_at    TEXT
) STRICT;
CREATE INDEX IF NOT EXISTS job_of_pair ON job (artwork_id, template_id);

-- The seller's presses, by name; the platen of a flat one.
CREATE TABLE IF NOT EXISTS press (
    name        TEXT PRIMARY KEY,
    method      TEXT NOT NULL CHECK (method IN ('tumbler', 'flat', 'mug')),
    platen_w_mm REAL NOT NULL,
    platen_h_mm REAL NOT NULL
) STRICT, WITHOUT ROWID;

-- The makers' figures for a blank and finish, where the seller has entered them.
CREATE TABLE IF NOT EXISTS maker_figures (
    template_id TEXT NOT NULL,
    finish      TEXT NOT NULL DEFAULT '',
    method      TEXT NOT NULL,
    figures     TEXT NOT NULL CHECK (json_valid(figures)),
    PRIMARY KEY (template_id, finish, method)
) STRICT, WITHOUT ROWID;

-- The log of pressings. An entry that was taken away is kept, and counts no more.
CREATE TABLE IF NOT EXISTS pressing (
    id          INTEGER PRIMARY KEY,
    template_id TEXT NOT NULL,
    finish      TEXT NOT NULL DEFAULT '',
    method      TEXT NOT NULL,
    press       TEXT NOT NULL,
    artwork_id  INTEGER REFERENCES artwork (id),
    done_on     TEXT NOT NULL,
    figures     TEXT NOT NULL CHECK (json_valid(figures)),
    result      TEXT NOT NULL CHECK (result IN ('good', 'usable', 'spoiled')),
    faults      TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(faults)),
    note        TEXT NOT NULL DEFAULT '',
    photo       TEXT,
    added_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at  TEXT
) STRICT;
CREATE INDEX IF NOT EXISTS pressing_of_blank ON pressing (template_id, press);

-- Settings that are not of one artwork or blank.
CREATE TABLE IF NOT EXISTS setting (
    name        TEXT PRIMARY KEY,
    value       TEXT NOT NULL CHECK (json_valid(value))
) STRICT, WITHOUT ROWID;

-- Photographs of the seller's own blanks being made into scenes; their packs lie in the folder "scenes". Without a photograph
-- it is a pack that came as a file.
CREATE TABLE IF NOT EXISTS own_scene (
    id          INTEGER PRIMARY KEY,
    photo_id    INTEGER REFERENCES artwork (id),
    template_id TEXT NOT NULL,
    panel_id    TEXT NOT NULL,
    title       TEXT NOT NULL,
    marks       TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(marks)),
    pack        TEXT,
    removed_at  TEXT,
    added_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

-- Where samples have shown that a blank's panels are sewn.
CREATE TABLE IF NOT EXISTS calibration (
    id          INTEGER PRIMARY KEY,
    template_id TEXT NOT NULL,
    provider    TEXT NOT NULL,
    seam        TEXT NOT NULL,
    right_mm    REAL NOT NULL,
    down_mm     REAL NOT NULL,
    sample      TEXT NOT NULL,
    made_on     TEXT NOT NULL
) STRICT;
CREATE INDEX IF NOT EXISTS calibration_of_blank ON calibration (template_id, id);

-- What one piece of a blank costs, and the price of a pair: amounts as text, since they are decimals.
CREATE TABLE IF NOT EXISTS blank_costs (
    template_id TEXT PRIMARY KEY,
    costs       TEXT NOT NULL CHECK (json_valid(costs))
) STRICT, WITHOUT ROWID;
CREATE TABLE IF NOT EXISTS pair_sale (
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    sale        TEXT    NOT NULL CHECK (json_valid(sale)),
    PRIMARY KEY (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- A listing: words kept per blank and per artwork, and of each pair its pictures in order and its marketplace.
CREATE TABLE IF NOT EXISTS blank_words (
    template_id TEXT PRIMARY KEY,
    words       TEXT NOT NULL CHECK (json_valid(words))
) STRICT, WITHOUT ROWID;
CREATE TABLE IF NOT EXISTS art_words (
    artwork_id  INTEGER PRIMARY KEY REFERENCES artwork (id),
    words       TEXT    NOT NULL CHECK (json_valid(words))
) STRICT;
CREATE TABLE IF NOT EXISTS pair_listing (
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    listing     TEXT    NOT NULL CHECK (json_valid(listing)),
    PRIMARY KEY (artwork_id, template_id)
) STRICT, WITHOUT ROWID;

-- The seller's word that a listing goes out although its licence speaks against it. None is ever taken away, only withdrawn.
CREATE TABLE IF NOT EXISTS overruling (
    id           INTEGER PRIMARY KEY,
    artwork_id   INTEGER NOT NULL REFERENCES artwork (id),
    template_id  TEXT    NOT NULL,
    reasons      TEXT    NOT NULL CHECK (json_valid(reasons)),
    why          TEXT    NOT NULL,
    at           TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    withdrawn_at TEXT
) STRICT;
CREATE INDEX IF NOT EXISTS overruling_of_pair ON overruling (artwork_id, template_id);

-- Listing packs that were handed to a marketplace, and what it answered.
CREATE TABLE IF NOT EXISTS handed_in (
    id          INTEGER PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    market      TEXT    NOT NULL,
    made_key    TEXT    NOT NULL,
    accepted    INTEGER NOT NULL,
    number      TEXT,
    reasons     TEXT    NOT NULL CHECK (json_valid(reasons)),
    at          TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;
CREATE INDEX IF NOT EXISTS handed_in_of_pair ON handed_in (artwork_id, template_id);

-- Print providers, and what each asks for a blank; amounts as text, since they are decimals.
CREATE TABLE IF NOT EXISTS provider (
    name        TEXT PRIMARY KEY,
    origin      TEXT NOT NULL DEFAULT '',
    note        TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;
CREATE TABLE IF NOT EXISTS provider_offer (
    provider    TEXT NOT NULL REFERENCES provider (name) ON DELETE CASCADE,
    template_id TEXT NOT NULL,
    offer       TEXT NOT NULL CHECK (json_valid(offer)),
    PRIMARY KEY (provider, template_id)
) STRICT, WITHOUT ROWID;

-- Samples that were ordered. One that was taken away is kept, and counts no more.
CREATE TABLE IF NOT EXISTS sample (
    id          INTEGER PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT    NOT NULL,
    sample      TEXT    NOT NULL CHECK (json_valid(sample)),
    photos      TEXT    NOT NULL DEFAULT '[]' CHECK (json_valid(photos)),
    added_at    TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at  TEXT
) STRICT;
CREATE INDEX IF NOT EXISTS sample_of_blank ON sample (template_id, artwork_id);

-- What was decided, and when: written by the triggers below whoever decides. What is undone stays on record.
CREATE TABLE IF NOT EXISTS deed (
    id          INTEGER PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT,
    what        TEXT    NOT NULL,
    told        TEXT    NOT NULL DEFAULT '',
    at          TEXT    NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;
CREATE INDEX IF NOT EXISTS deed_of_pair ON deed (artwork_id, template_id);
CREATE TRIGGER IF NOT EXISTS fitted AFTER INSERT ON placing BEGIN
    INSERT INTO deed (artwork_id, template_id, what) VALUES (new.artwork_id, new.template_id, 'fitted');
END;
CREATE TRIGGER IF NOT EXISTS prepared_art AFTER INSERT ON preparation BEGIN
    INSERT INTO deed (artwork_id, what, told) VALUES (new.artwork_id, 'prepared',
        ifnull((SELECT group_concat(json_extract(value, '$.kind'), ', ') FROM json_each(new.preparation, '$.steps')), ''));
END;
CREATE TRIGGER IF NOT EXISTS priced AFTER INSERT ON pair_sale BEGIN
    INSERT INTO deed (artwork_id, template_id, what, told)
        VALUES (new.artwork_id, new.template_id, 'priced', ifnull(json_extract(new.sale, '$.price'), ''));
END;
