"""Print providers compared for a blank, and the log of samples."""

from __future__ import annotations

from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..core.errors import BadListing
from ..core.press import Pressing
from ..core.pricing.money import currency
from ..core.sewing.following import seam_of
from ..store import ProviderRow, SampleRow
from .artworks import UploadForm
from .bench import PAIR_AT
from .desk import Desk
from .parts import part
from .press_shapes import PressQuery
from .pressing import chosen_press, press_state, small_photo
from .problems import NotHere
from .provider_shapes import (
    LearnedBody,
    OfferBody,
    OrderedSample,
    ProviderBody,
    ProvidersState,
)
from .provider_state import landed_in, providers_state
from .sell_shapes import CostsBody, RegionBody, ShopBody
from .shapes import PairPath
from .work import Work


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
               for f in landed_in(offer, [route.region for route in offer.routes], coins)]  # fmt: skip
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
    api = part(desk, "providing", "providers")
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
