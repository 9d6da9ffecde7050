"""A print provider's offer as stored. Amounts are decimals written as text."""

from __future__ import annotations

from pydantic import Field

from ...core.pricing import money
from ...core.providers import Offer, Route
from .base import StoredModel
from .selling import Amount


class RouteModel(StoredModel):
    """Shipping of a provider's parcels to a region: see :class:`improva.core.providers.Route`."""

    region: str = Field(min_length=1, max_length=60)
    shipping: Amount = "0"
    duty_percent: Amount = "0"
    free_up_to: Amount | None = None
    handling: Amount = "0"
    limit_counts_shipping: bool = False

    def to_core(self) -> Route:
        """The core's value. Raises :class:`PriceError`."""
        limit = None if self.free_up_to is None else money(self.free_up_to)
        return Route(
            self.region, money(self.shipping), money(self.duty_percent), limit, money(self.handling), self.limit_counts_shipping
        )


class OfferModel(StoredModel):
    """A provider's offer for one printed piece of a blank: see :class:`improva.core.providers.Offer`."""

    piece: Amount = "0"
    routes: list[RouteModel] = Field(default_factory=list, max_length=20)
    least_dpi: float = Field(default=0, ge=0, le=2400)
    file_mm: tuple[float, float] | None = None

    def to_core(self) -> Offer:
        """The core's value. Raises :class:`PriceError`."""
        return Offer(money(self.piece), tuple(r.to_core() for r in self.routes), self.least_dpi, self.file_mm)
