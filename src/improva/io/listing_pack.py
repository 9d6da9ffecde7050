"""A listing pack: a ZIP with the pictures in order, ``listing.json`` and ``listing.csv``. Described in ``docs/listings.md``."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Sequence
from pathlib import Path

from pydantic import ValidationError

from ..core.errors import ListingError
from .listing_csv import listings_csv
from .listing_pack_model import PackListing

JSON_NAME, CSV_NAME = "listing.json", "listing.csv"
MOST_BYTES = 2_000_000
"""Most bytes of ``listing.json``."""


def write_pack(path: Path, listing: PackListing, files: Sequence[tuple[str, Path]]) -> None:
    """Write a pack. ``files`` maps names to contents; pictures are stored without compression."""
    with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(JSON_NAME, listing.model_dump_json(indent=2) + "\n")
        archive.writestr(CSV_NAME, listings_csv([listing]))
        for name, file in files:
            archive.write(file, name)


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
