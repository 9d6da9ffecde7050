"""Costs, fees and prices as stored. Amounts are decimals written as text, so that none is rounded."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field

from ...core.pricing import Costs, Fee, PercentOf, Region, Tax, money
from ...core.pricing.costs import FeeBase, FreeShipping, TaxMode
from ...core.pricing.money import currency
from .base import StoredModel


def _plain(text: str) -> str:
    return f"{money(text):f}"


MOST_FEES = 12

Amount = Annotated[str, Field(max_length=20), AfterValidator(_plain)]


class FeeModel(StoredModel):
    """A fee on each sale."""

    title: str = Field(min_length=1, max_length=60)
    percent: Amount = "0"
    fixed: Amount = "0"
    of: FeeBase = "item and shipping"

    def to_core(self) -> Fee:
        """The core's value. Raises :class:`PriceError`."""
        return Fee(self.title, money(self.percent), money(self.fixed), self.of)


class ShopModel(StoredModel):
    """Currency, fees and tax of the shop."""

    currency: str = Field(default="USD", max_length=3)
    fees: list[FeeModel] = Field(default_factory=list, max_length=MOST_FEES)
    market_fees: dict[str, Annotated[list[FeeModel], Field(max_length=MOST_FEES)]] = Field(
        default_factory=dict, max_length=20, description="Fees of single marketplaces, in place of the others"
    )
    tax_mode: TaxMode = "none"
    tax_percent: Amount = "0"
    free_from: Amount | None = Field(default=None, description="The price from which the buyer pays no shipping")
    unchanged_stops: bool = Field(default=False, description="Bought art that is used unchanged may not be listed")

    def fees_at(self, market: str) -> list[FeeModel]:
        """Return the fees of a marketplace: its own, or else those of every sale."""
        return self.market_fees.get(market, self.fees)


class RegionModel(StoredModel):
    """A shipping region."""

    title: str = Field(min_length=1, max_length=60)
    cost: Amount = "0"
    charged: Amount = "0"
    free: FreeShipping = "as elsewhere"
    free_from: Amount = "0"

    def to_core(self) -> Region:
        """The core's value. Raises :class:`PriceError`."""
        return Region(self.title, money(self.cost), money(self.charged), self.free, money(self.free_from))


class ExtraModel(StoredModel):
    """A colour or size that costs more."""

    title: str = Field(min_length=1, max_length=60)
    more: Amount = "0"


class CostsModel(StoredModel):
    """What one piece of a blank costs."""

    blank: Amount = "0"
    print: Amount = "0"
    packing: Amount = "0"
    regions: list[RegionModel] = Field(default_factory=lambda: [RegionModel(title="Home")], min_length=1, max_length=20)
    extras: list[ExtraModel] = Field(default_factory=list, max_length=40)


class SaleModel(StoredModel):
    """The price of a pair, its planned discount, its wanted profit, and the ending of suggested prices."""

    price: Amount = "0"
    discount: Amount = "0"
    wanted: Amount = "30"
    wanted_percent: bool = True
    percent_of: PercentOf = "net"
    ending: Amount | None = "0.99"
    prices: dict[Annotated[str, Field(max_length=60)], Amount] = Field(
        default_factory=dict, max_length=40, description="List prices of colours or sizes that have their own, by their names"
    )


def core_costs(shop: ShopModel, costs: CostsModel, market: str = "") -> Costs:
    """The core's value for sales at a marketplace. Raises :class:`PriceError`."""
    return Costs(
        currency(shop.currency),
        money(costs.blank),
        money(costs.print),
        money(costs.packing),
        {extra.title: money(extra.more) for extra in costs.extras},
        tuple(r.to_core() for r in costs.regions),
        tuple(fee.to_core() for fee in shop.fees_at(market)),
        Tax(shop.tax_mode, money(shop.tax_percent)),
        None if shop.free_from is None else money(shop.free_from),
    )
