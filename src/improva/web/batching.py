"""Many pairs at once: all pictures or all print files of what was picked on the board."""

from __future__ import annotations

import tempfile
import zipfile
from collections.abc import Iterator
from typing import Any, BinaryIO, cast

from flask import Response, send_file
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..catalogue import order
from ..core.errors import BadOutput, ImprovaError
from ..core.output import slug
from ..scenes import scenes_of
from ..store import Batches, BatchRow, NewJob
from ..work.jobs import Jobs
from .batch_shapes import BatchBody, BatchKind, BatchList, BatchShape, LeftOut
from .desk import Desk
from .exporting import plan_of, printing_of
from .packing import pack_job_of
from .parts import part
from .problems import NotHere
from .show_shapes import ShotBody, Showing
from .showing import fitted, showing_of
from .work import Work

KINDS: dict[BatchKind, str] = {"pictures": "Pictures", "print": "Print files", "listing": "Listing packs"}


class BatchPath(BaseModel):
    """Which batch."""

    batch_id: int


def every_scene(work: Work) -> Showing:
    """Each scene of a blank once, in its first view."""
    return Showing(shots=[ShotBody(scene_id=info.id, view=next(iter(info.views))) for info in scenes_of(work.template)])


def _pair(work: Work) -> dict[str, Any]:
    return {"artwork_id": work.art.id, "template_id": work.template.id, "of": work.placing_key}


def _title(work: Work) -> str:
    return f"{work.art.title} on {work.template.title}"


def picture_jobs(work: Work, look: Showing | None) -> Iterator[tuple[str, NewJob]]:
    """A job for each scene of a pair, with what it is ordered by: a scene that is lit once serves every artwork.

    Raises :class:`BadOutput` where there is nothing to picture.
    """
    if not work.printed:
        raise BadOutput("nothing is printed on it yet")
    showing = fitted(work, look) if look else showing_of(work) if work.row.showing else every_scene(work)
    if not showing.shots:
        raise BadOutput("no scene is chosen")
    for scene_id in dict.fromkeys(shot.scene_id for shot in showing.shots):
        one = showing.model_copy(
            update={"shots": [s for s in showing.shots if s.scene_id == scene_id], "sheet": False, "listed": False}
        )
        asked = {**_pair(work), "colours": work.row.colours, "showing": one.model_dump()}
        yield scene_id, NewJob("pictures", asked, f"{_title(work)}: {scene_id}", work.art.id, work.template.id)


def print_jobs(desk: Desk, work: Work) -> Iterator[tuple[str, NewJob]]:
    """The job of a pair's print files. Raises :class:`BadOutput` where there are none."""
    panels = work.printed
    if not panels:
        raise BadOutput("nothing is printed on it yet")
    printing = printing_of(work)
    for panel in panels:
        if problem := plan_of(desk, work, panel, printing).problem:
            raise BadOutput(problem)
    side = None if len(panels) > 1 else panels[0].id
    asked = {**_pair(work), "panel": side, "printing": printing.model_dump()}
    yield "", NewJob("print", asked, f"{_title(work)}: print files", work.art.id, work.template.id)


def listing_jobs(desk: Desk, work: Work) -> Iterator[tuple[str, NewJob]]:
    """The job of a pair's listing pack. Raises :class:`BadListing` where it may not or cannot be listed."""
    yield "", NewJob("listing", pack_job_of(desk, work), f"{_title(work)}: listing pack", work.art.id, work.template.id)


def jobs_of_kind(desk: Desk, work: Work, kind: BatchKind, look: Showing | None) -> Iterator[tuple[str, NewJob]]:
    """A pair's part of a batch, each job with what it is ordered by."""
    if kind == "pictures":
        return picture_jobs(work, look)
    return print_jobs(desk, work) if kind == "print" else listing_jobs(desk, work)


def planned(desk: Desk, body: BatchBody) -> tuple[list[NewJob], list[LeftOut]]:
    """The jobs of a batch in the order they are best done in, and what is left out. Raises :class:`NotHere`."""
    look = None
    if body.look is not None:
        row = next((row for row in desk.saved_looks.all() if row.name == body.look), None)
        if row is None:
            raise NotHere("There is no look of that name any more.")
        look = Showing.model_validate(row.showing)
    found: list[tuple[tuple[Any, ...], NewJob]] = []
    left_out = []
    for ref in {(pair.artwork_id, pair.template_id): pair for pair in body.pairs}.values():
        work = desk.work(ref.artwork_id, ref.template_id)
        try:
            jobs = list(jobs_of_kind(desk, work, body.kind, look))
        except ImprovaError as problem:
            left_out.append(LeftOut(title=_title(work), why=str(problem)))
            continue
        found += [((order(work.template), work.template.id, scene, ref.artwork_id), job) for scene, job in jobs]
    return [job for _, job in sorted(found, key=lambda each: each[0])], left_out


def blueprint(desk: Desk, jobs: Jobs) -> APIBlueprint:
    """The addresses of batches."""
    api = part(desk, "batching", "batches", "/api/batches")
    batches = Batches(desk.database)

    def shape(row: BatchRow) -> BatchShape:
        problems = [LeftOut(title=title, why=why) for title, why in batches.problems(row.id)] if row.failed else []
        return BatchShape(id=row.id, kind=cast(Any, row.kind), title=row.title, paused=row.paused, under_way=row.under_way,
                          jobs=row.jobs, done=row.done, failed=row.failed, stopped=row.stopped, share=row.share,
                          files=len(batches.files(row.id)), problems=problems)  # fmt: skip

    def answer(left_out: list[LeftOut] | None = None) -> dict[str, Any]:
        found = [shape(row) for row in batches.shown()]
        return BatchList(batches=found, left_out=left_out or []).model_dump()

    def known(path: BatchPath) -> BatchRow:
        row = batches.get(path.batch_id)
        if row is None:
            raise NotHere("There is no such batch.")
        return row

    @api.get("", responses={200: BatchList})
    def all_batches() -> dict[str, Any]:
        """Every batch that was not put away."""
        return answer()

    @api.post("", responses={200: BatchList})
    def begin(body: BatchBody) -> dict[str, Any]:
        """Make pictures or print files of many pairs."""
        wanted, left_out = planned(desk, body)
        if not wanted:
            raise BadOutput(f"Of none of these can anything be made. {left_out[0].title}: {left_out[0].why}.")
        pairs = len({(job.artwork_id, job.template_id) for job in wanted})
        what = KINDS[body.kind]
        batches.add(body.kind, f"{what} of {pairs} pair{'s' if pairs > 1 else ''}", wanted)
        jobs.wake()
        return answer(left_out)

    @api.post("/<int:batch_id>/pause", responses={200: BatchList})
    def pause(path: BatchPath) -> dict[str, Any]:
        """Hold back what has not begun."""
        batches.pause(known(path).id, True)
        return answer()

    @api.post("/<int:batch_id>/resume", responses={200: BatchList})
    def resume(path: BatchPath) -> dict[str, Any]:
        """Go on."""
        batches.pause(known(path).id, False)
        jobs.wake()
        return answer()

    @api.post("/<int:batch_id>/stop", responses={200: BatchList})
    def stop(path: BatchPath) -> dict[str, Any]:
        """Stop all of it; what is made already stays."""
        batches.stop(known(path).id)
        return answer()

    @api.post("/<int:batch_id>/again", responses={200: BatchList})
    def again(path: BatchPath) -> dict[str, Any]:
        """Try what failed or was stopped once more."""
        batches.again(known(path).id)
        jobs.wake()
        return answer()

    @api.delete("/<int:batch_id>", responses={200: BatchList})
    def put_away(path: BatchPath) -> dict[str, Any]:
        """Show it no more. What is under way is stopped."""
        batches.stop(known(path).id)
        batches.put_away(path.batch_id)
        return answer()

    @api.get("/<int:batch_id>/files")
    def files(path: BatchPath) -> Response:
        """All its files in one ZIP, in a folder for each artwork and blank."""
        row = known(path)
        packed = cast(BinaryIO, tempfile.TemporaryFile())  # noqa: SIM115  # closed by the answer, which reads it
        titles = {art.id: f"{art.id}-{slug(art.title)}" for art in desk.artworks.all()}
        with zipfile.ZipFile(packed, "w", zipfile.ZIP_STORED) as archive:
            for artwork_id, template_id, key in batches.files(row.id):
                if (found := desk.made.named(key)) is not None:
                    name, file = found
                    archive.write(file, f"{titles.get(artwork_id, artwork_id)}/{template_id}/{name}")
        packed.seek(0)
        return send_file(
            packed, mimetype="application/zip", as_attachment=True, download_name=f"{slug(row.title)}-{row.id}.zip"
        )

    return api
