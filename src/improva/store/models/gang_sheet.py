"""The gang sheet as stored."""

from __future__ import annotations

from pydantic import Field

from .base import RowId, StoredModel


class GangItemModel(StoredModel):
    """A panel of a pair, and its number of copies."""

    artwork_id: RowId
    template_id: str
    panel: str
    count: int = Field(default=1, ge=0, le=2000)


class GangModel(StoredModel):
    """The items of the gang sheet and its medium; ``length_mm`` of null is a roll."""

    items: list[GangItemModel] = Field(default_factory=list, max_length=100)
    width_mm: float = 330.0
    length_mm: float | None = 482.0
    margin_mm: float = 5.0
    gap_mm: float = 3.0
    turn: bool = True
    cut_lines: bool = True
