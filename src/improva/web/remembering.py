"""What was done on a pair, and search over everything."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from flask_openapi3 import APIBlueprint
from pydantic import Field

from .bench import PAIR_AT
from .desk import Desk
from .parts import part
from .shapes import PairPath, Shape


class DeedShape(Shape):
    """Something that was done."""

    at: str
    what: str
    told: str


class Timeline(Shape):
    """What was done on a pair, the newest first."""

    deeds: list[DeedShape]


class HitShape(Shape):
    """Something that was found."""

    artwork_id: int
    template_id: str | None
    title: str
    what: str
    told: str


class Hits(Shape):
    """What was found, artworks first."""

    hits: list[HitShape]


class SearchQuery(Shape):
    """What is looked for."""

    words: str = Field(max_length=200)


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of records."""
    api = part(desk, "remembering", "records")

    @api.get(f"{PAIR_AT}/timeline", responses={200: Timeline})
    def timeline(path: PairPath) -> dict[str, Any]:
        """Everything done on a pair."""
        art, template = desk.dropped_art(path.artwork_id), desk.template(path.template_id)
        return Timeline(deeds=[DeedShape(**asdict(deed)) for deed in desk.records.timeline(art.id, template.id)]).model_dump()

    @api.get("/api/search", responses={200: Hits})
    def search(query: SearchQuery) -> dict[str, Any]:
        """Artworks, listings, samples, pressings and files that hold some words."""
        return Hits(hits=[HitShape(**asdict(hit)) for hit in desk.records.search(query.words)]).model_dump()

    return api
