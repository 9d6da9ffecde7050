"""The Sell station's listing: its pictures and words, its pack, and the simulated marketplaces that take it."""

from __future__ import annotations

import json
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..core.errors import BadListing
from ..stand_ins.market_desk import MarketDesk
from ..store import HandedIn
from ..work.jobs import Jobs
from .bench import PAIR_AT
from .desk import Desk
from .listing_shapes import ListingBody, ListingSlot, ListingState, MarketBody, MarketList, PackBody, SlotQuery, WhyBody
from .listing_state import Listed, listing_state, markets_of
from .packing import pack_job_of
from .parts import part
from .picturing import quick_look
from .print_shapes import JobShape
from .printing import job_shape
from .problems import NotHere
from .shapes import PairPath
from .work import Work

LOOK_PX = 400
"""The longer side of a look at a picture."""


class MarketPath(BaseModel):
    """Which marketplace."""

    market_id: str = Field(pattern=r"^[a-z0-9][a-z0-9-]{0,59}$")


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of listings."""
    api = part(desk, "listing", "listing")
    kept = desk.listings

    def load(path: PairPath) -> Work:
        return desk.work(path.artwork_id, path.template_id)

    def answer(work: Work) -> dict[str, Any]:
        return listing_state(desk, work).model_dump()

    @api.get(f"{PAIR_AT}/listing", responses={200: ListingState})
    def listing(path: PairPath) -> dict[str, Any]:
        """A pair's listing."""
        return answer(load(path))

    @api.put(f"{PAIR_AT}/listing", responses={200: ListingState})
    def decide(path: PairPath, body: ListingBody) -> dict[str, Any]:
        """Decide pictures, words or marketplace."""
        work = load(path)
        now = kept.listing(*work.pair)
        if body.market is not None:
            if body.market not in kept.markets():
                raise NotHere("There is no such marketplace.")
            now["market"] = body.market
        if body.slots is not None:
            listed = Listed(desk, work)
            for slot in body.slots:
                listed.shot(slot.to_core())  # what cannot be pictured is refused before it is kept
            now["slots"] = [slot.model_dump() for slot in body.slots]
        if body.proposed:
            now.pop("slots", None)
        if body.film is not None:
            now["film"] = body.film
        if body.art_words is not None:
            kept.keep_art_words(work.art.id, body.art_words.model_dump())
        if body.blank_words is not None:
            kept.keep_blank_words(work.template.id, body.blank_words.model_dump())
        kept.keep_listing(*work.pair, now)
        return answer(work)

    @api.get(f"{PAIR_AT}/listing/look")
    def look(path: PairPath, query: SlotQuery) -> Response:
        """A quick look at a picture of the listing, as JPEG."""
        work = load(path)
        listed = Listed(desk, work)
        w, h = listed.showing.sizes[0]
        size = (round(LOOK_PX * min(1, w / h)), round(LOOK_PX * min(1, h / w)))
        picture = quick_look(desk, work, {}, listed.shot(ListingSlot.model_validate_json(query.slot).to_core()), size)
        return Response(picture, mimetype="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})

    @api.post(f"{PAIR_AT}/listing/overruling", responses={200: ListingState})
    def overrule(path: PairPath, body: WhyBody) -> dict[str, Any]:
        """Let it be listed although its licence speaks against it; this is recorded."""
        work = load(path)
        reasons = Listed(desk, work).reasons
        if not reasons:
            raise BadListing("Nothing speaks against listing it.")
        kept.overrule(*work.pair, reasons, body.why.strip())
        return answer(work)

    @api.delete(f"{PAIR_AT}/listing/overruling", responses={200: ListingState})
    def withdraw(path: PairPath) -> dict[str, Any]:
        """Take that back."""
        work = load(path)
        kept.withdraw(*work.pair)
        return answer(work)

    @api.post(f"{PAIR_AT}/listing-job", responses={200: JobShape})
    def pack(path: PairPath) -> dict[str, Any]:
        """Make the listing pack, as a job."""
        work = load(path)
        title = f"Listing pack of {work.art.title} on {work.template.title}"
        return job_shape(desk, jobs.start("listing", pack_job_of(desk, work), title, *work.pair)).model_dump()

    @api.post(f"{PAIR_AT}/listing/hand-in", responses={200: ListingState})
    def hand_in(path: PairPath, body: PackBody) -> dict[str, Any]:
        """Hand a pack to the simulated desk of its marketplace."""
        work = load(path)
        now = json.loads(json.dumps(pack_job_of(desk, work)))
        key = body.url.rsplit("/", 1)[-1]
        found = desk.made.named(key)
        if found is None:
            raise NotHere("This pack is no longer kept: make it again.")
        if not any(row.asked == now for row in jobs.table.of_pair(*work.pair) if key in row.files):
            raise BadListing("The listing was changed since this pack was made: make it again.")
        market = now["listing"]["market"]
        told = MarketDesk(desk.database.folder / "simulated-markets", market, kept.markets()[market]).hand_in(found[1])
        kept.hand_in(*work.pair, HandedIn(market, key, told.accepted, told.number, told.reasons, ""))
        return answer(work)

    @api.get("/api/markets", responses={200: MarketList})
    def markets() -> dict[str, Any]:
        """Every marketplace and what it takes."""
        return MarketList(markets=markets_of(desk)).model_dump()

    @api.put("/api/markets/<market_id>", responses={200: MarketList})
    def set_market(path: MarketPath, body: MarketBody) -> dict[str, Any]:
        """Set a marketplace's limits, or add one."""
        kept.keep_market(path.market_id, body.model_dump())
        return markets()  # type: ignore[no-any-return]

    @api.delete("/api/markets/<market_id>", responses={200: MarketList})
    def forget_market(path: MarketPath) -> dict[str, Any]:
        """Take the seller's own limits away: one that ships comes back as it was."""
        kept.keep_market(path.market_id, None)
        return markets()  # type: ignore[no-any-return]

    return api
