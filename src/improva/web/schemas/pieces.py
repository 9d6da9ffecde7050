"""Pieces as requests send them."""

from __future__ import annotations

from pydantic import Field

from ...store.models.pieces import MOST_PIECES, PieceModel
from .common import In


class PiecesIn(In):
    """All pieces laid with the artwork on one panel, in their order."""

    pieces: list[PieceModel] = Field(max_length=MOST_PIECES)
