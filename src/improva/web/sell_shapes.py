"""What the Sell station is told of prices, and tells. Amounts are decimals written as text, so that no coin is lost on the way."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field

from ..core.pricing import Costs, Fee, Region, Tax, money
from ..core.pricing.costs import FeeBase, TaxMode
from ..core.pricing.money import currency
from .shapes import Shape


def _plain(text: str) -> str:
    return f"{money(text):f}"


Amount = Annotated[str, Field(max_length=20), AfterValidator(_plain)]


class FeeBody(Shape):
    """What somebody takes of each sale."""

    title: str = Field(min_length=1, max_length=60)
    percent: Amount = "0"
    fixed: Amount = "0"
    of: FeeBase = "item and shipping"

    def to_core(self) -> Fee:
        """The core's value. Raises :class:`BadPrice`."""
        return Fee(self.title, money(self.percent), money(self.fixed), self.of)


class ShopBody(Shape):
    """What holds for everything that is sold."""

    currency: str = Field(default="USD", max_length=3)
    fees: list[FeeBody] = Field(default_factory=list, max_length=12)
    tax_mode: TaxMode = "none"
    tax_percent: Amount = "0"
    free_from: Amount | None = Field(default=None, description="The price from which the buyer pays no shipping")


class RegionBody(Shape):
    """Where it is sent."""

    title: str = Field(min_length=1, max_length=60)
    cost: Amount = "0"
    charged: Amount = "0"

    def to_core(self) -> Region:
        """The core's value. Raises :class:`BadPrice`."""
        return Region(self.title, money(self.cost), money(self.charged))


class ExtraBody(Shape):
    """A colour or size that costs more."""

    title: str = Field(min_length=1, max_length=60)
    more: Amount = "0"


class CostsBody(Shape):
    """What one piece of a blank costs."""

    blank: Amount = "0"
    print: Amount = "0"
    packing: Amount = "0"
    regions: list[RegionBody] = Field(default_factory=lambda: [RegionBody(title="Home")], min_length=1, max_length=20)
    extras: list[ExtraBody] = Field(default_factory=list, max_length=40)


class SaleBody(Shape):
    """The price of a pair, the discount that is planned, what is to be left, and how the price is to end."""

    price: Amount = "0"
    discount: Amount = "0"
    wanted: Amount = "30"
    wanted_percent: bool = True
    ending: Amount | None = "0.99"


class CaseShape(Shape):
    """A sale, reckoned line by line."""

    title: str
    price: str
    discount: str
    region: str
    extra: str | None
    item: str
    shipping: str
    paid: str
    tax: str
    fees: list[tuple[str, str]]
    spent: str
    left: str
    percent: str | None
    loss: bool


class SellState(Shape):
    """Everything about the price of a pair."""

    shop: ShopBody
    costs: CostsBody
    sale: SaleBody
    known: bool = Field(description="Whether anything was said of what it costs")
    cases: list[CaseShape]
    break_even: str | None = Field(description="The lowest price at which nothing is lost, also in the worst case")
    asked: str | None = Field(description="The lowest price that leaves what is wanted, also in the worst case")
    curve: list[tuple[str, str, str]] = Field(description="Prices, what is left now, and what in the worst case")
    problem: str | None


def core_costs(shop: ShopBody, costs: CostsBody) -> Costs:
    """The core's value. Raises :class:`BadPrice`."""
    return Costs(
        currency(shop.currency), money(costs.blank), money(costs.print), money(costs.packing),
        {extra.title: money(extra.more) for extra in costs.extras}, tuple(r.to_core() for r in costs.regions),
        tuple(fee.to_core() for fee in shop.fees), Tax(shop.tax_mode, money(shop.tax_percent)),
        None if shop.free_from is None else money(shop.free_from),
    )  # fmt: skip
