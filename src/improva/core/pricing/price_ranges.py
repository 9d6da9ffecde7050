"""Ranges of prices that fall short of a wanted profit. There may be several: past the threshold of free shipping less is left than below it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from decimal import Decimal

from .costs import Costs, Sale
from .margin import PercentOf, margin_of
from .money import MOST

ROUNDED = 4
"""Price, tax, shipping and what is left are rounded each by itself, and every fee too: so many coins, and one a fee, can a lower
price be ahead of a higher one.
"""

MOST_STEPS = 2000
FAR = 1000
"""Steps over which the growth of profit with price is estimated."""

SaleAt = Callable[[Decimal], Sale]
"""Returns the sale at a price."""

Range = tuple[Decimal, Decimal]
"""The first and the last price of a range."""


def enough(costs: Costs, sale: Sale, wanted: Decimal, percent: PercentOf | None) -> bool:
    """Return whether a sale leaves the wanted profit: an amount, or per cent of the revenue without tax or of what the buyer pays."""
    margin = margin_of(costs, sale)
    if percent:
        return margin.left >= 0 and margin.left * 100 >= wanted * margin.whole(percent)
    return margin.left >= wanted


def short_ranges(
    costs: Costs, discount: Decimal, wanted: Decimal = Decimal(0), percent: PercentOf | None = None
) -> tuple[Range, ...]:
    """Return the ranges of prices at which some sale leaves less than is wanted, from the lowest to the highest.

    Looked at are all regions, with and without the discount, each with the dearest variant. Where no price is high enough,
    the last range reaches the highest price that can be named.
    """
    step, merged = costs.currency.step, list[Range]()
    for low, high in sorted(_all_short(costs, discount, wanted, percent)):
        if merged and low <= merged[-1][1] + step:
            merged[-1] = merged[-1][0], max(merged[-1][1], high)
        else:
            merged.append((low, high))
    return tuple(merged)


def _all_short(costs: Costs, discount: Decimal, wanted: Decimal, percent: PercentOf | None) -> Iterator[Range]:
    for region in costs.regions:
        for part in {Decimal(0), discount}:
            sale = Sale(Decimal(0), part, region.title, costs.dearest)
            for stretch in rising_stretches(costs, sale.at):
                last = _last_short(costs, sale.at, stretch, wanted, percent)
                if last is not None:
                    yield stretch[0], last


def rising_stretches(costs: Costs, sale_at: SaleAt) -> list[Range]:
    """Return the stretches of prices in which profit grows with the price: below the threshold of free shipping, and from it on.

    ``sale_at`` returns the sale at a price, always to the same region.
    """
    title = sale_at(Decimal(0)).region
    region = costs.region(title) if title else costs.regions[0]
    threshold = costs.free_from_of(region)
    if threshold is None or not region.charged:
        return [(Decimal(0), MOST)]
    step = costs.currency.step
    below, last = _turn(costs, -step, MOST, lambda price: margin_of(costs, sale_at(price)).item >= threshold)
    return [(Decimal(0), MOST)] if last == 0 else [(Decimal(0), below), (last, MOST)]


def lowest_enough(
    costs: Costs, sale_at: SaleAt, stretch: Range, wanted: Decimal, percent: PercentOf | None
) -> tuple[Decimal, int] | None:
    """Return the price from which on a rising stretch leaves enough, and how many coins rounding can lead astray from it.

    None where even its highest price leaves too little.
    """
    low, top = stretch
    step = costs.currency.step
    if not enough(costs, sale_at(top), wanted, percent):
        return None
    _, at = _turn(costs, low - step, top, lambda price: enough(costs, sale_at(price), wanted, percent))
    far = min(top, at + FAR * step)

    def ahead(price: Decimal) -> Decimal:
        margin = margin_of(costs, sale_at(price))
        return margin.left * 100 - wanted * margin.whole(percent) if percent else margin.left - wanted

    gain = (ahead(far) - ahead(at)) / ((far - at) / step) if far > at else Decimal(0)
    astray = (ROUNDED + len(costs.fees)) * step * (100 if percent else 1)
    return at, min(MOST_STEPS, int(astray / gain) + 1) if gain > 0 else ROUNDED


def _turn(costs: Costs, below: Decimal, at: Decimal, holds: Callable[[Decimal], bool]) -> tuple[Decimal, Decimal]:
    """Return two neighbouring prices between a price that does not hold and one that does: the last without and the first with it."""
    step = costs.currency.step
    while at - below > step:
        middle = ((below + at) / 2 / step).to_integral_value() * step
        if middle in (below, at):
            break
        below, at = (below, middle) if holds(middle) else (middle, at)
    return below, at


def _last_short(costs: Costs, sale_at: SaleAt, stretch: Range, wanted: Decimal, percent: PercentOf | None) -> Decimal | None:
    """Return the highest price of a rising stretch that falls short; None if none does."""
    low, top = stretch
    found = lowest_enough(costs, sale_at, stretch, wanted, percent)
    if found is None:
        return top
    at, steps = found
    step = costs.currency.step
    for i in range(steps, 0, -1):
        price = at + i * step
        if price <= top and not enough(costs, sale_at(price), wanted, percent):
            return price
    return at - step if at > low else None
