"""Landed cost: the piece, shipping and customs."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from ..pricing.money import Currency, PriceError

HUNDRED = Decimal(100)


@dataclass(frozen=True)
class Route:
    """Shipping of a provider's parcels to a region.

    Attributes:
        shipping: what sending one piece costs the seller.
        duty_percent: duty and import tax, of the piece and its shipping; 0 where the parcel crosses no border.
        free_up_to: the value up to which none is taken; None where there is no such limit.
        limit_counts_shipping: whether that value counts shipping too, or the goods alone.
        handling: what the carrier takes for clearing a parcel on which duty falls due.
    """

    region: str
    shipping: Decimal = Decimal(0)
    duty_percent: Decimal = Decimal(0)
    free_up_to: Decimal | None = None
    handling: Decimal = Decimal(0)
    limit_counts_shipping: bool = False

    def __post_init__(self) -> None:
        if min(self.shipping, self.handling, self.free_up_to or Decimal(0)) < 0 or not 0 <= self.duty_percent <= 300:
            raise PriceError(f"{self.region}: amounts start at nothing, and duty is 0 to 300 per cent.")


@dataclass(frozen=True)
class Offer:
    """A provider's prices for one printed piece of a blank, and its file requirements.

    Attributes:
        piece: blank and print together.
        least_dpi: below this it refuses a file; 0 where it names none.
        file_mm: the print file's size it asks for; None where it is the template's.
    """

    piece: Decimal
    routes: tuple[Route, ...]
    least_dpi: float = 0.0
    file_mm: tuple[float, float] | None = None

    def __post_init__(self) -> None:
        if self.piece < 0 or self.least_dpi < 0 or (self.file_mm and min(self.file_mm) <= 0):
            raise PriceError("A piece's cost, its dpi and its file's size cannot be less than nothing.")


@dataclass(frozen=True)
class Landed:
    """The cost of one delivered piece, in the currency's smallest coin.

    Attributes:
        duty: with the carrier's handling, where any is due.
        exposed: whether customs can take something on this route, even if this piece stays below the limit.
    """

    region: str
    piece: Decimal
    shipping: Decimal
    duty: Decimal
    total: Decimal
    exposed: bool


def landed(offer: Offer, region: str, currency: Currency) -> Landed | None:
    """Return the cost of a piece delivered to a region; None where the provider does not ship there."""
    route = next((each for each in offer.routes if each.region == region), None)
    if route is None:
        return None
    value = offer.piece + (route.shipping if route.limit_counts_shipping else 0)
    due = route.duty_percent > 0 and (route.free_up_to is None or value > route.free_up_to)
    duty = (offer.piece + route.shipping) * route.duty_percent / HUNDRED + route.handling if due else Decimal(0)
    duty = currency.round(duty)
    return Landed(region, offer.piece, route.shipping, duty, offer.piece + route.shipping + duty, route.duty_percent > 0)
