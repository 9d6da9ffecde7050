"""Response model of a pair's price."""

from __future__ import annotations

from decimal import Decimal

from ...core.pricing import (
    Case,
    Costs,
    Sale,
    Variant,
    cases,
    margin_of,
    money,
    never_short_from,
    safe_price,
    short_ranges,
    variants_of,
)
from ...core.pricing.margin import worst_sale
from ...core.pricing.money import PriceError
from ...store import Store
from ...store.models.selling import CostsModel, SaleModel, ShopModel, core_costs
from ..schemas.selling import SaleCaseOut, SaleStateOut, VariantOut

CURVE_POINTS = 61


def _case(costs: Costs, case: Case) -> SaleCaseOut:
    def text_of(amount: Decimal) -> str:
        return f"{costs.currency.round(amount):f}"

    m, sale = case.margin, case.sale
    return SaleCaseOut(
        title=case.title,
        price=text_of(sale.price),
        discount=f"{sale.discount:f}",
        region=sale.region or costs.regions[0].title,
        extra=sale.extra,
        item=text_of(m.item),
        shipping=text_of(m.shipping),
        paid=text_of(m.paid),
        tax=text_of(m.tax),
        fees=[(title, text_of(amount)) for title, amount in m.fees],
        spent=text_of(m.spent),
        left=text_of(m.left),
        percent=None if m.percent is None else f"{m.percent:f}",
        percent_paid=None if m.percent_paid is None else f"{m.percent_paid:f}",
        loss=m.left < 0,
    )


def _variant(costs: Costs, variant: Variant) -> VariantOut:
    return VariantOut(
        title=variant.title,
        more=f"{costs.extras[variant.title]:f}",
        price=f"{costs.currency.round(variant.price):f}",
        own=variant.own,
        left=f"{variant.now.left:f}",
        worst=f"{variant.worst.left:f}",
    )


def _suggested_price(costs: Costs, sale: SaleModel, discount: Decimal) -> str | None:
    """Return the lowest price with the wanted profit in the worst case; None if no price reaches it."""
    ending = None if sale.ending is None else money(sale.ending)
    try:
        return f"{safe_price(costs, discount, money(sale.wanted), sale.percent_of if sale.wanted_percent else None, ending):f}"
    except PriceError:
        return None


def market_of(store: Store, artwork_id: int, template_id: str) -> tuple[str, str]:
    """Return id and title of the marketplace at which a pair is listed, or of the first one."""
    markets = store.listings.markets()
    chosen = store.listings.listing(artwork_id, template_id).get("market")
    market = chosen if chosen in markets else next(iter(markets))
    return market, markets[market].title


def sale_out(store: Store, artwork_id: int, template_id: str) -> SaleStateOut:
    """Return the price calculation of a pair; an impossible one is explained in ``problem``."""
    stored = store.selling
    market, market_title = market_of(store, artwork_id, template_id)
    shop = ShopModel.model_validate(stored.shop())
    of_blank = stored.costs(template_id)
    body = CostsModel.model_validate(of_blank)
    sale = SaleModel.model_validate(stored.sale(artwork_id, template_id))
    nothing = SaleStateOut(
        market=market,
        market_title=market_title,
        shop=shop,
        costs=body,
        sale=sale,
        known=bool(of_blank),
        cases=[],
        variants=[],
        break_even=None,
        safe_from=None,
        losses=[],
        suggested=None,
        curve=[],
        problem=None,
    )
    try:
        costs, price, discount = core_costs(shop, body, market), money(sale.price), money(sale.discount)
        prices = {name: money(own) for name, own in sale.prices.items() if name in costs.extras}
        margins = [_case(costs, case) for case in cases(costs, price, discount, prices)]
        variants = [_variant(costs, each) for each in variants_of(costs, price, discount, prices)]
        costs = costs.without(prices)  # the list price does not have to bear them
        even, safe = safe_price(costs, discount, Decimal(0)), never_short_from(costs, discount)
    except PriceError as problem:
        return nothing.model_copy(update={"problem": str(problem)})
    suggested = _suggested_price(costs, sale, discount)
    far = max(price, even, safe or even, money(suggested) if suggested else even, costs.currency.step) * Decimal("1.6")
    return nothing.model_copy(
        update={
            "cases": margins,
            "variants": variants,
            "break_even": f"{even:f}",
            "safe_from": None if safe is None else f"{safe:f}",
            "losses": [(f"{low:f}", f"{high:f}") for low, high in short_ranges(costs, discount)],
            "suggested": suggested,
            "curve": _curve(costs, far, discount),
        }
    )


def _curve(costs: Costs, far: Decimal, discount: Decimal) -> list[tuple[str, str, str]]:
    prices = {costs.currency.round(far * i / (CURVE_POINTS - 1)) for i in range(CURVE_POINTS)}
    return [
        (f"{p:f}", f"{margin_of(costs, Sale(p)).left:f}", f"{margin_of(costs, worst_sale(costs, p, discount)).left:f}")
        for p in sorted(prices)
    ]
