"""Request models of artworks."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...store.models.base import RowId
from .common import In, Out

LEAST_PREVIEW_PX, MOST_PREVIEW_PX = 64, 2048


class ArtPath(BaseModel):
    """Path of an artwork."""

    artwork_id: RowId


class AsideQuery(BaseModel):
    """Whether an imported file stays off the board: a photograph for a frame."""

    aside: bool = False


class TitleIn(In):
    """A new title."""

    title: str = Field(min_length=1, max_length=120)


class TitlesIn(In):
    """New titles of several artworks."""

    artwork_ids: list[RowId] = Field(min_length=1, max_length=5000)
    pattern: str = Field(default="{title}", max_length=200, description="With {title}, {number} and {file}")
    find: str = Field(default="", max_length=120, description="Replaced in the titles before the pattern is filled")
    replace: str = Field(default="", max_length=120)
    try_only: bool = False


class TitlesOut(Out):
    """Titles in the order of the artworks."""

    titles: list[str]


class PreviewQuery(BaseModel):
    """The size of a preview."""

    px: int = Field(default=1400, ge=LEAST_PREVIEW_PX, le=MOST_PREVIEW_PX)
    of: str = Field(default="", description="Not read: a new value gives a changed artwork a new address")
