-- Items of personalised orders, and what has become of their proofs.
CREATE TABLE order_item (
    id          INTEGER PRIMARY KEY,
    artwork_id  INTEGER NOT NULL REFERENCES artwork (id),
    template_id TEXT NOT NULL,
    name        TEXT NOT NULL,
    quantity    INTEGER NOT NULL CHECK (quantity > 0),
    contents    TEXT NOT NULL CHECK (json_valid(contents)),
    design      TEXT NOT NULL,
    held        INTEGER NOT NULL CHECK (held IN (0, 1)),
    state       TEXT NOT NULL DEFAULT 'made' CHECK (state IN ('made', 'sent', 'changes', 'approved', 'printed', 'shipped')),
    words       TEXT NOT NULL DEFAULT '',
    changed_at  TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    UNIQUE (artwork_id, template_id, name)
) STRICT;

-- Jobs of orders whose items were taken into the table above.
CREATE TABLE order_report (
    job_id INTEGER PRIMARY KEY REFERENCES job (id)
) STRICT;
