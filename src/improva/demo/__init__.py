"""The demo range: the Summit Line's shop, an invented mountain railway."""

from __future__ import annotations

from ..store import Artworks, Pairs


def lay_out(artworks: Artworks, pairs: Pairs) -> None:
    """Put the demo's artworks on an empty board."""
