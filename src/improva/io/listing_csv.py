"""Listings as a CSV for a marketplace's bulk import."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from ..core.csv_cells import text_cell
from .listing_pack_model import PackListing

TAG_MARK = ";"
"""Separator between the tags in a cell."""


def listings_csv(listings: Sequence[PackListing]) -> str:
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
        rows.writerow({name: text_cell(str(cell)) for name, cell in row.items()})
    return out.getvalue()
