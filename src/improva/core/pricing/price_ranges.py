"""Ranges of prices that fall short of a wanted profit. There may be several: past the threshold of free shipping less is left than below it."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from .costs import Costs, Region, Sale
from .margin import PercentOf, margin_of
from .money import MOST

ROUNDED = 4
"""Price, tax, shipping and what is left are rounded each by itself, and every fee too: so many coins, and one a fee, can a lower
price be ahead of a higher one.
"""

MOST_STEPS = 2000
FAR = 1000
"""Steps over which the growth of profit with price is estimated."""

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
    extra = max(costs.extras, key=lambda name: costs.extras[name], default=None)
    for region in costs.regions:
        for part in {Decimal(0), discount}:
            sale = Sale(Decimal(0), part, region.title, extra)
            for low, top in _rising(costs, region, sale):
                last = _last_short(costs, sale, low, top, wanted, percent)
                if last is not None:
                    yield low, last


def _rising(costs: Costs, region: Region, sale: Sale) -> list[Range]:
    """Return the stretches of prices in which profit grows with the price: below the threshold of free shipping, and from it on."""
    threshold = costs.free_from_of(region)
    if threshold is None or not region.charged:
        return [(Decimal(0), MOST)]
    first, last, step = Decimal(0) - costs.currency.step, MOST, costs.currency.step
    while last - first > step:  # the lowest price whose item reaches it
        middle = ((first + last) / 2 / step).to_integral_value() * step
        if middle in (first, last):
            break
        if margin_of(costs, sale.at(middle)).item >= threshold:
            last = middle
        else:
            first = middle
    return [(Decimal(0), MOST)] if last == 0 else [(Decimal(0), last - step), (last, MOST)]


def _last_short(
    costs: Costs, sale: Sale, low: Decimal, top: Decimal, wanted: Decimal, percent: PercentOf | None
) -> Decimal | None:
    """Return the highest price of a rising stretch that falls short; None if none does."""
    step = costs.currency.step

    def holds(price: Decimal) -> bool:
        return enough(costs, sale.at(price), wanted, percent)

    if not holds(top):
        return top
    below, at = low - step, top
    while at - below > step:
        middle = ((below + at) / 2 / step).to_integral_value() * step
        if middle in (below, at):
            break
        below, at = (below, middle) if holds(middle) else (middle, at)
    far = min(top, at + FAR * step)

    def ahead(price: Decimal) -> Decimal:
        margin = margin_of(costs, sale.at(price))
        return margin.left * 100 - wanted * margin.whole(percent) if percent else margin.left - wanted

    gain = (ahead(far) - ahead(at)) / ((far - at) / step) if far > at else Decimal(0)
    astray = (ROUNDED + len(costs.fees)) * step * (100 if percent else 1)
    steps = min(MOST_STEPS, int(astray / gain) + 1) if gain > 0 else ROUNDED
    for i in range(steps, -1, -1):
        price = at + i * step
        if low <= price <= top and not holds(price):
            return price
    return below if below >= low else None
