"""The suggested price: the lowest one that reaches a wanted profit."""

from __future__ import annotations

from decimal import ROUND_CEILING, Decimal

from .costs import Costs, Sale
from .margin import PercentOf, margin_of
from .money import MOST, PriceError
from .price_ranges import SaleAt, enough, lowest_enough, rising_stretches, short_ranges

TOO_MUCH = "No price leaves that profit: fees, tax and the profit take all of it. Want less profit, or lower the fees."


def price_for(costs: Costs, wanted: Decimal, percent: PercentOf | None = None, make: SaleAt = Sale) -> Decimal:
    """Return the lowest price that reaches the profit ``wanted``: an amount, or per cent of the revenue without tax or of what the buyer pays.

    Past the threshold of free shipping less may be left than just below it: the price that is answered leaves enough itself.

    Raises :class:`PriceError` where no price does, since fees and wish together take it all.
    """
    step = costs.currency.step
    for low, top in rising_stretches(costs, make):
        found = lowest_enough(costs, make, (low, top), wanted, percent)
        if found is not None:
            at, steps = found
            lower = (at - i * step for i in range(steps, 0, -1))
            return next((price for price in lower if price >= low and enough(costs, make(price), wanted, percent)), at)
    raise PriceError(TOO_MUCH)


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
        raise PriceError(TOO_MUCH)
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
