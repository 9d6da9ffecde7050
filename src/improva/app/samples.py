"""Use samples and offers of print providers elsewhere: in costs, calibration, the press log and notes."""

from __future__ import annotations

from typing import Literal

from ..core.errors import ListingError
from ..core.press import Pressing
from ..core.pricing.money import currency
from ..core.providers import Sample
from ..core.sewing.linked_panels import seam_of
from ..store import ProviderRow, SampleRow
from ..store.models.providers import OfferModel
from ..store.models.selling import CostsModel, RegionModel, ShopModel
from .errors import NotFoundError
from .pair import Pair
from .press import PressChoice, press_setup
from .providers import landed_in
from .services import Services


def use_offer_as_costs(services: Services, pair: Pair, name: str) -> None:
    """Copy a provider's offer to the costs of the blank.

    Raises:
        NotFoundError: the provider has no offer for this blank.
    """
    known = services.store.providers.offers(pair.template.id).get(name)
    if known is None:
        raise NotFoundError(f"{name} has no offer for this blank: enter its prices first.")
    offer = OfferModel.model_validate(known)
    coins = currency(ShopModel.model_validate(services.store.selling.shop()).currency)
    costs = CostsModel.model_validate(services.store.selling.costs(pair.template.id))
    charged = {region.title: region.charged for region in costs.regions}
    regions = [
        RegionModel(title=f.region, cost=f"{f.shipping + f.duty:f}", charged=charged.get(f.region, "0"))
        for f in landed_in(offer, [route.region for route in offer.routes], coins)
    ]
    now = costs.model_copy(update={"blank": offer.piece, "print": "0", "regions": regions or costs.regions})
    services.store.selling.keep_costs(pair.template.id, now.model_dump())


def calibrate_from_sample(services: Services, row: SampleRow, seam_id: str | None, shift_mm: tuple[float, float]) -> None:
    """Store how far the following panel of a seam is off on a sample, in mm right and down.

    Raises:
        ListingError: no seam is named.
        TemplateError: there is no such seam.
    """
    if seam_id is None:
        raise ListingError("Choose the seam that the sample shows.")
    sample, template = row.sample, services.blanks.get(row.template_id)
    seam, day = seam_of(template, seam_id), _day(sample)
    services.store.calibrations.add(template.id, sample.provider, seam.id, shift_mm, f"Sample of {day}", day)


def log_sample_as_pressing(services: Services, row: SampleRow) -> None:
    """Add a sample's notes to the press log of its blank.

    Raises:
        ListingError: nothing was written about the sample.
        PressError: the blank goes into no press.
    """
    sample, template = _with_note(row), services.blanks.get(row.template_id)
    setup = press_setup(services.store, template, PressChoice())
    result: Literal["good", "usable"] = "usable" if "off" in sample.checks.values() else "good"
    pressing = Pressing(0, _day(sample), setup.figures, result, (), sample.note)
    services.store.pressings.add(template.id, setup.finish, setup.method, setup.press.name, row.artwork_id, pressing)


def add_sample_to_provider_notes(services: Services, row: SampleRow) -> None:
    """Add a sample's notes to its provider's notes, once.

    Raises:
        ListingError: nothing was written about the sample, or its provider is not known.
    """
    sample = _with_note(row)
    known = next((each for each in services.store.providers.all() if each.name == sample.provider), None)
    if known is None:
        raise ListingError("The provider of this sample is not in the list: add it first.")
    line = f"{_day(sample)}: {sample.note}"
    if line not in known.note.splitlines():
        services.store.providers.keep(ProviderRow(known.name, known.origin, f"{known.note}\n{line}".strip()))


def _day(sample: Sample) -> str:
    return sample.delivered or sample.ordered


def _with_note(row: SampleRow) -> Sample:
    if not row.sample.note:
        raise ListingError("Write a note about the sample first.")
    return row.sample
