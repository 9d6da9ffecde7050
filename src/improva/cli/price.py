"""``improva price``: calculate profit and prices."""

from __future__ import annotations

import re
from decimal import Decimal
from typing import Any

import click

from ..core.pricing import (
    Costs,
    Fee,
    PercentOf,
    Region,
    Tax,
    cases,
    money,
    never_short_from,
    safe_price,
    short_ranges,
    variants_of,
)
from ..core.pricing.costs import FeeBase, TaxMode
from ..core.pricing.margin import Case
from ..core.pricing.money import PriceError, currency
from .group import as_json_option, main, tell

BASES: dict[str, FeeBase] = {"item": "item", "shipping": "item and shipping", "all": "all with tax"}
TAXES: dict[str, TaxMode] = {"none": "none", "within": "within the price", "on-top": "on top"}


def _fee(text: str) -> Fee:
    """Parse a fee: ``Title:6.5%+0.25:all``."""
    match = re.fullmatch(r"(?:([^:]+):)?(?:([\d.,]+)%)?\+?([\d.,]+)?(?::(\w+))?", text)
    if not match or not (match[2] or match[3]) or (match[4] or "shipping") not in BASES:
        raise PriceError(
            f"'{text}' is no fee: write for example Marketplace:6.5%+0.25:all; the end is one of {', '.join(BASES)}."
        )
    return Fee(match[1] or "Fee", money(match[2] or 0), money(match[3] or 0), BASES[match[4] or "shipping"])


def _pair(text: str) -> tuple[str, Decimal]:
    title, equals, amount = text.rpartition("=")
    if not equals:
        raise PriceError(f"'{text}' has no amount: write for example 2XL=1.80.")
    return title, money(amount)


def _case(case: Case) -> dict[str, Any]:
    m = case.margin
    return {
        "title": case.title,
        "price": float(case.sale.price),
        "discount": float(case.sale.discount),
        "region": case.sale.region,
        "extra": case.sale.extra,
        "item": float(m.item),
        "shipping": float(m.shipping),
        "tax": float(m.tax),
        "paid": float(m.paid),
        "fees": [{"title": t, "amount": float(a)} for t, a in m.fees],
        "spent": float(m.spent),
        "left": float(m.left),
        "percent": None if m.percent is None else float(m.percent),
    }


@main.command()
@click.option("--cost", required=True, metavar="X", help="Blank and print of one piece.")
@click.option("--packing", default="0", metavar="X")
@click.option("--shipping", required=True, metavar="X", help="What sending it costs you.")
@click.option("--charged", default="0", metavar="X", help="What the buyer pays for shipping.")
@click.option("--region", "regions", multiple=True, metavar="NAME=COST", help="A further region, and what sending there costs.")
@click.option("--free-from", metavar="X", help="The price from which the buyer pays no shipping.")
@click.option("--price", required=True, metavar="X", help="The list price.")
@click.option("--discount", default="0", metavar="PERCENT", help="A planned discount.")
@click.option(
    "--fee", "fees", multiple=True, metavar="TITLE:P%+X[:item|shipping|all]", help="What is taken of a sale, and of what."
)
@click.option("--tax", default="0", metavar="PERCENT")
@click.option("--tax-mode", type=click.Choice(list(TAXES)), default="none", help="Within the price, or on top of it.")
@click.option("--extra", "extras", multiple=True, metavar="NAME=X", help="A colour or size that costs more.")
@click.option("--price-of", "own_prices", multiple=True, metavar="NAME=X", help="The price of such a colour or size.")
@click.option("--want", metavar="X|P%", help="Wanted profit, also in the worst case; the price for it is printed.")
@click.option(
    "--percent-of",
    type=click.Choice(["net", "paid"]),
    default="net",
    show_default=True,
    help="What a wanted per cent is of: your revenue without tax, or all that the buyer pays.",
)
@click.option("--ending", metavar="X", help="Price ending, for example 0.99.")
@click.option("--currency", "code", default="USD", metavar="CODE", show_default=True)
@as_json_option
def price(
    cost: str,
    packing: str,
    shipping: str,
    charged: str,
    regions: tuple[str, ...],
    free_from: str | None,
    price: str,
    discount: str,
    fees: tuple[str, ...],
    tax: str,
    tax_mode: str,
    extras: tuple[str, ...],
    own_prices: tuple[str, ...],
    want: str | None,
    percent_of: PercentOf,
    ending: str | None,
    code: str,
    as_json: bool,
) -> None:
    """Calculate the profit of a price now, at a planned discount and in the worst case, and the break-even price."""
    home = Region("Home", money(shipping), money(charged))
    more = tuple(Region(title, amount, home.charged) for title, amount in map(_pair, regions))
    costs = Costs(
        currency(code),
        money(cost),
        packing=money(packing),
        extras=dict(map(_pair, extras)),
        regions=(home, *more),
        fees=tuple(map(_fee, fees)),
        tax=Tax(TAXES[tax_mode], money(tax, "percentage")),
        free_from=None if free_from is None else money(free_from),
    )
    off = money(discount, "percentage")
    prices = dict(map(_pair, own_prices))
    if unknown := sorted(set(prices) - set(costs.extras)):
        raise PriceError(f"Nothing is said of what '{unknown[0]}' costs more: name it by --extra.")
    sales = cases(costs, money(price, "price"), off, prices)
    variants = variants_of(costs, money(price, "price"), off, prices)
    costs = costs.without(prices)  # the list price does not have to bear them
    even, safe, suggested = safe_price(costs, off, Decimal(0)), never_short_from(costs, off), None
    if want is not None:
        suggested = safe_price(
            costs,
            off,
            money(want.rstrip("%")),
            percent_of if want.endswith("%") else None,
            None if ending is None else money(ending),
        )
    report = {
        "currency": costs.currency.code,
        "price": float(money(price)),
        "cases": [_case(case) for case in sales],
        "variants": [
            {"title": v.title, "price": float(v.price), "own": v.own, "left": float(v.now.left), "worst": float(v.worst.left)}
            for v in variants
        ],
        "break_even": float(even),
        "safe_from": None if safe is None else float(safe),
        "losses": [[float(low), float(high)] for low, high in short_ranges(costs, off)],
        "asked": None if suggested is None else float(suggested),
    }
    lines = [
        f"{case.title:16} {case.margin.left:>9} {costs.currency.code} left of {case.margin.paid}"
        + (f", {case.margin.percent} %" if case.margin.percent is not None else "")
        for case in sales
    ]
    lines += [
        f"{v.title:16} {v.now.left:>9} {costs.currency.code} left at {v.price}, {v.worst.left} at worst" for v in variants
    ]
    lines.append(f"{'Break-even price':16} {even:>9} {costs.currency.code}, also in the worst case")
    if safe is not None and safe != even:
        lines.append(f"{'No loss from':16} {safe:>9} {costs.currency.code} on; below, free shipping makes some prices a loss")
    if suggested is not None:
        lines.append(f"{f'For {want}':16} {suggested:>9} {costs.currency.code}, also in the worst case")
    tell(report, as_json, lines)
