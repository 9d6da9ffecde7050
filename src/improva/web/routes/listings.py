"""Listings: pictures, texts, listing packs and the simulated marketplaces."""

from __future__ import annotations

import json
from typing import Any

from flask import Response

from ...app.errors import NotFoundError
from ...app.listing_packs import pack_job_of
from ...app.listings import ListingDraft
from ...app.mockups import preview_shot
from ...app.pair import Pair
from ...core.errors import ListingError
from ...simulators.market_desk import MarketDesk
from ...store import HandedIn
from ..context import jobs, load_pair, rendering, services
from ..presenters.jobs import job_out
from ..presenters.listings import listing_out, marketplaces_out
from ..routing import Routes, binary
from ..schemas.common import PAIR_AT, PairPath
from ..schemas.listings import (
    ListingIn,
    ListingSlotIn,
    ListingStateOut,
    MarketIn,
    MarketListOut,
    MarketPath,
    OverrulingIn,
    SubmitIn,
)
from ..schemas.printing import JobOut

api = Routes("listing")

LOOK_PX = 400
"""Longer side of a preview of a picture, in px."""


def _answer(pair: Pair) -> dict[str, Any]:
    return listing_out(services, pair).model_dump()


@api.get(f"{PAIR_AT}/listing", responses={200: ListingStateOut})
def get_listing(path: PairPath) -> dict[str, Any]:
    """Return a pair's listing."""
    return _answer(load_pair(path))


@api.put(f"{PAIR_AT}/listing", responses={200: ListingStateOut})
def set_listing(path: PairPath, body: ListingIn) -> dict[str, Any]:
    """Set the pictures, texts and marketplace of a listing.

    Raises :class:`NotFoundError` for an unknown marketplace.
    """
    pair = load_pair(path)
    now = services.store.listings.listing(*pair.ids)
    if body.market is not None:
        if body.market not in services.store.listings.markets():
            raise NotFoundError("There is no such marketplace.")
        now["market"] = body.market
    if body.slots is not None:
        listed = ListingDraft(services, pair)
        for slot in body.slots:
            listed.shot(slot.to_core())  # refuses impossible pictures before they are stored
        now["slots"] = [slot.model_dump() for slot in body.slots]
    if body.proposed:
        now.pop("slots", None)
    if body.film is not None:
        now["film"] = body.film
    if body.art_words is not None:
        services.store.listings.keep_art_words(pair.art.id, body.art_words.model_dump())
    if body.blank_words is not None:
        services.store.listings.keep_blank_words(pair.template.id, body.blank_words.model_dump())
    services.store.listings.keep_listing(*pair.ids, now)
    return _answer(pair)


@api.post(f"{PAIR_AT}/listing/preview", responses={200: binary("image/jpeg")})
def preview_listing_picture(path: PairPath, body: ListingSlotIn) -> Response:
    """Return a preview of a listing picture, as JPEG."""
    pair = load_pair(path)
    listed = ListingDraft(services, pair)
    w, h = listed.mockup_settings.sizes[0]
    size = (round(LOOK_PX * min(1, w / h)), round(LOOK_PX * min(1, h / w)))
    with rendering():
        picture = preview_shot(services, pair, {}, listed.shot(body.to_core()), size)
    return Response(picture, mimetype="image/jpeg")


@api.post(f"{PAIR_AT}/listing/overruling", responses={200: ListingStateOut})
def overrule_licence(path: PairPath, body: OverrulingIn) -> dict[str, Any]:
    """Allow a listing although the artwork's licence speaks against it; the reason is recorded.

    Raises :class:`ListingError` where nothing speaks against it.
    """
    pair = load_pair(path)
    reasons = ListingDraft(services, pair).reasons
    if not reasons:
        raise ListingError("Nothing speaks against listing it.")
    services.store.listings.overrule(*pair.ids, reasons, body.why.strip())
    return _answer(pair)


@api.delete(f"{PAIR_AT}/listing/overruling", responses={200: ListingStateOut})
def withdraw_overruling(path: PairPath) -> dict[str, Any]:
    """Withdraw the overruling of a listing's reasons: they count again."""
    pair = load_pair(path)
    services.store.listings.withdraw(*pair.ids)
    return _answer(pair)


@api.post(f"{PAIR_AT}/listing-job", responses={200: JobOut})
def make_listing_pack(path: PairPath) -> dict[str, Any]:
    """Start a job that makes the listing pack."""
    pair = load_pair(path)
    title = f"Listing pack of {pair.title}"
    return job_out(services, jobs.start("listing", pack_job_of(services, pair), title, *pair.ids)).model_dump()


@api.post(f"{PAIR_AT}/listing/submission", responses={200: ListingStateOut})
def submit_listing_pack(path: PairPath, body: SubmitIn) -> dict[str, Any]:
    """Submit a listing pack to the simulated marketplace.

    Raises :class:`NotFoundError` for a pack that was removed, :class:`ListingError` for one older than the listing.
    """
    pair = load_pair(path)
    now = json.loads(json.dumps(pack_job_of(services, pair)))
    key = body.url.rsplit("/", 1)[-1]
    file = services.store.made_files.named(key)
    if file is None:
        raise NotFoundError("This pack is no longer kept: make it again.")
    if not any(row.parameters == now for row in jobs.table.of_pair(*pair.ids) if key in row.files):
        raise ListingError("The listing was changed since this pack was made: make it again.")
    market = now["listing"]["market"]
    answer = MarketDesk(
        services.store.database.folder / "simulated-markets", market, services.store.listings.markets()[market]
    ).hand_in(file[1])
    services.store.listings.hand_in(*pair.ids, HandedIn(market, key, answer.accepted, answer.number, answer.reasons, ""))
    return _answer(pair)


@api.get("/api/marketplaces", responses={200: MarketListOut})
def list_marketplaces() -> dict[str, Any]:
    """List every marketplace with its limits."""
    return MarketListOut(markets=marketplaces_out(services)).model_dump()


@api.put("/api/marketplaces/<market_id>", responses={200: MarketListOut})
def set_marketplace(path: MarketPath, body: MarketIn) -> dict[str, Any]:
    """Set a marketplace's limits, or add one."""
    services.store.listings.keep_market(path.market_id, body.model_dump())
    return list_marketplaces()


@api.delete("/api/marketplaces/<market_id>", responses={200: MarketListOut})
def reset_marketplace(path: MarketPath) -> dict[str, Any]:
    """Remove the seller's limits; a shipped marketplace returns to its own."""
    services.store.listings.keep_market(path.market_id, None)
    return list_marketplaces()
