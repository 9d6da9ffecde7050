"""Request and response models of print providers and samples. Amounts are decimals written as text."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...core.providers import Result, Sample
from ...store.models.base import RowId
from ...store.models.providers import OfferModel
from .common import In, Out, PairPath, VisibleText


class ProviderIn(In):
    """A provider's origin and notes."""

    origin: str = Field(default="", max_length=120, description="Where it ships from")
    note: str = Field(default="", max_length=4000)


class LandedOut(Out):
    """The cost of one piece delivered to a region."""

    region: str
    shipping: str
    duty: str
    total: str
    exposed: bool
    least: bool = Field(description="Nobody is cheaper there")


class DaysOut(Out):
    """Days from the order."""

    to_ship: float | None
    on_the_way: float | None
    in_all: float | None


class ProviderOut(ProviderIn):
    """A provider in the comparison."""

    name: str
    offer: OfferModel | None
    landed: list[LandedOut]
    days: DaysOut
    samples: int
    quickest: bool
    file_says: str = Field(description="What its file rules say to this pair; empty where all is well or nothing is known")
    file_ok: bool


class SampleOrderIn(In):
    """A sample: see :class:`improva.core.providers.Sample`."""

    provider: str = Field(default="", max_length=80)
    ordered: str = Field(max_length=10)
    shipped: str = Field(default="", max_length=10)
    delivered: str = Field(default="", max_length=10)
    checks: dict[str, Result] = Field(default_factory=dict)
    note: str = Field(default="", max_length=4000)

    def to_core(self) -> Sample:
        """The core's value. Raises :class:`ListingError`."""
        return Sample(self.provider.strip(), self.ordered, self.shipped, self.delivered, self.checks, self.note.strip())


class SampleOut(SampleOrderIn):
    """A sample order."""

    id: RowId
    artwork: str
    days: DaysOut
    photos: list[str] = Field(description="Addresses of its photographs")


class LearnedIn(In):
    """Where to apply a sample's findings; with a seam, how far its follower is off."""

    to: Literal["calibration", "press log", "provider notes"]
    seam: str | None = None
    right_mm: float = Field(default=0, ge=-200, le=200)
    down_mm: float = Field(default=0, ge=-200, le=200)


class SeamChoiceOut(Out):
    """A seam that can be calibrated."""

    id: str
    title: str


class ProvidersStateOut(Out):
    """All providers of a blank, and its samples."""

    currency: str
    regions: list[str]
    providers: list[ProviderOut]
    samples: list[SampleOut]
    checks: list[str]
    seams: list[SeamChoiceOut]
    pressed_here: bool = Field(description="Whether the seller can press this blank, so that samples can be their own")


class ProviderPath(BaseModel):
    """Path of a provider."""

    name: VisibleText = Field(min_length=1, max_length=80)


class OfferPath(PairPath, ProviderPath):
    """Path of a provider's offer."""


class SamplePath(BaseModel):
    """Path of a sample."""

    sample_id: RowId


class PhotoPath(SamplePath):
    """Path of a sample's photograph."""

    number: int


class OfferIn(In, OfferModel):
    """A provider's offer for a blank."""
