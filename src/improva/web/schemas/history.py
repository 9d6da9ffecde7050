"""What answers about a pair's history and about searches look like."""

from __future__ import annotations

from pydantic import Field

from .common import In, Out


class EventOut(Out):
    """Something that was done."""

    at: str
    what: str
    detail: str


class HistoryOut(Out):
    """What was done on a pair, the newest first."""

    events: list[EventOut]


class SearchHitOut(Out):
    """Something that was found."""

    artwork_id: int
    template_id: str | None
    title: str
    what: str
    detail: str


class SearchResultsOut(Out):
    """What was found, artworks first."""

    hits: list[SearchHitOut]


class SearchQuery(In):
    """What is looked for."""

    words: str = Field(max_length=200)
