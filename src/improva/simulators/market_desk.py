"""A simulated desk of an invented marketplace, which checks a listing pack and accepts or refuses it."""

from __future__ import annotations

import json
import zipfile
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from pathlib import Path

from PIL import Image, UnidentifiedImageError

from ..core.errors import ListingError
from ..core.listing import Market
from ..io.atomic import atomic_write
from ..io.listing_pack import read_pack
from ..io.listing_pack_model import PackListing

FORMATS = ("JPEG", "PNG", "WEBP")


@dataclass(frozen=True)
class MarketAnswer:
    """Accepted under a number, or refused with reasons; ``seen`` is what the desk read from the pack."""

    accepted: bool
    number: str | None
    reasons: tuple[str, ...]
    seen: tuple[str, ...]


class MarketDesk:
    """The desk of one marketplace. It stores accepted listings, so that a listing keeps its number."""

    def __init__(self, folder: Path, name: str, market: Market) -> None:
        self._file = folder / f"{name}.json"
        self._market = market

    def hand_in(self, pack: Path) -> MarketAnswer:
        """Check a pack and answer."""
        try:
            with zipfile.ZipFile(pack) as archive:
                listing = read_pack(archive)
                reasons = [*self._of_words(listing), *_of_price(listing), *self._of_pictures(archive, listing)]
                seen = (
                    f"{len(listing.pictures)} pictures",
                    f"{len(listing.tags)} tags",
                    f"{len(listing.title)} letters of title",
                )
        except (zipfile.BadZipFile, ListingError, OSError) as problem:
            return MarketAnswer(False, None, (str(problem),), ())
        listings = self._taken()
        twins = [
            ref
            for ref, known in listings.items()
            if ref != listing.reference and known["title"].casefold() == listing.title.casefold()
        ]
        if twins:
            reasons.append("Another listing of yours has this title: give each its own.")
        if reasons:
            return MarketAnswer(False, None, tuple(reasons), seen)
        number = str(listings.get(listing.reference, {}).get("number") or f"{len(listings) + 1:05d}")
        listings[listing.reference] = {"number": number, "title": listing.title}
        self._file.parent.mkdir(parents=True, exist_ok=True)
        atomic_write(self._file, json.dumps(listings, ensure_ascii=False, indent=1).encode())
        return MarketAnswer(True, number, (), seen)

    def _taken(self) -> dict[str, dict[str, str]]:
        try:
            return dict(json.loads(self._file.read_bytes()))
        except FileNotFoundError:
            return {}

    def _of_words(self, listing: PackListing) -> list[str]:
        m, problems = self._market, []
        for what, text, least, most in (
            ("title", listing.title, m.title_least, m.title_most),
            ("description", listing.description, 1, m.description_most),
            ("search description", listing.search, 0, m.search_most),
        ):
            if not least <= len(text) <= most:
                problems.append(f"The {what} has {len(text)} letters; {least} to {most} are taken.")
        if len(listing.tags) > m.tags_most:
            problems.append(f"{len(listing.tags)} tags; {m.tags_most} are taken.")
        problems += [f"The tag '{tag}' is longer than {m.tag_most} letters." for tag in listing.tags if len(tag) > m.tag_most]
        return problems

    def _of_pictures(self, archive: zipfile.ZipFile, listing: PackListing) -> list[str]:
        m, problems = self._market, []
        if not 1 <= len(listing.pictures) <= m.pictures_most:
            problems.append(f"{len(listing.pictures)} pictures; 1 to {m.pictures_most} are taken.")
        for picture in listing.pictures:
            try:
                with archive.open(picture.file) as file, Image.open(file) as opened:
                    kind, size = opened.format, opened.size
            except (KeyError, UnidentifiedImageError, OSError):
                problems.append(f"{picture.file} is not in the pack, or is no picture.")
                continue
            if kind not in FORMATS:
                problems.append(f"{picture.file} is {kind}; {', '.join(FORMATS)} are taken.")
            if min(size) < m.least_px:
                problems.append(f"{picture.file} has {min(size)} px on its shorter side; {m.least_px} are needed.")
            if len(picture.alt) > m.alt_most:
                problems.append(f"The words of {picture.file} are longer than {m.alt_most} letters.")
        if listing.film and listing.film.seconds > m.film_s:
            problems.append(
                f"A film of {listing.film.seconds:g} s; {f'up to {m.film_s:g} s' if m.film_s else 'none'} is taken."
            )
        if listing.film and listing.film.file not in archive.namelist():
            problems.append("The film is not in the pack.")
        return problems


def _of_price(listing: PackListing) -> list[str]:
    try:
        known = listing.price is not None and Decimal(listing.price) > 0
    except InvalidOperation:
        known = False
    return [] if known else ["It has no price."]
