"""Long work as it is handed to workers: with an extract of the records, so that a worker needs only the shared files."""

from __future__ import annotations

import shutil
import tempfile
from functools import partial
from pathlib import Path
from typing import Any

from ..core.output import Watch
from ..store.extract import open_extract, take_extract
from ..work.darkroom import Darkroom
from ..work.jobs import Jobs
from ..work.queue import queue_url
from ..work.working import Outcome, Runner
from .desk import Desk
from .exporting import print_job
from .ganging import gang_job
from .ordering import orders_job
from .packing import listing_job
from .picturing import film_job, pictures_job
from .piece_shapes import PIECES, arts_of

ERRANDS = {
    "print": print_job,
    "gang": gang_job,
    "pictures": pictures_job,
    "film": film_job,
    "listing": listing_job,
    "orders": orders_job,
}
"""Kinds of long work, and who does each: with a desk, what was asked, and a watch."""


def _pairs_of(kind: str, asked: dict[str, Any]) -> set[tuple[int, str]]:
    """The pairs that a job is about."""
    if kind == "gang":
        return {(item["artwork_id"], item["template_id"]) for item in asked["gang"]["items"]}
    return {(asked["artwork_id"], asked["template_id"])}


def _others(asked: dict[str, Any]) -> set[int]:
    """The artworks that pictures show beside the pair's own: in other places of a scene, and behind it."""
    showing = asked.get("showing") or {}
    places = {art for chosen in (showing.get("places") or {}).values() for art in chosen.values()}
    backdrop = showing.get("backdrop") or {}
    ordered = {art for order in asked.get("orders", ()) for art in order["photos"].values()}
    return places | ordered | ({backdrop["artwork_id"]} if backdrop else set())


def seal(desk: Desk, kind: str, asked: dict[str, Any]) -> dict[str, Any]:
    """The extract of a desk's records that a job needs."""
    pairs = _pairs_of(kind, asked)
    blanks = {template_id for _, template_id in pairs}
    arts = {artwork_id for artwork_id, _ in pairs} | _others(asked)
    for artwork_id in list(arts):  # others in a scene's places bring their own pieces along
        for template_id in blanks:
            laid = desk.pairs.get(artwork_id, template_id).pieces.values()
            arts |= {art for pieces in laid for body in PIECES.validate_python(pieces) for art in arts_of(body)}
    rows = [row for artwork_id in arts if (row := desk.artworks.get(artwork_id)) is not None]
    prepared = [desk.preparing.key(row) for row in rows if row.preparation.active]
    return {"rows": take_extract(desk.database, arts, blanks, prepared)}


def runners(folder: Path, darkroom: Darkroom) -> dict[str, Runner]:
    """Who does each kind of work in a data folder, with what one darkroom keeps ready."""

    def run(kind: str, asked: dict[str, Any], extract: dict[str, Any], watch: Watch) -> Outcome:
        place = Path(tempfile.mkdtemp(prefix="improva-"))
        try:
            database = open_extract(folder, place / "extract.sqlite", extract["rows"])
            desk = Desk(database, darkroom)
            try:
                return Outcome(ERRANDS[kind](desk, asked, watch), desk.made.all())
            finally:
                database.close()
        finally:
            shutil.rmtree(place, ignore_errors=True)

    return {kind: partial(run, kind) for kind in ERRANDS}


def jobs_of(desk: Desk) -> Jobs:
    """The long work of a desk, by the queue that is named or by one of its own."""
    work = runners(desk.database.folder, desk.darkroom)
    return Jobs(desk.database, work, partial(seal, desk), queue_url())
