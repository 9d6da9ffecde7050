"""Response models of listings."""

from __future__ import annotations

from dataclasses import asdict

from ...app.listings import ListingDraft
from ...app.pair import Pair
from ...app.services import Services
from ...core.listing.words import FIELDS
from ...store.database import key_of
from ...store.models.listings import ListingSlotModel
from ..schemas.common import FindingOut
from ..schemas.listings import (
    ListingPictureOut,
    ListingStateOut,
    MarketOut,
    MissingPictureOut,
    OverrulingOut,
    SubmissionOut,
    TextsOut,
)


def marketplaces_out(services: Services) -> list[MarketOut]:
    """Return the response with every marketplace and its limits."""
    return [
        MarketOut(id=name, own=not market.invented, **asdict(market))
        for name, market in services.store.listings.markets().items()
    ]


def listing_out(services: Services, pair: Pair) -> ListingStateOut:
    """Return a listing's response."""
    listed = ListingDraft(services, pair)
    findings = listed.findings()
    overruled = listed.overruling
    stopped = bool(listed.reasons) and overruled is None
    return ListingStateOut(
        market=listed.market_id,
        markets=marketplaces_out(services),
        decided=listed.decided,
        slots=[ListingPictureOut(**asdict(slot), title=listed.title_of(slot), alt=listed.alt(slot)) for slot in listed.slots],
        missing=[MissingPictureOut(kind=m.kind, what=m.what, offered=ListingSlotModel.of(m.offered)) for m in listed.missing()],
        film=listed.film,
        can_film=listed.can_film,
        size=listed.mockup_settings.sizes[0],
        stamp=key_of(pair.subject, pair.placement_key, pair.row.colours, listed.mockup_settings.model_dump())[:12],
        art_words=listed.art_words,
        blank_words=listed.blank_words,
        fields=FIELDS,
        texts=TextsOut(
            title=listed.texts.title,
            description=listed.texts.description,
            tags=list(listed.texts.tags),
            search=listed.texts.search,
            left_out=list(listed.texts.left_out),
        ),
        findings=[FindingOut(**asdict(each)) for each in findings],
        price=listed.price,
        currency=listed.shop.currency,
        stopped=listed.reasons,
        overruled=OverrulingOut(why=overruled.why, at=overruled.at) if overruled else None,
        ready=not stopped and bool(pair.printed) and not any(each.status == "fail" for each in findings),
        handed=[
            SubmissionOut(market=h.market, accepted=h.accepted, number=h.number, reasons=list(h.reasons), at=h.at)
            for h in services.store.listings.handed_in(*pair.ids)[:12]
        ],
    )
