-- Tables and columns by the names of docs/glossary.md.
DROP TRIGGER fitted;
DROP TRIGGER prepared_art;
DROP TRIGGER priced;

ALTER TABLE placing RENAME COLUMN placing TO placement;
ALTER TABLE placing RENAME TO placement;
ALTER TABLE pair RENAME COLUMN showing TO mockup_settings;
ALTER TABLE look RENAME COLUMN showing TO mockup_settings;
ALTER TABLE look RENAME TO preset;
ALTER TABLE made RENAME COLUMN placing TO placement_key;
ALTER TABLE made RENAME TO made_file;
ALTER TABLE art_words RENAME TO artwork_words;
ALTER TABLE handed_in RENAME TO submission;
ALTER TABLE deed RENAME COLUMN told TO detail;
ALTER TABLE deed RENAME TO event;
ALTER TABLE job RENAME COLUMN asked TO parameters;

-- Reports are results: their keys now hold the versions of the checks, so none of the old ones is found again.
DROP TABLE proof;
CREATE TABLE preflight_report (
    key         TEXT PRIMARY KEY,
    result      TEXT NOT NULL CHECK (json_valid(result)),
    summary     TEXT
) STRICT, WITHOUT ROWID;

DROP INDEX made_for_pair;
CREATE INDEX made_file_of_pair ON made_file (artwork_id, template_id);
DROP INDEX handed_in_of_pair;
CREATE INDEX submission_of_pair ON submission (artwork_id, template_id);
DROP INDEX deed_of_pair;
CREATE INDEX event_of_pair ON event (artwork_id, template_id);

-- What was decided, and when: whoever decides. What is undone stays on record.
CREATE TRIGGER fitted AFTER INSERT ON placement BEGIN
    INSERT INTO event (artwork_id, template_id, what) VALUES (new.artwork_id, new.template_id, 'fitted');
END;
CREATE TRIGGER prepared_artwork AFTER INSERT ON preparation BEGIN
    INSERT INTO event (artwork_id, what, detail) VALUES (new.artwork_id, 'prepared',
        ifnull((SELECT group_concat(json_extract(value, '$.kind'), ', ') FROM json_each(new.preparation, '$.steps')), ''));
END;
CREATE TRIGGER priced AFTER INSERT ON pair_sale BEGIN
    INSERT INTO event (artwork_id, template_id, what, detail)
        VALUES (new.artwork_id, new.template_id, 'priced', ifnull(json_extract(new.sale, '$.price'), ''));
END;
