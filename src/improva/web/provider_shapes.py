"""What requests and answers about print providers and samples look like. Amounts are decimals written as text."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..core.pricing import money
from ..core.providers import Offer, Result, Route, Sample
from .sell_shapes import Amount
from .shapes import Shape


class RouteBody(Shape):
    """How a provider's parcels reach a region: see :class:`improva.core.providers.Route`."""

    region: str = Field(min_length=1, max_length=60)
    shipping: Amount = "0"
    duty_percent: Amount = "0"
    free_up_to: Amount | None = None
    handling: Amount = "0"

    def to_core(self) -> Route:
        """The core's value. Raises :class:`BadPrice`."""
        limit = None if self.free_up_to is None else money(self.free_up_to)
        return Route(self.region, money(self.shipping), money(self.duty_percent), limit, money(self.handling))


class OfferBody(Shape):
    """What a provider asks for one printed piece of a blank: see :class:`improva.core.providers.Offer`."""

    piece: Amount = "0"
    routes: list[RouteBody] = Field(default_factory=list, max_length=20)
    least_dpi: float = Field(default=0, ge=0, le=2400)
    file_mm: tuple[float, float] | None = None

    def to_core(self) -> Offer:
        """The core's value. Raises :class:`BadPrice`."""
        return Offer(money(self.piece), tuple(r.to_core() for r in self.routes), self.least_dpi, self.file_mm)


class ProviderBody(Shape):
    """What is said of a provider."""

    origin: str = Field(default="", max_length=120, description="Where it ships from")
    note: str = Field(default="", max_length=4000)


class LandedShape(Shape):
    """One piece at the buyer's door in a region."""

    region: str
    shipping: str
    duty: str
    total: str
    exposed: bool
    least: bool = Field(description="Nobody is cheaper there")


class DaysShape(Shape):
    """Days from the order."""

    to_ship: float | None
    on_the_way: float | None
    in_all: float | None


class ProviderShape(ProviderBody):
    """A provider beside the others."""

    name: str
    offer: OfferBody | None
    landed: list[LandedShape]
    days: DaysShape
    samples: int
    quickest: bool
    file_says: str = Field(description="What its file rules say to this pair; empty where all is well or nothing is known")
    file_ok: bool


class OrderedSample(Shape):
    """A sample: see :class:`improva.core.providers.Sample`."""

    provider: str = Field(default="", max_length=80)
    ordered: str = Field(max_length=10)
    shipped: str = Field(default="", max_length=10)
    delivered: str = Field(default="", max_length=10)
    checks: dict[str, Result] = Field(default_factory=dict)
    note: str = Field(default="", max_length=4000)

    def to_core(self) -> Sample:
        """The core's value. Raises :class:`BadListing`."""
        return Sample(self.provider.strip(), self.ordered, self.shipped, self.delivered, self.checks, self.note.strip())


class SampleShape(OrderedSample):
    """A sample as it is answered."""

    id: int
    artwork: str
    days: DaysShape
    photos: list[str] = Field(description="Addresses of its photographs")


class LearnedBody(Shape):
    """Where what a sample has shown goes: with a seam, how far past its place its follower lies."""

    to: Literal["calibration", "press log", "provider notes"]
    seam: str | None = None
    right_mm: float = Field(default=0, ge=-200, le=200)
    down_mm: float = Field(default=0, ge=-200, le=200)


class SeamChoice(Shape):
    """A seam that can be calibrated."""

    id: str
    title: str


class ProvidersState(Shape):
    """Providers of a blank compared, and samples of it."""

    currency: str
    regions: list[str]
    providers: list[ProviderShape]
    samples: list[SampleShape]
    checks: list[str]
    seams: list[SeamChoice]
    pressed_here: bool = Field(description="Whether the seller can press this blank, so that samples can be their own")
