"""What workers run: the handler of each kind of job, and the snapshot of records that a job carries."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import Any

from ..app.films import film_job
from ..app.gang_sheets import gang_job
from ..app.listing_packs import listing_job
from ..app.mockups import pictures_job
from ..app.orders import orders_job
from ..app.print_files import print_job
from ..app.render_cache import RenderCache
from ..app.services import Services
from ..core.progress import Progress
from ..io.atomic import work_folder
from ..store.models.pieces import PIECES, arts_of
from ..store.snapshot import open_snapshot, take_snapshot
from .dispatcher import JobDispatcher
from .queue import queue_url
from .worker import JobHandler, Outcome

HANDLERS = {
    "print": print_job,
    "gang": gang_job,
    "pictures": pictures_job,
    "film": film_job,
    "listing": listing_job,
    "orders": orders_job,
}
"""The function that does each kind of job: takes services, the job's parameters, and a progress to report to."""


def _pairs_of(kind: str, parameters: dict[str, Any]) -> set[tuple[int, str]]:
    """Return the pairs of a job."""
    if kind == "gang":
        return {(item["artwork_id"], item["template_id"]) for item in parameters["gang"]["items"]}
    return {(parameters["artwork_id"], parameters["template_id"])}


def _others(parameters: dict[str, Any]) -> set[int]:
    """Return the other artworks of a job's pictures: in other places of a scene, and as background."""
    mockup_settings = parameters.get("mockup_settings") or {}
    places = {art for chosen in (mockup_settings.get("places") or {}).values() for art in chosen.values()}
    backdrop = mockup_settings.get("backdrop") or {}
    ordered = {art for order in parameters.get("orders", ()) for art in order["photos"].values()}
    return places | ordered | ({backdrop["artwork_id"]} if backdrop else set())


def take_job_snapshot(services: Services, kind: str, parameters: dict[str, Any]) -> dict[str, Any]:
    """Return the part of the stored records that a job needs."""
    pairs = _pairs_of(kind, parameters)
    blanks = {template_id for _, template_id in pairs}
    arts = {artwork_id for artwork_id, _ in pairs} | _others(parameters)
    for artwork_id in list(arts):  # other artworks in a scene's places have their own pieces
        for template_id in blanks:
            panel_pieces = services.store.pairs.get(artwork_id, template_id).pieces.values()
            arts |= {art for pieces in panel_pieces for body in PIECES.validate_python(pieces) for art in arts_of(body)}
    rows = [row for artwork_id in arts if (row := services.store.artworks.get(artwork_id)) is not None]
    prepared = [services.artworks.preparations.key(row) for row in rows if row.preparation.active]
    return take_snapshot(services.store.database, arts, blanks, prepared)


def handlers(folder: Path, render_cache: RenderCache) -> dict[str, JobHandler]:
    """Return the handler of each kind of job in a data folder; they share one render cache."""

    def run(kind: str, parameters: dict[str, Any], snapshot: dict[str, Any], progress: Progress) -> Outcome:
        with work_folder(folder / "work", "job") as place:
            database = open_snapshot(folder, place / "snapshot.sqlite", snapshot)
            services = Services(database, render_cache)
            try:
                return Outcome(HANDLERS[kind](services, parameters, progress), services.store.made_files.all())
            finally:
                database.close()

    return {kind: partial(run, kind) for kind in HANDLERS}


def make_dispatcher(services: Services) -> JobDispatcher:
    """Return the dispatcher of a data folder's jobs, on the configured queue or on the folder's own."""
    database = services.store.database
    return JobDispatcher(
        database, handlers(database.folder, services.render_cache), partial(take_job_snapshot, services), queue_url()
    )
