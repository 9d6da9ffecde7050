"""Profit of one sale, line by line."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from .costs import Costs, Fee, Sale
from .money import PriceError

HUNDRED = Decimal(100)

PercentOf = Literal["net", "paid"]
"""What a per cent is of: the seller's revenue without tax, or all that the buyer pays."""


@dataclass(frozen=True)
class Margin:
    """The result of a sale: every amount in the currency's smallest coin.

    Attributes:
        item: the price less the discount.
        shipping: what the buyer pays for it.
        tax: tax within the price, or on top of it.
        paid: all that the buyer pays.
        fees: each fee's title and amount, in order.
        spent: blank, print, packing, dearer variant and shipping.
        left: what stays with the seller.
        percent: of what the seller takes in without tax, to a tenth; None where that is nothing.
        percent_paid: of all that the buyer pays, to a tenth; None where that is nothing.
    """

    item: Decimal
    shipping: Decimal
    tax: Decimal
    paid: Decimal
    fees: tuple[tuple[str, Decimal], ...]
    spent: Decimal
    left: Decimal
    percent: Decimal | None
    percent_paid: Decimal | None

    def whole(self, of: PercentOf) -> Decimal:
        """Return what a per cent is taken of."""
        return self.net if of == "net" else self.paid

    @property
    def net(self) -> Decimal:
        """The seller's revenue without tax."""
        return self.left + self.spent + sum((amount for _, amount in self.fees), Decimal(0))


@dataclass(frozen=True)
class Case:
    """A sale of interest, and its margin."""

    title: str
    sale: Sale
    margin: Margin


def margin_of(costs: Costs, sale: Sale) -> Margin:
    """Calculate one sale. Raises :class:`PriceError` for an unknown region or variant."""
    round_ = costs.currency.round
    region = costs.region(sale.region) if sale.region else costs.regions[0]
    if sale.extra is not None and sale.extra not in costs.extras:
        raise PriceError(f"Nothing is said of what '{sale.extra}' costs more.")
    item = round_(sale.price * (HUNDRED - sale.discount) / HUNDRED)
    threshold = costs.free_from_of(region)
    free = threshold is not None and item >= threshold
    shipping = Decimal(0) if free else round_(region.charged)
    gross, rate = item + shipping, costs.tax.percent / HUNDRED
    tax = Decimal(0)
    if costs.tax.mode == "within the price":
        tax = round_(gross - gross / (1 + rate))
    elif costs.tax.mode == "on top":
        tax = round_(gross * rate)
    on_top = costs.tax.mode == "on top"
    paid, net = gross + (tax if on_top else 0), gross - (0 if on_top else tax)
    bases = {"item": item, "item and shipping": gross, "all with tax": paid}
    fees = tuple((fee.title, _fee(costs, fee, bases[fee.of])) for fee in costs.fees)
    extra = costs.extras[sale.extra] if sale.extra else Decimal(0)
    spent = round_(costs.blank + costs.print + costs.packing + extra + region.cost)
    left = net - sum((amount for _, amount in fees), Decimal(0)) - spent
    percent, percent_paid = ((HUNDRED * left / whole).quantize(Decimal("0.1")) if whole else None for whole in (net, paid))
    return Margin(item, shipping, tax, paid, fees, spent, left, percent, percent_paid)


def _fee(costs: Costs, fee: Fee, base: Decimal) -> Decimal:
    """Return a fee's amount: percentage plus fixed part, rounded once."""
    return costs.currency.round(base * fee.percent / HUNDRED + fee.fixed)


Prices = Mapping[str, Decimal]
"""Prices of variants that have one of their own, by the variants' names."""


def worst_sale(costs: Costs, price: Decimal, discount: Decimal, prices: Prices | None = None) -> Sale:
    """Return the sale with the lowest profit: discounted or not, to any region, of any variant at its price."""
    variants = [
        (price, costs.without(prices or ()).dearest),
        *((own, name) for name, own in (prices or {}).items() if name in costs.extras),
    ]
    sales = [
        Sale(at, part, region.title, extra)
        for at, extra in variants
        for region in costs.regions
        for part in {Decimal(0), discount}
    ]
    return min(sales, key=lambda sale: margin_of(costs, sale).left)


@dataclass(frozen=True)
class Variant:
    """A colour or size: its price, whether that is its own, and its profit now and in the worst case."""

    title: str
    price: Decimal
    own: bool
    now: Margin
    worst: Margin


def variants_of(costs: Costs, price: Decimal, discount: Decimal, prices: Prices) -> tuple[Variant, ...]:
    """Return every variant at its own price, or at the list price where it has none."""
    found = []
    for name in costs.extras:
        at = prices.get(name, price)
        alone = replace(costs, extras={name: costs.extras[name]})
        worst = margin_of(alone, worst_sale(alone, at, discount))
        found.append(Variant(name, at, name in prices, margin_of(alone, Sale(at, extra=name)), worst))
    return tuple(found)


def cases(costs: Costs, price: Decimal, discount: Decimal = Decimal(0), prices: Prices | None = None) -> tuple[Case, ...]:
    """Return three sales: today's, one at the planned discount, and the worst case of all variants."""
    sales = [("Now", Sale(price))]
    if discount:
        sales.append(("At the discount", Sale(price, discount)))
    sales.append(("Worst case", worst_sale(costs, price, discount, prices)))
    return tuple(Case(title, sale, margin_of(costs, sale)) for title, sale in sales)
