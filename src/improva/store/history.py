"""The history of pairs, and search over all records."""

from __future__ import annotations

from dataclasses import dataclass

from .database import Database, folded

TIMELINE = """
SELECT at, what, detail FROM (
    SELECT added_at AS at, 'added' AS what, file_name AS detail FROM artwork WHERE id = :art
    UNION ALL SELECT at, what, ifnull(detail, '') FROM event WHERE artwork_id = :art AND (template_id = :blank OR template_id IS NULL)
    UNION ALL SELECT made_at, 'made ' || kind, file_name FROM made_file WHERE artwork_id = :art AND template_id = :blank
    UNION ALL SELECT done_on, 'pressed', result || CASE note WHEN '' THEN '' ELSE ': ' || note END
        FROM pressing WHERE artwork_id = :art AND template_id = :blank AND removed_at IS NULL
    UNION ALL SELECT json_extract(sample, '$.' || value), 'sample ' || value, ifnull(nullif(json_extract(sample, '$.provider'), ''), 'pressed by me')
        FROM sample, json_each('["ordered", "shipped", "delivered"]')
        WHERE artwork_id = :art AND template_id = :blank AND removed_at IS NULL AND json_extract(sample, '$.' || value) != ''
    UNION ALL SELECT at, CASE accepted WHEN 1 THEN 'listed' ELSE 'refused' END,
        market || CASE accepted WHEN 1 THEN ', no. ' || number ELSE ': ' || json_extract(reasons, '$[0]') END
        FROM submission WHERE artwork_id = :art AND template_id = :blank
    UNION ALL SELECT at, 'licence overruled', why FROM overruling WHERE artwork_id = :art AND template_id = :blank
    UNION ALL SELECT withdrawn_at, 'overruling withdrawn', why
        FROM overruling WHERE artwork_id = :art AND template_id = :blank AND withdrawn_at IS NOT NULL
    UNION ALL SELECT ended_at, 'failed', title || ': ' || ifnull(problem, '')
        FROM job WHERE artwork_id = :art AND template_id = :blank AND state = 'failed'
) ORDER BY at DESC LIMIT :most
"""

SEARCH = """
SELECT artwork_id, template_id, title, what, detail FROM (
    SELECT id AS artwork_id, NULL AS template_id, 'artwork' AS what, file_name AS detail, 0 AS rank FROM artwork
        WHERE removed_at IS NULL AND (holds(title, :words) OR holds(file_name, :words))
    UNION ALL SELECT artwork_id, NULL, 'words', json_extract(words, '$.name') || ': ' || json_extract(words, '$.line'), 1
        FROM artwork_words WHERE holds(words, :words)
    UNION ALL SELECT artwork_id, NULL, 'origin', trim(json_extract(origin, '$.maker') || ' ' || json_extract(origin, '$.licence')), 1
        FROM origin WHERE holds(json_extract(origin, '$.maker'), :words) OR holds(json_extract(origin, '$.licence'), :words)
    UNION ALL SELECT artwork_id, template_id, 'listing', market || ', no. ' || number, 2
        FROM submission WHERE accepted = 1 AND holds(number, :words)
    UNION ALL SELECT artwork_id, template_id, 'sample', trim(json_extract(sample, '$.provider') || ' ' || json_extract(sample, '$.note')), 3
        FROM sample WHERE removed_at IS NULL
        AND (holds(json_extract(sample, '$.provider'), :words) OR holds(json_extract(sample, '$.note'), :words))
    UNION ALL SELECT artwork_id, template_id, 'pressing', note, 3
        FROM pressing WHERE removed_at IS NULL AND artwork_id IS NOT NULL AND holds(note, :words)
    UNION ALL SELECT artwork_id, template_id, 'file', file_name, 4 FROM made_file WHERE holds(file_name, :words)
) JOIN artwork ON artwork.id = artwork_id AND artwork.removed_at IS NULL
GROUP BY artwork_id, template_id, what, detail ORDER BY rank, artwork_id DESC LIMIT :most
"""


@dataclass(frozen=True)
class Event:
    """One event of a history: time, kind and description."""

    at: str
    what: str
    detail: str


@dataclass(frozen=True)
class Hit:
    """One search result: its artwork, its blank if it belongs to a pair, and the matching text."""

    artwork_id: int
    template_id: str | None
    title: str
    what: str
    detail: str


class History:
    """The history and search of one data folder."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def timeline(self, artwork_id: int, template_id: str, most: int = 300) -> list[Event]:
        """Return the events of a pair, the newest first; times in UTC, samples by day."""
        rows = self._database.connection.execute(TIMELINE, {"art": artwork_id, "blank": template_id, "most": most})
        return [Event(row["at"], row["what"], row["detail"] or "") for row in rows]

    def search(self, words: str, most: int = 40) -> list[Hit]:
        """Return the records that contain some words, artworks first. Case and accents do not matter."""
        sought = folded(words.strip())
        if not sought:
            return []
        return [Hit(**dict(row)) for row in self._database.connection.execute(SEARCH, {"words": sought, "most": most})]
