"""A pair's history, and search over all records."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ..context import services
from ..routing import Routes
from ..schemas.common import PAIR_AT, PairPath
from ..schemas.history import EventOut, HistoryOut, SearchHitOut, SearchQuery, SearchResultsOut

api = Routes("records")


@api.get(f"{PAIR_AT}/history", responses={200: HistoryOut})
def get_history(path: PairPath) -> dict[str, Any]:
    """Return the history of a pair."""
    art, template = services.artworks.imported(path.artwork_id), services.blanks.get(path.template_id)
    return HistoryOut(
        events=[EventOut(**asdict(event)) for event in services.store.history.timeline(art.id, template.id)]
    ).model_dump()


@api.get("/api/search", responses={200: SearchResultsOut})
def search(query: SearchQuery) -> dict[str, Any]:
    """Find artworks, listings, samples, pressings and files by their words."""
    return SearchResultsOut(
        hits=[SearchHitOut(**asdict(hit)) for hit in services.store.history.search(query.words)]
    ).model_dump()
