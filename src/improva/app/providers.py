"""Print providers compared for a blank: their file rules and what a piece costs at the buyer's door."""

from __future__ import annotations

from ..core.pricing.money import Currency
from ..core.providers import Landed, landed
from ..core.units import inches
from ..store.models.providers import OfferModel
from .pair import Pair
from .services import Services

SAME_SIZE_MM = 0.6
"""Two file sizes that differ by less are equal: providers round to a sixteenth of an inch or a millimetre."""


def file_problem(services: Services, pair: Pair, offer: OfferModel) -> str:
    """Return why a provider would refuse this pair's file; empty where it would not."""
    panel = pair.template.panels[0]
    if offer.file_mm and any(abs(a - b) > SAME_SIZE_MM for a, b in zip(offer.file_mm, panel.file_mm, strict=True)):
        wanted, ours = (f"{inches(w):.4g} × {inches(h):.4g} in" for w, h in (offer.file_mm, panel.file_mm))
        return f"It wants a file of {wanted}, and this template makes {ours}."
    report = services.preflight.report(pair)["panels"].get(panel.id)
    dpi = min(report["effective_dpi"], default=0) if report else 0
    if dpi and offer.least_dpi and round(dpi) < offer.least_dpi:
        return f"It takes {offer.least_dpi:.0f} dpi and more, and this has {dpi:.0f}."
    return ""


def landed_in(offer: OfferModel | None, regions: list[str], coins: Currency) -> list[Landed]:
    """Return what one piece costs with delivery in each region of an offer."""
    core = offer.to_core() if offer else None
    return [cost for region in regions if core and (cost := landed(core, region, coins))]
