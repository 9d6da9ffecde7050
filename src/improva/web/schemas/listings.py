"""What requests and answers about listings look like."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...core.listing import SlotKind
from ...store.models.listings import ArtWordsModel, BlankWordsModel, ListingSlotModel, MarketModel
from .common import FindingOut, In, Out

MOST_SLOTS = 40


class ListingPictureOut(ListingSlotModel):
    """A slot as it is answered."""

    title: str
    alt: str


class MissingPictureOut(Out):
    """A kind of picture that the listing lacks, and a slot for it."""

    kind: SlotKind
    what: str
    offered: ListingSlotModel


class MarketOut(MarketModel):
    """A marketplace as it is answered; ``own`` limits stand in place of those that ship, where there are any."""

    id: str
    invented: bool
    own: bool


class MarketListOut(Out):
    """All marketplaces."""

    markets: list[MarketOut]


class TextsOut(Out):
    """The words as they will be listed."""

    title: str
    description: str
    tags: list[str]
    search: str
    left_out: list[str]


class OverrulingOut(Out):
    """The seller's word that it may be listed all the same."""

    why: str
    at: str


class SubmissionOut(Out):
    """A pack that was handed in, and the simulated marketplace's answer."""

    market: str
    accepted: bool
    number: str | None
    reasons: list[str]
    at: str


class ListingIn(In):
    """What is decided anew; what is left out stays. ``slots`` of null means: as proposed."""

    market: str | None = None
    slots: list[ListingSlotModel] | None = Field(default=None, max_length=MOST_SLOTS)
    proposed: bool = Field(default=False, description="Take the pictures that are proposed again")
    film: bool | None = None
    art_words: ArtWordsModel | None = None
    blank_words: BlankWordsModel | None = None


class OverrulingIn(In):
    """Why a listing goes out in spite of its licence."""

    why: str = Field(min_length=3, max_length=500)


class ListingSlotIn(In, ListingSlotModel):
    """A picture of a listing, as a request sends it."""


class MarketIn(In, MarketModel):
    """A marketplace's limits, as a request sends them."""


class SubmitIn(In):
    """Which pack is handed in, by its address."""

    url: str = Field(pattern=r"^/api/files/[0-9a-f]+$")


class ListingStateOut(Out):
    """A pair's listing: its pictures, words and findings, and what marketplaces said."""

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
    """Which marketplace."""

    market_id: str = Field(pattern=r"^[a-z0-9][a-z0-9-]{0,59}$")
