"""The Sell station: what a sale leaves, and what to ask."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.pricing import Case, Costs, Sale, cases, margin_of, money, safe_price
from ..core.pricing.margin import worst_sale
from ..core.pricing.money import BadPrice
from ..store import Selling
from .bench import PAIR_AT
from .desk import Desk
from .parts import part
from .sell_shapes import CaseShape, CostsBody, SaleBody, SellState, ShopBody, core_costs
from .shapes import PairPath, Shape

CURVE_POINTS = 61


class SellBody(Shape):
    """What is decided anew; what is left out stays."""

    shop: ShopBody | None = None
    costs: CostsBody | None = Field(default=None, description="Of the blank, for every artwork on it")
    sale: SaleBody | None = None


def _case(costs: Costs, case: Case) -> CaseShape:
    def told(amount: Decimal) -> str:
        return f"{costs.currency.round(amount):f}"

    m, sale = case.margin, case.sale
    return CaseShape(
        title=case.title, price=told(sale.price), discount=f"{sale.discount:f}", region=sale.region or costs.regions[0].title,
        extra=sale.extra, item=told(m.item), shipping=told(m.shipping), paid=told(m.paid), tax=told(m.tax),
        fees=[(title, told(amount)) for title, amount in m.fees], spent=told(m.spent), left=told(m.left),
        percent=None if m.percent is None else f"{m.percent:f}", loss=m.left < 0,
    )  # fmt: skip


def _asked(costs: Costs, sale: SaleBody, discount: Decimal) -> str | None:
    """The price that leaves what is wanted in the worst case too; None where no price does."""
    ending = None if sale.ending is None else money(sale.ending)
    try:
        return f"{safe_price(costs, discount, money(sale.wanted), sale.wanted_percent, ending):f}"
    except BadPrice:
        return None


def sell_state(kept: Selling, artwork_id: int, template_id: str) -> SellState:
    """Everything about the price of a pair; what cannot be reckoned is told in its ``problem``."""
    shop = ShopBody.model_validate(kept.shop())
    of_blank = kept.costs(template_id)
    body = CostsBody.model_validate(of_blank)
    sale = SaleBody.model_validate(kept.sale(artwork_id, template_id))
    nothing = SellState(shop=shop, costs=body, sale=sale, known=bool(of_blank), cases=[], break_even=None, asked=None, curve=[],
                        problem=None)  # fmt: skip
    try:
        costs, price, discount = core_costs(shop, body), money(sale.price), money(sale.discount)
        found = [_case(costs, case) for case in cases(costs, price, discount)]
        even = safe_price(costs, discount, Decimal(0))
    except BadPrice as problem:
        return nothing.model_copy(update={"problem": str(problem)})
    asked = _asked(costs, sale, discount)
    far = max(price, even, money(asked) if asked else even, costs.currency.step) * Decimal("1.6")
    return nothing.model_copy(
        update={"cases": found, "break_even": f"{even:f}", "asked": asked, "curve": _curve(costs, far, discount)}
    )


def _curve(costs: Costs, far: Decimal, discount: Decimal) -> list[tuple[str, str, str]]:
    prices = {costs.currency.round(far * i / (CURVE_POINTS - 1)) for i in range(CURVE_POINTS)}
    return [
        (f"{p:f}", f"{margin_of(costs, Sale(p)).left:f}", f"{margin_of(costs, worst_sale(costs, p, discount)).left:f}")
        for p in sorted(prices)
    ]


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of selling."""
    api = part(desk, "selling", "selling")
    kept = desk.selling

    @api.get(f"{PAIR_AT}/selling", responses={200: SellState})
    def selling(path: PairPath) -> dict[str, Any]:
        """What a sale of a pair leaves."""
        desk.dropped_art(path.artwork_id)
        return sell_state(kept, path.artwork_id, desk.template(path.template_id).id).model_dump()

    @api.put(f"{PAIR_AT}/selling", responses={200: SellState})
    def decide(path: PairPath, body: SellBody) -> dict[str, Any]:
        """Decide costs, fees or a price."""
        desk.dropped_art(path.artwork_id)
        template = desk.template(path.template_id)
        now = sell_state(kept, path.artwork_id, template.id)
        core_costs(body.shop or now.shop, body.costs or now.costs)  # what cannot be is refused before it is kept
        if body.sale:
            Sale(money(body.sale.price), money(body.sale.discount))
        if body.shop:
            kept.keep_shop(body.shop.model_dump())
        if body.costs:
            kept.keep_costs(template.id, body.costs.model_dump())
        if body.sale:
            kept.keep_sale(path.artwork_id, template.id, body.sale.model_dump())
        return selling(path)  # type: ignore[no-any-return]

    return api
