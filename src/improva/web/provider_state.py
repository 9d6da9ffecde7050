"""Print providers compared for a blank: as they stand."""

from __future__ import annotations

from dataclasses import asdict
from decimal import Decimal

from ..core.press import methods_of
from ..core.pricing.money import Currency, currency
from ..core.providers import CHECKS, Days, Landed, Sample, days_of, landed, usual_days
from ..core.units import inches
from ..store import ProviderRow, SampleRow
from .desk import Desk
from .provider_shapes import (
    DaysShape,
    LandedShape,
    OfferBody,
    ProviderShape,
    ProvidersState,
    SampleShape,
    SeamChoice,
)
from .sell_shapes import CostsBody, ShopBody
from .work import Work

SAME_SIZE_MM = 0.6
"""Two sizes of a file that differ by less are one: providers round to a sixteenth of an inch or a millimetre."""


def _file_says(desk: Desk, work: Work, offer: OfferBody) -> str:
    """What speaks against this pair's file at a provider; empty where nothing does."""
    panel = work.template.panels[0]
    if offer.file_mm and any(abs(a - b) > SAME_SIZE_MM for a, b in zip(offer.file_mm, panel.file_mm, strict=True)):
        asked, ours = (f"{inches(w):.4g} × {inches(h):.4g} in" for w, h in (offer.file_mm, panel.file_mm))
        return f"It wants a file of {asked}, and this template makes {ours}."
    report = desk.proof(work)["panels"].get(panel.id)
    dpi = min(report["effective_dpi"], default=0) if report else 0
    if dpi and offer.least_dpi and round(dpi) < offer.least_dpi:
        return f"It takes {offer.least_dpi:.0f} dpi and more, and this has {dpi:.0f}."
    return ""


def _provider(desk: Desk, work: Work, row: ProviderRow, offer: OfferBody | None, found: list[Landed], own: list[Sample], best: dict[str, Decimal],
              quickest: float | None) -> ProviderShape:  # fmt: skip
    days = usual_days(own)
    says = _file_says(desk, work, offer) if offer else ""
    return ProviderShape(
        name=row.name, origin=row.origin, note=row.note, offer=offer, samples=len(own), days=_days(days), file_says=says, file_ok=not says,
        quickest=days.in_all is not None and days.in_all == quickest,
        landed=[LandedShape(region=f.region, shipping=f"{f.shipping:f}", duty=f"{f.duty:f}", total=f"{f.total:f}", exposed=f.exposed,
                            least=f.total == best[f.region]) for f in found],
    )  # fmt: skip


def _days(days: Days) -> DaysShape:
    return DaysShape(**asdict(days))


def _sample(desk: Desk, row: SampleRow) -> SampleShape:
    art = desk.artworks.get(row.artwork_id)
    return SampleShape(**{**asdict(row.sample), "checks": dict(row.sample.checks)}, id=row.id, artwork=art.title if art else "", days=_days(days_of(row.sample)),
                       photos=[f"/api/samples/{row.id}/photos/{i}" for i in range(len(row.photos))])  # fmt: skip


def landed_in(offer: OfferBody | None, regions: list[str], coins: Currency) -> list[Landed]:
    """What a piece costs at the door of each region that an offer reaches."""
    core = offer.to_core() if offer else None
    return [found for region in regions if core and (found := landed(core, region, coins))]


def providers_state(desk: Desk, work: Work) -> ProvidersState:
    """Everything about who can make a blank."""
    shop = ShopBody.model_validate(desk.selling.shop())
    coins = currency(shop.currency)
    costs = CostsBody.model_validate(desk.selling.costs(work.template.id))
    offers = {name: OfferBody.model_validate(told) for name, told in desk.providers.offers(work.template.id).items()}
    regions = list(dict.fromkeys([*(r.title for r in costs.regions), *(r.region for o in offers.values() for r in o.routes)]))
    rows = desk.providers.all()
    found = {row.name: landed_in(offers.get(row.name), regions, coins) for row in rows}
    best: dict[str, Decimal] = {}
    for each in (each for every in found.values() for each in every):
        best[each.region] = min(best.get(each.region, each.total), each.total)
    samples = desk.providers.samples(work.template.id)
    own = {row.name: [s.sample for s in samples if s.sample.provider == row.name] for row in rows}
    quickest = min((days for every in own.values() if (days := usual_days(every).in_all) is not None), default=None)
    return ProvidersState(
        currency=coins.code, regions=regions, checks=list(CHECKS),
        providers=[_provider(desk, work, row, offers.get(row.name), found[row.name], own[row.name], best, quickest) for row in rows],
        samples=[_sample(desk, row) for row in samples if row.artwork_id == work.art.id],
        seams=[SeamChoice(id=seam.id, title=seam.title) for seam in work.template.seams], pressed_here=bool(methods_of(work.template)),
    )  # fmt: skip
