"""Listing packs as jobs: every picture in its order, the film, the words as JSON and as a table, in one ZIP."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..core.listing import Slot
from ..core.output import pack_name
from ..core.output.name_pattern import PACK_FILES, ArchiveNames
from ..core.progress import Progress
from ..io.atomic import atomic_path
from ..io.listing_pack import write_pack
from ..io.listing_pack_model import PackFilm, PackListing, PackPicture, PackVariant
from ..stages import versions
from ..store.database import key_of
from ..store.models.file_names import FileNamesModel
from ..store.models.listings import shot_body
from ..store.models.mockups import FilmModel, MockupSettings
from .films import make_film
from .listings import ListingDraft
from .made_files import keep_file
from .mockup_settings import picture_parameters
from .mockups import make_picture, picture_facts
from .pair import Pair
from .services import Services
from .shots import shot_of

FILM_PX, FILM_S = (1080, 1080), 6.0
FILM_SHARE = 0.4
"""Share of a pack's work that a film takes."""


def pack_job_of(services: Services, pair: Pair) -> dict[str, Any]:
    """Return the job of a pair's listing pack. Raises :class:`ListingError` where the pair must not or cannot be listed."""
    listed = ListingDraft(services, pair)
    listed.check()
    listing = PackListing(
        market=listed.market_id,
        reference=f"{pair.art.sha256[:10]}-{pair.template.id}",
        title=listed.texts.title,
        description=listed.texts.description,
        tags=list(listed.texts.tags),
        search=listed.texts.search,
        price=listed.price,
        currency=listed.shop.currency,
        variants=[PackVariant(title=title, price=price) for title, price in listed.own_prices.items()],
        pictures=[],
        overruled=listed.reasons,
    )
    slots = [{**asdict(slot), "alt": listed.alt(slot)} for slot in listed.slots]
    film = None
    if listed.film and listed.turning:
        film = FilmModel(scene_id=listed.turning.id, seconds=min(FILM_S, listed.market.film_s), size=FILM_PX).model_dump()
    return {
        **picture_parameters(pair, listed.mockup_settings),
        "slots": slots,
        "film": film,
        "listing": listing.model_dump(),
        "names": FileNamesModel.model_validate(services.store.batches.file_names()).pack,
    }


def listing_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job that makes a listing pack."""
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    mockup_settings = MockupSettings.model_validate(parameters["mockup_settings"])
    stored = PackListing.model_validate(parameters["listing"])
    share = (1 - FILM_SHARE) if parameters["film"] else 1.0
    name_of = ArchiveNames(parameters.get("names", PACK_FILES), len(parameters["slots"]))
    pictures, files, keys = list[PackPicture](), list[tuple[str, Path]](), list[str]()
    for i, each in enumerate(parameters["slots"]):
        progress.at(share * i / len(parameters["slots"]))
        slot = Slot(**{name: value for name, value in each.items() if name != "alt"})
        shot = shot_of(pair, shot_body(slot), mockup_settings)
        key, name, path = make_picture(services, pair, shot, mockup_settings.sizes[0], mockup_settings.format)
        name = name_of(pair.art.id, pair.art.title, pair.template.id, name)
        pictures.append(
            PackPicture(
                file=name,
                kind=slot.kind,
                alt=each["alt"],
                px=mockup_settings.sizes[0],
                shows=picture_facts(services, pair, shot),
            )
        )
        files.append((name, path))
        keys.append(key)
    film = None
    if parameters["film"]:
        wanted = FilmModel.model_validate(parameters["film"])
        key, name, path = make_film(services, pair, wanted, mockup_settings, progress.part(share, 1.0))
        film = PackFilm(file=name, seconds=wanted.seconds, alt=f"{pair.title}, turning once round")
        files.append((name, path))
        keys.append(key)
    listing = stored.model_copy(update={"pictures": pictures, "film": film})
    name = pack_name(pair.art.title, pair.template.id, stored.market)
    key = key_of("listing", versions("listings"), keys, listing.model_dump(mode="json"), name)

    def make(target: Path) -> None:
        with atomic_path(target) as temporary:
            write_pack(temporary, listing, files)

    return [keep_file(services, pair, "listing", key, name, make)[0]]
