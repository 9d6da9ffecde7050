"""What requests and answers about listings look like."""

from __future__ import annotations

from dataclasses import asdict
from typing import Literal

from pydantic import Field

from ..core.listing import ArtWords, BlankWords, Market, Slot, SlotKind
from .shapes import Shape
from .show_shapes import ShotBody

MOST_SLOTS = 40
Words = list[str]


class ListingSlot(Shape):
    """A picture of a listing: see :class:`improva.core.listing.Slot`."""

    kind: SlotKind
    scene_id: str = Field(max_length=120)
    view: str | None = None
    colours: dict[str, str] = Field(default_factory=dict)
    measured: bool = False
    close: bool = False

    @classmethod
    def of(cls, slot: Slot) -> ListingSlot:
        """From the core's value."""
        return cls(**asdict(slot))

    def to_core(self) -> Slot:
        """The core's value."""
        return Slot(**self.model_dump())


def shot_body(slot: Slot) -> ShotBody:
    """A slot as it is pictured."""
    return ShotBody(scene_id=slot.scene_id, view=slot.view, colours=slot.colours, measured=slot.measured, close=slot.close)


class ShownSlot(ListingSlot):
    """A slot as it is answered."""

    title: str
    alt: str


class MissingShape(Shape):
    """A kind of picture that the listing lacks, and a slot for it."""

    kind: SlotKind
    what: str
    offered: ListingSlot


class ArtWordsBody(Shape):
    """An artwork's own words, for every blank it is on."""

    name: str = Field(default="", max_length=200)
    line: str = Field(default="", max_length=2000)
    tags: Words = Field(default_factory=list, max_length=60)

    def to_core(self) -> ArtWords:
        """The core's value."""
        return ArtWords(self.name.strip(), self.line.strip(), tuple(self.tags))


class BlankWordsBody(Shape):
    """A blank's words, for every design on it; they can name parts, as ``{design}``."""

    title: str = Field(default=BlankWords.title, max_length=400)
    text: str = Field(default="", max_length=20_000)
    tags: Words = Field(default_factory=list, max_length=60)
    search: str = Field(default=BlankWords.search, max_length=1000)

    def to_core(self) -> BlankWords:
        """The core's value."""
        return BlankWords(self.title, self.text, tuple(self.tags), self.search)


class MarketBody(Shape):
    """A marketplace's limits: see :class:`improva.core.listing.Market`."""

    title: str = Field(max_length=60)
    title_least: int = Market.title_least
    title_most: int = Market.title_most
    repeats_most: int = Market.repeats_most
    tags_most: int = Market.tags_most
    tag_most: int = Market.tag_most
    description_most: int = Market.description_most
    search_most: int = Market.search_most
    alt_most: int = Market.alt_most
    pictures_most: int = Market.pictures_most
    least_px: int = Market.least_px
    film_s: float = Market.film_s

    def to_core(self) -> Market:
        """The core's value. Raises :class:`BadListing`."""
        return Market(**self.model_dump())


class MarketShape(MarketBody):
    """A marketplace as it is answered; ``own`` limits stand in place of those that ship, where there are any."""

    id: str
    invented: bool
    own: bool


class MarketList(Shape):
    """All marketplaces."""

    markets: list[MarketShape]


class TextFindingShape(Shape):
    """Something about the words to be mended."""

    of: str
    status: Literal["warn", "fail"]
    message: str
    measured: float | None
    limit: float | None


class TextsShape(Shape):
    """The words as they will be listed."""

    title: str
    description: str
    tags: list[str]
    search: str
    left_out: list[str]


class OverrulingShape(Shape):
    """The seller's word that it may be listed all the same."""

    why: str
    at: str


class HandedShape(Shape):
    """A pack that was handed in, and the simulated marketplace's answer."""

    market: str
    accepted: bool
    number: str | None
    reasons: list[str]
    at: str


class ListingBody(Shape):
    """What is decided anew; what is left out stays. ``slots`` of null means: as proposed."""

    market: str | None = None
    slots: list[ListingSlot] | None = Field(default=None, max_length=MOST_SLOTS)
    proposed: bool = Field(default=False, description="Take the pictures that are proposed again")
    film: bool | None = None
    art_words: ArtWordsBody | None = None
    blank_words: BlankWordsBody | None = None


class WhyBody(Shape):
    """Why a listing goes out in spite of its licence."""

    why: str = Field(min_length=3, max_length=500)


class SlotQuery(Shape):
    """Which picture is looked at: a ListingSlot as JSON; ``of`` only tells looks apart."""

    slot: str
    of: str = ""


class PackBody(Shape):
    """Which pack is handed in, by its address."""

    url: str = Field(pattern=r"^/api/files/[0-9a-f]+$")


class ListingState(Shape):
    """A pair's listing: its pictures, words and findings, and what marketplaces said."""

    market: str
    markets: list[MarketShape]
    slots: list[ShownSlot]
    decided: bool = Field(description="Whether the pictures were chosen, or are those proposed")
    missing: list[MissingShape]
    film: bool
    can_film: bool
    size: tuple[int, int] = Field(description="Of the pictures, as chosen at the Show station")
    stamp: str = Field(description="Changes with all that the looks at its pictures depend on")
    art_words: ArtWordsBody
    blank_words: BlankWordsBody
    fields: dict[str, str] = Field(description="Parts that can be named in a blank's words, and what each is")
    texts: TextsShape
    findings: list[TextFindingShape]
    price: str | None
    currency: str
    stopped: list[str] = Field(description="Why it may not be listed, by its licences")
    overruled: OverrulingShape | None
    ready: bool = Field(description="Whether a pack can be made")
    handed: list[HandedShape]
