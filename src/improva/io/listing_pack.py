"""A listing pack: a ZIP with the pictures in order, ``listing.json`` and ``listing.csv``. Described in ``docs/listings.md``."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from collections.abc import Sequence
from pathlib import Path
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..core.errors import ListingError

JSON_NAME, CSV_NAME = "listing.json", "listing.csv"
MOST_BYTES = 2_000_000
"""Of ``listing.json``: more is no listing."""

TAG_MARK = ";"
"""Parts tags in a cell of the table."""


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class PackPicture(_Part):
    """A picture of a listing; the first one is the cover."""

    file: str = Field(description="Its name in the pack")
    kind: str = Field(description="What it is there to show")
    alt: str = Field(description="What it shows, in words")
    px: tuple[int, int]
    shows: dict[str, str] = Field(description="Design, blank, scene, view and colours")


class PackFilm(_Part):
    """The listing's film."""

    file: str
    seconds: float
    alt: str


class PackListing(_Part):
    """The contents of ``listing.json``."""

    format: Literal["listing-pack"] = "listing-pack"
    version: Literal[1] = 1
    market: str = Field(description="Whose limits it was made to")
    reference: str = Field(description="The same for one artwork on one blank at one marketplace, whatever changes")
    title: str
    description: str
    tags: list[str]
    search: str
    price: str | None = Field(description="A decimal number; none where it is not decided")
    currency: str
    pictures: list[PackPicture]
    film: PackFilm | None = None
    overruled: list[str] = Field(default_factory=list, description="Reasons against listing it that were overruled")


def write_pack(path: Path, listing: PackListing, files: Sequence[tuple[str, Path]]) -> None:
    """Write a pack. ``files`` maps names to contents; pictures are stored without compression."""
    with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(JSON_NAME, listing.model_dump_json(indent=2) + "\n")
        archive.writestr(CSV_NAME, table([listing]))
        for name, file in files:
            archive.write(file, name)


def table(listings: Sequence[PackListing]) -> str:
    """Return a CSV of listings, one per row, with a column for each picture and its alternative text (RFC 4180)."""
    most = max((len(each.pictures) for each in listings), default=0)
    columns = [
        "reference",
        "title",
        "description",
        "tags",
        "search",
        "price",
        "currency",
        "film",
        *(f"{what}_{i + 1}" for i in range(most) for what in ("picture", "alt")),
    ]
    out = io.StringIO()
    rows = csv.DictWriter(out, columns, lineterminator="\r\n")
    rows.writeheader()
    for each in listings:
        row = {
            "reference": each.reference,
            "title": each.title,
            "description": each.description,
            "tags": TAG_MARK.join(each.tags),
            "search": each.search,
            "price": each.price or "",
            "currency": each.currency,
            "film": each.film.file if each.film else "",
        }
        for i, picture in enumerate(each.pictures):
            row |= {f"picture_{i + 1}": picture.file, f"alt_{i + 1}": picture.alt}
        rows.writerow(row)
    return out.getvalue()


def read_pack(archive: zipfile.ZipFile) -> PackListing:
    """Return a pack's description. Raises :class:`ListingError` for a missing or malformed one."""
    try:
        info = archive.getinfo(JSON_NAME)
    except KeyError:
        raise ListingError(f"The pack has no {JSON_NAME}: make it again.") from None
    if info.file_size > MOST_BYTES:
        raise ListingError(f"{JSON_NAME} is too large to be a listing.")
    try:
        return PackListing.model_validate_json(archive.read(info))
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise ListingError(f"{JSON_NAME}: {'.'.join(map(str, first['loc']))}: {first['msg']}.") from wrong


def schema() -> str:
    """Return the published schema of ``listing.json``, as in ``docs/``."""
    return json.dumps(PackListing.model_json_schema(), indent=2, ensure_ascii=False, sort_keys=True) + "\n"
