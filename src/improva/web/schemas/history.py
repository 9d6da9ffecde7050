"""Models of a pair's history and of searches."""

from __future__ import annotations

from pydantic import Field

from ...store.models.base import RowId
from .common import In, Out


class EventOut(Out):
    """An event in a pair's history."""

    at: str
    what: str
    detail: str


class HistoryOut(Out):
    """A pair's events, the newest first."""

    events: list[EventOut]


class SearchHitOut(Out):
    """A search result."""

    artwork_id: RowId
    template_id: str | None
    title: str
    what: str
    detail: str


class SearchResultsOut(Out):
    """Search results, artworks first."""

    hits: list[SearchHitOut]


class SearchQuery(In):
    """A search."""

    words: str = Field(max_length=200)
