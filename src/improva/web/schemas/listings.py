"""Request and response models of listings."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...core.listing import SlotKind
from ...store.models.listings import ArtWordsModel, BlankWordsModel, ListingSlotModel, MarketModel
from .common import FindingOut, In, Out

MOST_SLOTS = 40


class ListingPictureOut(ListingSlotModel):
    """A picture of a listing."""

    title: str
    alt: str


class MissingPictureOut(Out):
    """A kind of picture that the listing lacks, and a slot for it."""

    kind: SlotKind
    what: str
    offered: ListingSlotModel


class MarketOut(MarketModel):
    """A marketplace; ``own`` limits replace the shipped ones."""

    id: str
    invented: bool
    own: bool


class MarketListOut(Out):
    """All marketplaces."""

    markets: list[MarketOut]


class TextsOut(Out):
    """The listing's texts."""

    title: str
    description: str
    tags: list[str]
    search: str
    left_out: list[str]


class OverrulingOut(Out):
    """The seller's decision to list despite the licence findings."""

    why: str
    at: str


class SubmissionOut(Out):
    """A submitted pack, and the simulated marketplace's answer."""

    market: str
    accepted: bool
    number: str | None
    reasons: list[str]
    at: str


class ListingIn(In):
    """Changes to a listing; omitted values stay. ``slots`` of null restores the suggestion."""

    market: str | None = None
    slots: list[ListingSlotModel] | None = Field(default=None, max_length=MOST_SLOTS)
    proposed: bool = Field(default=False, description="Take the pictures that are proposed again")
    film: bool | None = None
    art_words: ArtWordsModel | None = None
    blank_words: BlankWordsModel | None = None


class OverrulingIn(In):
    """The reason for listing despite the licence findings."""

    why: str = Field(min_length=3, max_length=500)


class ListingSlotIn(In, ListingSlotModel):
    """A picture of a listing."""


class MarketIn(In, MarketModel):
    """A marketplace's limits."""


class SubmitIn(In):
    """The address of a pack to submit."""

    url: str = Field(pattern=r"^/api/files/[0-9a-f]+$")


class ListingStateOut(Out):
    """A pair's listing: its pictures, texts, findings and submissions."""

    market: str
    markets: list[MarketOut]
    slots: list[ListingPictureOut]
    decided: bool = Field(description="Whether the pictures were chosen, or are those proposed")
    missing: list[MissingPictureOut]
    film: bool
    can_film: bool
    size: tuple[int, int] = Field(description="Of the pictures, as chosen at the Mock-ups station")
    stamp: str = Field(description="Changes with all that the looks at its pictures depend on")
    art_words: ArtWordsModel
    blank_words: BlankWordsModel
    fields: dict[str, str] = Field(description="Parts that can be named in a blank's words, and what each is")
    texts: TextsOut
    findings: list[FindingOut]
    price: str | None
    currency: str
    stopped: list[str] = Field(description="Why it may not be listed, by its licences")
    overruled: OverrulingOut | None
    ready: bool = Field(description="Whether a pack can be made")
    handed: list[SubmissionOut]


class MarketPath(BaseModel):
    """Path of a marketplace."""

    market_id: str = Field(pattern=r"^[a-z0-9][a-z0-9-]{0,59}$")
