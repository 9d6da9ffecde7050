"""Listing packs as jobs: every picture in its order, the film, the words as JSON and as a table, in one ZIP."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..core.listing import Slot
from ..core.output import Watch, beside, pack_name
from ..listing_file import PackFilm, PackListing, PackPicture, write_pack
from ..store import MadeRow
from ..store.database import key_of
from .desk import Desk
from .listing_shapes import shot_body
from .listing_state import Listed
from .picturing import make_film, make_picture, says
from .shots import shot_of
from .show_shapes import FilmBody, Showing
from .work import Work

FILM_PX, FILM_S = (1080, 1080), 6.0
FILM_SHARE = 0.4
"""Of a pack's work that a film takes."""


def pack_job_of(desk: Desk, work: Work) -> dict[str, Any]:
    """What is asked of a worker for a pair's pack. Raises :class:`BadListing` where it may not or cannot be listed."""
    listed = Listed(desk, work)
    listed.check()
    told = PackListing(
        market=listed.market_id, reference=f"{work.art.sha256[:10]}-{work.template.id}", title=listed.texts.title,
        description=listed.texts.description, tags=list(listed.texts.tags), search=listed.texts.search, price=listed.price,
        currency=listed.shop.currency, pictures=[], overruled=listed.reasons,
    )  # fmt: skip
    slots = [{**asdict(slot), "alt": listed.alt(slot)} for slot in listed.slots]
    film = None
    if listed.film and listed.turning:
        film = FilmBody(scene_id=listed.turning.id, seconds=min(FILM_S, listed.market.film_s), size=FILM_PX).model_dump()
    return {"artwork_id": work.art.id, "template_id": work.template.id, "of": work.placing_key, "colours": work.row.colours,
            "showing": listed.showing.model_dump(), "slots": slots, "film": film, "listing": told.model_dump()}  # fmt: skip


def listing_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Do a job of packing."""
    work = desk.work(asked["artwork_id"], asked["template_id"])
    showing, told = Showing.model_validate(asked["showing"]), PackListing.model_validate(asked["listing"])
    share = (1 - FILM_SHARE) if asked["film"] else 1.0
    pictures, files, keys = list[PackPicture](), list[tuple[str, Path]](), list[str]()
    for i, each in enumerate(asked["slots"]):
        watch.at(share * i / len(asked["slots"]))
        slot = Slot(**{name: value for name, value in each.items() if name != "alt"})
        shot = shot_of(work, shot_body(slot), showing)
        key, name, path = make_picture(desk, work, shot, showing.sizes[0], showing.format)
        name = f"{i + 1:02d}_{name}"
        pictures.append(
            PackPicture(file=name, kind=slot.kind, alt=each["alt"], px=showing.sizes[0], shows=says(desk, work, shot))
        )
        files.append((name, path))
        keys.append(key)
    film = None
    if asked["film"]:
        wanted = FilmBody.model_validate(asked["film"])
        key, name, path = make_film(desk, work, wanted, showing, watch.part(share, 1.0))
        film = PackFilm(file=name, seconds=wanted.seconds, alt=f"{work.art.title} on {work.template.title}, turning once round")
        files.append((name, path))
        keys.append(key)
    listing = told.model_copy(update={"pictures": pictures, "film": film})
    name = pack_name(work.art.title, work.template.id, told.market)
    key = key_of("listing", keys, listing.model_dump(mode="json"), name)

    def make(target: Path) -> None:
        with beside(target) as temporary:
            write_pack(temporary, listing, files)

    desk.keep(MadeRow(key, "listing", work.placing_key, name), work, make)
    return [key]
