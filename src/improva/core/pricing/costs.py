"""The seller's costs of a sale: production, shipping and fees."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Literal

from .money import Currency, PriceError

FeeBase = Literal["item", "item and shipping", "all with tax"]
"""Base of a percentage: the discounted price; that plus the shipping paid by the buyer; or all that the buyer pays."""
FreeShipping = Literal["as elsewhere", "never", "from"]
TaxMode = Literal["none", "within the price", "on top"]

MOST_PERCENT = 95


@dataclass(frozen=True)
class Fee:
    """A fee that a marketplace, a payment service or an advertisement takes of each sale."""

    title: str
    percent: Decimal = Decimal(0)
    fixed: Decimal = Decimal(0)
    of: FeeBase = "item and shipping"

    def __post_init__(self) -> None:
        if not 0 <= self.percent <= MOST_PERCENT or self.fixed < 0:
            raise PriceError(f"{self.title}: a fee is 0 to {MOST_PERCENT} per cent and a fixed amount from 0 up.")


@dataclass(frozen=True)
class Region:
    """A shipping region.

    Attributes:
        cost: of shipping for the seller.
        charged: what the buyer pays for it.
        free: whether shipping becomes free at the shop's threshold, never, or from this region's own threshold on.
        free_from: the region's own threshold, a discounted price.
    """

    title: str
    cost: Decimal
    charged: Decimal = Decimal(0)
    free: FreeShipping = "as elsewhere"
    free_from: Decimal = Decimal(0)

    def __post_init__(self) -> None:
        if min(self.cost, self.charged, self.free_from) < 0:
            raise PriceError(f"{self.title}: shipping cannot be less than nothing.")


@dataclass(frozen=True)
class Tax:
    """Sales tax or VAT: included in the price, or added to it and passed on."""

    mode: TaxMode = "none"
    percent: Decimal = Decimal(0)

    def __post_init__(self) -> None:
        if not 0 <= self.percent <= 100:
            raise PriceError(f"A tax of {self.percent} per cent is out of reach.")


@dataclass(frozen=True)
class Costs:
    """All costs of one piece and the fees on its sale.

    Attributes:
        blank, print, packing: for one piece.
        extras: what some colours or sizes cost more, by their names.
        regions: where it is sent; at least one.
        free_from: the discounted price from which the buyer pays no shipping, in regions that say nothing else; None where they
            always do.
    """

    currency: Currency = field(default_factory=Currency)
    blank: Decimal = Decimal(0)
    print: Decimal = Decimal(0)
    packing: Decimal = Decimal(0)
    extras: Mapping[str, Decimal] = field(default_factory=dict)
    regions: tuple[Region, ...] = (Region("Everywhere", Decimal(0)),)
    fees: tuple[Fee, ...] = ()
    tax: Tax = field(default_factory=Tax)
    free_from: Decimal | None = None

    def __post_init__(self) -> None:
        if min(self.blank, self.print, self.packing) < 0:
            raise PriceError("What a piece costs cannot be less than nothing.")
        if not self.regions:
            raise PriceError("Name at least one region that is sent to.")
        if sum(fee.percent for fee in self.fees) >= 100:
            raise PriceError("The fees together take all of the price or more: correct their percentages.")

    @property
    def dearest(self) -> str | None:
        """Return the variant that costs most; None where all cost the same."""
        return max(self.extras, key=lambda name: self.extras[name], default=None)

    def without(self, names: Iterable[str]) -> Costs:
        """Return the costs without some dearer variants: those that have a price of their own."""
        return replace(self, extras={name: more for name, more in self.extras.items() if name not in set(names)})

    def free_from_of(self, region: Region) -> Decimal | None:
        """Return the discounted price from which shipping to a region is free; None where it never is."""
        if region.free == "never":
            return None
        return region.free_from if region.free == "from" else self.free_from

    def region(self, title: str) -> Region:
        """Return a region by its title. Raises :class:`PriceError`."""
        for region in self.regions:
            if region.title == title:
                return region
        raise PriceError(f"Nothing is said of sending to '{title}'. Known: {', '.join(r.title for r in self.regions)}.")


@dataclass(frozen=True)
class Sale:
    """One sale: list price, discount in per cent, region, and the variant with its extra cost."""

    price: Decimal
    discount: Decimal = Decimal(0)
    region: str | None = None
    extra: str | None = None

    def at(self, price: Decimal) -> Sale:
        """Return the same sale at another list price."""
        return replace(self, price=price)

    def __post_init__(self) -> None:
        if self.price < 0:
            raise PriceError("A price cannot be less than nothing.")
        if not 0 <= self.discount < 100:
            raise PriceError(f"A discount of {self.discount} per cent leaves nothing to pay: use less than 100.")
