"""The suggested price: the lowest one that reaches a wanted profit."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from decimal import ROUND_CEILING, Decimal

from .costs import Costs, Sale
from .margin import PercentOf, margin_of
from .money import MOST, PriceError
from .price_ranges import FAR, MOST_STEPS, ROUNDED, enough, short_ranges

SaleAt = Callable[[Decimal], Sale]
"""Returns the sale at a price."""


def _ahead(costs: Costs, sale: Sale, wanted: Decimal, percent: PercentOf | None) -> Decimal:
    """Return the profit above the wanted one; for per cents, multiplied by a hundred."""
    margin = margin_of(costs, sale)
    return margin.left * 100 - wanted * margin.whole(percent) if percent else margin.left - wanted


def price_for(costs: Costs, wanted: Decimal, percent: PercentOf | None = None, make: SaleAt = Sale) -> Decimal:
    """Return the lowest price that reaches the profit ``wanted``: an amount, or per cent of the revenue without tax or of what the buyer pays.

    Past the threshold of free shipping less may be left than just below it: the price that is answered leaves enough itself.

    Raises :class:`PriceError` where no price does, since fees and wish together take it all.
    """
    step = costs.currency.step

    def holds(price: Decimal) -> bool:
        return enough(costs, make(price), wanted, percent)

    bounds = [Decimal(0), MOST]
    threshold = _threshold(costs, make(Decimal(0)))
    if threshold is not None:  # below the threshold, and again from it on, profit grows with the price
        first, last = Decimal(0), MOST
        while last - first > step:  # the lowest price whose item reaches it
            middle = _coins((first + last) / 2, step)
            if margin_of(costs, make(middle)).item >= threshold:
                last = middle
            else:
                first = middle
        bounds.insert(1, last)
    for low, high in itertools.pairwise(bounds):
        top = high if high == MOST else high - step
        if top < low or not holds(top):
            continue
        below, at = low - step, top
        while at - below > step:
            middle = _coins((below + at) / 2, step)
            if middle in (below, at):
                break
            below, at = (below, middle) if holds(middle) else (middle, at)
        far = top if top < at + FAR * step else at + FAR * step
        apart = (far - at) / step if far > at else Decimal(1)
        gain = (_ahead(costs, make(far), wanted, percent) - _ahead(costs, make(at), wanted, percent)) / apart
        astray = (ROUNDED + len(costs.fees)) * step * (100 if percent else 1)
        steps = min(MOST_STEPS, int(astray / gain) + 1) if gain > 0 else ROUNDED
        lower = (at - i * step for i in range(steps, 0, -1))
        return next((price for price in lower if price >= low and holds(price)), at)
    raise PriceError(
        "No price leaves that profit: fees, tax and the profit take all of it. Want less profit, or lower the fees."
    )


def _threshold(costs: Costs, sale: Sale) -> Decimal | None:
    return costs.free_from_of(costs.region(sale.region) if sale.region else costs.regions[0])


def _coins(amount: Decimal, step: Decimal) -> Decimal:
    return (amount / step).to_integral_value() * step


def safe_price(
    costs: Costs, discount: Decimal, wanted: Decimal, percent: PercentOf | None = None, ending: Decimal | None = None
) -> Decimal:
    """Return the lowest price that reaches the profit wanted, also in the worst case, and has the ending. Raises :class:`PriceError`."""
    step = costs.currency.step

    def rounded(price: Decimal) -> Decimal:
        return price if ending is None else rounded_up(price, ending, Decimal(10) if ending >= 1 else Decimal(1))

    price = rounded(Decimal(0))
    for low, high in short_ranges(costs, discount, wanted, percent):
        if low <= price <= high:  # a price with the ending may lie in a range again where free shipping costs too much
            price = rounded(high + step)
    if price > MOST:
        raise PriceError(
            "No price leaves that profit: fees, tax and the profit take all of it. Want less profit, or lower the fees."
        )
    return costs.currency.round(price)


def never_short_from(costs: Costs, discount: Decimal) -> Decimal | None:
    """Return the lowest price from which no price loses in any case; None where there is none."""
    ranges = short_ranges(costs, discount)
    if not ranges:
        return Decimal(0)
    return None if ranges[-1][1] >= MOST else ranges[-1][1] + costs.currency.step


def break_even(costs: Costs, make: SaleAt = Sale) -> Decimal:
    """Return the lowest price without a loss."""
    return price_for(costs, Decimal(0), make=make)


def rounded_up(price: Decimal, ending: Decimal, per: Decimal = Decimal(1)) -> Decimal:
    """Round a price up to the next one with an ending: 0.99 within each 1, or 9.95 within each 10.

    Raises :class:`PriceError` for an ending outside its step.
    """
    if per <= 0 or not 0 <= ending < per:
        raise PriceError(f"A price cannot end on {ending} in steps of {per}.")
    return ((price - ending) / per).to_integral_value(ROUND_CEILING) * per + ending


def margin_curve(
    costs: Costs, low: Decimal, high: Decimal, count: int = 60, make: SaleAt = Sale
) -> list[tuple[Decimal, Decimal]]:
    """Return prices from ``low`` to ``high`` at equal steps, each with its profit."""
    prices = {costs.currency.round(low + (high - low) * i / (count - 1)) for i in range(count)}
    return [(price, margin_of(costs, make(price)).left) for price in sorted(prices)]
