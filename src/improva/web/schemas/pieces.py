"""Request models of pieces."""

from __future__ import annotations

from pydantic import Field

from ...store.models.pieces import MOST_PIECES, PieceModel
from .common import In


class PiecesIn(In):
    """All pieces on one panel, in order."""

    pieces: list[PieceModel] = Field(max_length=MOST_PIECES)
