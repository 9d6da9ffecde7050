"""Request and response models of prices. Amounts are decimals written as text, so that none is rounded."""

from __future__ import annotations

from pydantic import Field

from ...store.models.selling import CostsModel, SaleModel, ShopModel
from .common import In, Out


class SaleCaseOut(Out):
    """A sale, calculated line by line."""

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
    percent: str | None = Field(description="Profit in per cent of the seller's revenue without tax")
    percent_paid: str | None = Field(description="Profit in per cent of all that the buyer pays")
    loss: bool


class VariantOut(Out):
    """A colour or size that costs more, at its price."""

    title: str
    more: str
    price: str
    own: bool = Field(description="Whether the price is its own, not the list price")
    left: str
    worst: str = Field(description="The profit in the worst case")


class SaleStateOut(Out):
    """The price calculation of a pair."""

    market: str = Field(description="Id of the marketplace whose fees are counted: the one it is listed at")
    market_title: str
    shop: ShopModel
    costs: CostsModel
    sale: SaleModel
    known: bool = Field(description="Whether anything was said of what it costs")
    cases: list[SaleCaseOut]
    variants: list[VariantOut]
    break_even: str | None = Field(description="The lowest price at which nothing is lost, also in the worst case")
    safe_from: str | None = Field(
        description="The lowest price from which no price loses, in any case; None where there is none"
    )
    losses: list[tuple[str, str]] = Field(description="First and last price of every range in which some sale loses")
    suggested: str | None = Field(
        description="The suggested price: the lowest that reaches the margin wanted, also in the worst case"
    )
    curve: list[tuple[str, str, str]] = Field(description="Prices, the profit now, and in the worst case")
    problem: str | None


class SellingIn(In):
    """Changes to costs, fees and price; omitted values stay."""

    shop: ShopModel | None = None
    costs: CostsModel | None = Field(default=None, description="Of the blank, for every artwork on it")
    sale: SaleModel | None = None
