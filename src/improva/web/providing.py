"""Print providers compared for a blank, and the log of samples."""

from __future__ import annotations

from dataclasses import asdict
from decimal import Decimal
from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from ..core.errors import BadListing
from ..core.press import Pressing, methods_of
from ..core.pricing.money import Currency, currency
from ..core.providers import CHECKS, Days, Landed, days_of, landed, usual_days
from ..core.sewing.following import seam_of
from ..core.units import inches
from ..store import ProviderRow, SampleRow
from .artworks import UploadForm
from .bench import PAIR_AT
from .desk import Desk
from .press_shapes import PressQuery
from .pressing import chosen_press, press_state, small_photo
from .problems import NotHere
from .provider_shapes import (
    DaysShape,
    LandedShape,
    LearnedBody,
    OfferBody,
    OrderedSample,
    ProviderBody,
    ProviderShape,
    ProvidersState,
    SampleShape,
    SeamChoice,
)
from .sell_shapes import CostsBody, RegionBody, ShopBody
from .shapes import PairPath
from .work import Work

SAME_SIZE_MM = 0.6
"""Two sizes of a file that differ by less are one: providers round to a sixteenth of an inch or a millimetre."""


class ProviderPath(BaseModel):
    """Which provider."""

    name: str = Field(min_length=1, max_length=80)


class OfferPath(PairPath, ProviderPath):
    """Which provider's offer for a pair's blank."""


class SamplePath(BaseModel):
    """Which sample."""

    sample_id: int


class PhotoPath(SamplePath):
    """Which of its photographs."""

    number: int


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


def _provider(desk: Desk, work: Work, row: ProviderRow, offer: OfferBody | None, found: list[Landed], best: dict[str, Decimal], quickest: float | None
              ) -> ProviderShape:  # fmt: skip
    own = [s.sample for s in desk.providers.samples(work.template.id) if s.sample.provider == row.name]
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


def _landed(offer: OfferBody | None, regions: list[str], coins: Currency) -> list[Landed]:
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
    found = {row.name: _landed(offers.get(row.name), regions, coins) for row in rows}
    best: dict[str, Decimal] = {}
    for each in (each for every in found.values() for each in every):
        best[each.region] = min(best.get(each.region, each.total), each.total)
    samples = desk.providers.samples(work.template.id)
    usual = [usual_days([s.sample for s in samples if s.sample.provider == row.name]).in_all for row in rows]
    quickest = min((days for days in usual if days is not None), default=None)
    return ProvidersState(
        currency=coins.code, regions=regions, checks=list(CHECKS),
        providers=[_provider(desk, work, row, offers.get(row.name), found[row.name], best, quickest) for row in rows],
        samples=[_sample(desk, row) for row in samples if row.artwork_id == work.art.id],
        seams=[SeamChoice(id=seam.id, title=seam.title) for seam in work.template.seams], pressed_here=bool(methods_of(work.template)),
    )  # fmt: skip


def _take_costs(desk: Desk, work: Work, name: str) -> None:
    """Let a provider's offer be what a piece of the blank costs. Raises :class:`NotHere`."""
    told = desk.providers.offers(work.template.id).get(name)
    if told is None:
        raise NotHere(f"{name} has no offer for this blank: say first what it asks.")
    offer = OfferBody.model_validate(told)
    coins = currency(ShopBody.model_validate(desk.selling.shop()).currency)
    costs = CostsBody.model_validate(desk.selling.costs(work.template.id))
    charged = {region.title: region.charged for region in costs.regions}
    regions = [RegionBody(title=f.region, cost=f"{f.shipping + f.duty:f}", charged=charged.get(f.region, "0"))
               for f in _landed(offer, [route.region for route in offer.routes], coins)]  # fmt: skip
    now = costs.model_copy(update={"blank": offer.piece, "print": "0", "regions": regions or costs.regions})
    desk.selling.keep_costs(work.template.id, now.model_dump())


def _learn(desk: Desk, row: SampleRow, body: LearnedBody) -> None:
    """Let what a sample has shown be known where it is needed. Raises :class:`BadListing`."""
    sample, template = row.sample, desk.template(row.template_id)
    day = sample.delivered or sample.ordered
    if body.to == "calibration":
        if body.seam is None:
            raise BadListing("Say which seam the sample shows.")
        seam = seam_of(template, body.seam)
        desk.calibrations.add(template.id, sample.provider, seam.id, (body.right_mm, body.down_mm), f"Sample of {day}", day)
        return
    if not sample.note:
        raise BadListing("Write first what was learned of it.")
    if body.to == "press log":
        method, press, finish = chosen_press(desk, template, PressQuery())
        figures = press_state(desk, template, PressQuery()).figures.to_core()
        result: Literal["good", "usable"] = "usable" if "off" in sample.checks.values() else "good"
        desk.pressings.add(
            template.id, finish, method, press.name, row.artwork_id, Pressing(0, day, figures, result, (), sample.note)
        )
        return
    known = next((each for each in desk.providers.all() if each.name == sample.provider), None)
    if known is None:
        raise BadListing("This sample is of no provider that is noted.")
    line = f"{day}: {sample.note}"
    if line not in known.note.splitlines():
        desk.providers.keep(ProviderRow(known.name, known.origin, f"{known.note}\n{line}".strip()))


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of providers and samples."""
    api = APIBlueprint("providing", __name__, abp_tags=[Tag(name="providers")])
    kept = desk.providers

    def answer(artwork_id: int, template_id: str) -> dict[str, Any]:
        return providers_state(desk, desk.work(artwork_id, template_id)).model_dump()

    def known(sample_id: int) -> SampleRow:
        row = kept.sample(sample_id)
        if row is None:
            raise NotHere("There is no such sample any more.")
        return row

    @api.get(f"{PAIR_AT}/providers", responses={200: ProvidersState})
    def providers(path: PairPath) -> dict[str, Any]:
        """Who makes a pair's blank, compared; and its samples."""
        return answer(path.artwork_id, path.template_id)

    @api.put("/api/providers/<name>")
    def keep(path: ProviderPath, body: ProviderBody) -> tuple[str, int]:
        """Note a provider, or what is said of it anew."""
        kept.keep(ProviderRow(path.name.strip(), body.origin.strip(), body.note.strip()))
        return "", 204

    @api.delete("/api/providers/<name>")
    def forget(path: ProviderPath) -> tuple[str, int]:
        """Take a provider away; samples of it stay."""
        kept.forget(path.name)
        return "", 204

    @api.put(f"{PAIR_AT}/providers/<name>/offer", responses={200: ProvidersState})
    def offer(path: OfferPath, body: OfferBody) -> dict[str, Any]:
        """Note what a provider asks for this blank."""
        if path.name not in {row.name for row in kept.all()}:
            raise NotHere("There is no such provider: note it first.")
        body.to_core()
        kept.keep_offer(path.name, desk.template(path.template_id).id, body.model_dump())
        return answer(path.artwork_id, path.template_id)

    @api.delete(f"{PAIR_AT}/providers/<name>/offer", responses={200: ProvidersState})
    def no_offer(path: OfferPath) -> dict[str, Any]:
        """Note that a provider does not make this blank."""
        kept.keep_offer(path.name, desk.template(path.template_id).id, None)
        return answer(path.artwork_id, path.template_id)

    @api.post(f"{PAIR_AT}/providers/<name>/costs", responses={200: ProvidersState})
    def take_costs(path: OfferPath) -> dict[str, Any]:
        """Let this provider's offer be what a piece of the blank costs at the price."""
        _take_costs(desk, desk.work(path.artwork_id, path.template_id), path.name)
        return answer(path.artwork_id, path.template_id)

    @api.post(f"{PAIR_AT}/samples", responses={200: ProvidersState})
    def add_sample(path: PairPath, body: OrderedSample) -> dict[str, Any]:
        """Note a sample that was ordered."""
        sample = body.to_core()
        work = desk.work(path.artwork_id, path.template_id)
        kept.add_sample(*work.pair, sample)
        return answer(*work.pair)

    @api.put("/api/samples/<int:sample_id>", responses={200: ProvidersState})
    def change_sample(path: SamplePath, body: OrderedSample) -> dict[str, Any]:
        """Note how it went on."""
        row = known(path.sample_id)
        kept.change_sample(row.id, body.to_core())
        return answer(row.artwork_id, row.template_id)

    @api.delete("/api/samples/<int:sample_id>", responses={200: ProvidersState})
    def remove_sample(path: SamplePath) -> dict[str, Any]:
        """Take a sample out of the log."""
        row = known(path.sample_id)
        kept.remove_sample(row.id)
        return answer(row.artwork_id, row.template_id)

    @api.post("/api/samples/<int:sample_id>/learned", responses={200: ProvidersState})
    def learned(path: SamplePath, body: LearnedBody) -> dict[str, Any]:
        """Let what it has shown go to calibration, press log or the provider's notes."""
        row = known(path.sample_id)
        _learn(desk, row, body)
        return answer(row.artwork_id, row.template_id)

    @api.post("/api/samples/<int:sample_id>/photos", responses={200: ProvidersState})
    def add_photo(path: SamplePath, form: UploadForm) -> dict[str, Any]:
        """Keep a photograph of it, upright and small enough to look at."""
        row = known(path.sample_id)
        kept.add_photo(row.id, desk.database.put_blob(small_photo(form.file.stream.read())))
        return answer(row.artwork_id, row.template_id)

    @api.get("/api/samples/<int:sample_id>/photos/<int:number>")
    def photo(path: PhotoPath) -> Response:
        """One of its photographs."""
        photos = known(path.sample_id).photos
        if not 0 <= path.number < len(photos):
            raise NotHere("There is no such photograph.")
        return Response(desk.database.blob(photos[path.number]), mimetype="image/jpeg")

    return api
