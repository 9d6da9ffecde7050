"""Prices: costs, fees, profit and the suggested price."""

from __future__ import annotations

from typing import Any

from ...core.pricing import Sale, money
from ...store.models.selling import core_costs
from ..context import services
from ..presenters.selling import sale_out
from ..routing import Routes
from ..schemas.common import PAIR_AT, PairPath
from ..schemas.selling import SaleStateOut, SellingIn

api = Routes("selling")


@api.get(f"{PAIR_AT}/selling", responses={200: SaleStateOut})
def get_selling(path: PairPath) -> dict[str, Any]:
    """Return a pair's costs, profit and suggested price."""
    services.artworks.imported(path.artwork_id)
    return sale_out(services.store, path.artwork_id, services.blanks.get(path.template_id).id).model_dump()


@api.put(f"{PAIR_AT}/selling", responses={200: SaleStateOut})
def set_selling(path: PairPath, body: SellingIn) -> dict[str, Any]:
    """Set costs, fees or the price."""
    services.artworks.imported(path.artwork_id)
    template = services.blanks.get(path.template_id)
    now = sale_out(services.store, path.artwork_id, template.id)
    shop = body.shop or now.shop
    for market in ("", *shop.market_fees):  # refuses impossible costs before they are stored
        core_costs(shop, body.costs or now.costs, market)
    if body.sale:
        Sale(money(body.sale.price), money(body.sale.discount))
    if body.shop:
        services.store.selling.keep_shop(body.shop.model_dump())
    if body.costs:
        services.store.selling.keep_costs(template.id, body.costs.model_dump())
    if body.sale:
        services.store.selling.keep_sale(path.artwork_id, template.id, body.sale.model_dump())
    return get_selling(path)
