"""Request models of artworks."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...store.models.base import RowId
from .common import In

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


class PreviewQuery(BaseModel):
    """The size of a preview."""

    px: int = Field(default=1400, ge=LEAST_PREVIEW_PX, le=MOST_PREVIEW_PX)
    of: str = Field(default="", description="Not read: a new value gives a changed artwork a new address")
