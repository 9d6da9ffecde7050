-- How often a job ended the process that did it.
ALTER TABLE job ADD COLUMN lost INTEGER NOT NULL DEFAULT 0;
