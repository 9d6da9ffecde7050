"""Listings as stored: pictures, texts, and marketplaces' limits."""

from __future__ import annotations

from dataclasses import asdict

from pydantic import Field

from ...core.listing import ArtWords, BlankWords, Market, Slot, SlotKind
from .base import StoredModel
from .mockups import ShotModel

Words = list[str]


class ListingSlotModel(StoredModel):
    """A picture of a listing: see :class:`improva.core.listing.Slot`."""

    kind: SlotKind
    scene_id: str = Field(max_length=120)
    view: str | None = None
    colours: dict[str, str] = Field(default_factory=dict)
    measured: bool = False
    close: bool = False

    @classmethod
    def of(cls, slot: Slot) -> ListingSlotModel:
        """From the core's value."""
        return cls(**asdict(slot))

    def to_core(self) -> Slot:
        """The core's value."""
        return Slot(**self.model_dump())


def shot_body(slot: Slot) -> ShotModel:
    """Return a slot as a shot to render."""
    return ShotModel(scene_id=slot.scene_id, view=slot.view, colours=slot.colours, measured=slot.measured, close=slot.close)


class ArtWordsModel(StoredModel):
    """An artwork's texts, for every blank."""

    name: str = Field(default="", max_length=200)
    line: str = Field(default="", max_length=2000)
    tags: Words = Field(default_factory=list, max_length=60)

    def to_core(self) -> ArtWords:
        """The core's value."""
        return ArtWords(self.name.strip(), self.line.strip(), tuple(self.tags))


class BlankWordsModel(StoredModel):
    """A blank's texts, for every design; they can contain fields such as ``{design}``."""

    title: str = Field(default=BlankWords.title, max_length=400)
    text: str = Field(default="", max_length=20_000)
    tags: Words = Field(default_factory=list, max_length=60)
    search: str = Field(default=BlankWords.search, max_length=1000)

    def to_core(self) -> BlankWords:
        """The core's value."""
        return BlankWords(self.title, self.text, tuple(self.tags), self.search)


class MarketModel(StoredModel):
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
        """The core's value. Raises :class:`ListingError`."""
        return Market(**self.model_dump())
