"""Response model of the provider comparison."""

from __future__ import annotations

from dataclasses import asdict
from decimal import Decimal

from ...app.pair import Pair
from ...app.providers import file_problem, landed_in
from ...app.services import Services
from ...core.press import methods_of
from ...core.pricing.money import currency
from ...core.providers import CHECKS, Days, Landed, Sample, days_of, usual_days
from ...store import ProviderRow, SampleRow
from ...store.models.providers import OfferModel
from ...store.models.selling import CostsModel, ShopModel
from ..schemas.providers import DaysOut, LandedOut, ProviderOut, ProvidersStateOut, SampleOut, SeamChoiceOut


def _provider(
    services: Services,
    pair: Pair,
    row: ProviderRow,
    offer: OfferModel | None,
    costs: list[Landed],
    own: list[Sample],
    best: dict[str, Decimal],
    quickest: float | None,
) -> ProviderOut:
    days = usual_days(own)
    says = file_problem(services, pair, offer) if offer else ""
    return ProviderOut(
        name=row.name,
        origin=row.origin,
        note=row.note,
        offer=offer,
        samples=len(own),
        days=_days(days),
        file_says=says,
        file_ok=not says,
        quickest=days.in_all is not None and days.in_all == quickest,
        landed=[
            LandedOut(
                region=f.region,
                shipping=f"{f.shipping:f}",
                duty=f"{f.duty:f}",
                total=f"{f.total:f}",
                exposed=f.exposed,
                least=f.total == best[f.region],
            )
            for f in costs
        ],
    )


def _days(days: Days) -> DaysOut:
    return DaysOut(**asdict(days))


def _sample(services: Services, row: SampleRow) -> SampleOut:
    art = services.store.artworks.get(row.artwork_id)
    return SampleOut(
        **{**asdict(row.sample), "checks": dict(row.sample.checks)},
        id=row.id,
        artwork=art.title if art else "",
        days=_days(days_of(row.sample)),
        photos=[f"/api/samples/{row.id}/photos/{i}" for i in range(len(row.photos))],
    )


def providers_out(services: Services, pair: Pair) -> ProvidersStateOut:
    """Return all providers of a blank, compared, and its samples."""
    shop = ShopModel.model_validate(services.store.selling.shop())
    coins = currency(shop.currency)
    costs = CostsModel.model_validate(services.store.selling.costs(pair.template.id))
    offers = {
        name: OfferModel.model_validate(offer) for name, offer in services.store.providers.offers(pair.template.id).items()
    }
    regions = list(dict.fromkeys([*(r.title for r in costs.regions), *(r.region for o in offers.values() for r in o.routes)]))
    rows = services.store.providers.all()
    landed = {row.name: landed_in(offers.get(row.name), regions, coins) for row in rows}
    best: dict[str, Decimal] = {}
    for each in (each for every in landed.values() for each in every):
        best[each.region] = min(best.get(each.region, each.total), each.total)
    samples = services.store.providers.samples(pair.template.id)
    own = {row.name: [s.sample for s in samples if s.sample.provider == row.name] for row in rows}
    quickest = min((days for every in own.values() if (days := usual_days(every).in_all) is not None), default=None)
    return ProvidersStateOut(
        currency=coins.code,
        regions=regions,
        checks=list(CHECKS),
        providers=[
            _provider(services, pair, row, offers.get(row.name), landed[row.name], own[row.name], best, quickest)
            for row in rows
        ],
        samples=[_sample(services, row) for row in samples if row.artwork_id == pair.art.id],
        seams=[SeamChoiceOut(id=seam.id, title=seam.title) for seam in pair.template.seams],
        pressed_here=bool(methods_of(pair.template)),
    )
