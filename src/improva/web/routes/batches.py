"""Batches: all pictures, print files or listing packs of many pairs."""

from __future__ import annotations

import tempfile
import zipfile
from typing import Any, BinaryIO, cast

from flask import Response, send_file

from ...app.batches import SkippedPair, plan_batch
from ...app.errors import NotFoundError
from ...core.errors import OutputError
from ...core.output import slug
from ...core.output.name_pattern import FILE_FIELDS, ArchiveNames, checked_pattern
from ...store import BatchRow
from ...store.models.file_names import FileNamesModel
from ..context import jobs, services
from ..routing import Routes, binary
from ..schemas.batches import BatchIn, BatchKind, BatchListOut, BatchOut, BatchPath, FileNamesIn, SkippedPairOut

KINDS: dict[BatchKind, str] = {"pictures": "Pictures", "print": "Print files", "listing": "Listing packs"}


api = Routes("batches", "/api/batches")


def _batch_out(row: BatchRow) -> BatchOut:
    problems = (
        [SkippedPairOut(title=title, why=why) for title, why in services.store.batches.problems(row.id)] if row.failed else []
    )
    return BatchOut(
        id=row.id,
        kind=cast(Any, row.kind),
        title=row.title,
        paused=row.paused,
        under_way=row.under_way,
        jobs=row.jobs,
        done=row.done,
        failed=row.failed,
        stopped=row.stopped,
        share=row.share,
        files=len(services.store.batches.files(row.id)),
        problems=problems,
    )


def _answer(left_out: list[SkippedPair] | None = None) -> dict[str, Any]:
    answers = [_batch_out(row) for row in services.store.batches.shown()]
    return BatchListOut(
        batches=answers, left_out=[SkippedPairOut(title=pair.title, why=pair.why) for pair in left_out or []]
    ).model_dump()


def _batch(path: BatchPath) -> BatchRow:
    row = services.store.batches.get(path.batch_id)
    if row is None:
        raise NotFoundError("There is no such batch.")
    return row


@api.get("", responses={200: BatchListOut})
def list_batches() -> dict[str, Any]:
    """List the batches that were not dismissed."""
    return _answer()


@api.post("", responses={200: BatchListOut})
def start_batch(body: BatchIn) -> dict[str, Any]:
    """Start a job that makes pictures or print files of many pairs.

    Raises :class:`OutputError` where no pair can be made.
    """
    wanted, left_out = plan_batch(services, body.kind, [(ref.artwork_id, ref.template_id) for ref in body.pairs], body.preset)
    if not wanted:
        raise OutputError(f"Nothing can be made of these. {left_out[0].title}: {left_out[0].why}.")
    pairs = len({(job.artwork_id, job.template_id) for job in wanted})
    what = KINDS[body.kind]
    services.store.batches.add(body.kind, f"{what} of {pairs} pair{'s' if pairs > 1 else ''}", wanted)
    jobs.wake()
    return _answer(left_out)


@api.post("/<int:batch_id>/pause", responses={200: BatchListOut})
def pause_batch(path: BatchPath) -> dict[str, Any]:
    """Pause a batch: jobs that have not started wait."""
    services.store.batches.pause(_batch(path).id, True)
    return _answer()


@api.post("/<int:batch_id>/resume", responses={200: BatchListOut})
def resume_batch(path: BatchPath) -> dict[str, Any]:
    """Resume a paused batch."""
    services.store.batches.pause(_batch(path).id, False)
    jobs.wake()
    return _answer()


@api.post("/<int:batch_id>/stop", responses={200: BatchListOut})
def stop_batch(path: BatchPath) -> dict[str, Any]:
    """Stop a batch; finished files stay."""
    services.store.batches.stop(_batch(path).id)
    return _answer()


@api.post("/<int:batch_id>/again", responses={200: BatchListOut})
def retry_batch(path: BatchPath) -> dict[str, Any]:
    """Run the failed and stopped jobs of a batch again."""
    services.store.batches.again(_batch(path).id)
    jobs.wake()
    return _answer()


@api.delete("/<int:batch_id>", responses={200: BatchListOut})
def dismiss_batch(path: BatchPath) -> dict[str, Any]:
    """Dismiss a batch from the list, and stop its running jobs."""
    services.store.batches.stop(_batch(path).id)
    services.store.batches.put_away(path.batch_id)
    return _answer()


def _file_names() -> FileNamesModel:
    return FileNamesModel.model_validate(services.store.batches.file_names())


@api.get("/names", responses={200: FileNamesModel})
def get_file_names() -> dict[str, Any]:
    """Return the patterns for names of files in archives."""
    return _file_names().model_dump()


@api.put("/names", responses={200: FileNamesModel})
def put_file_names(body: FileNamesIn) -> dict[str, Any]:
    """Set the patterns for names of files in archives.

    Raises :class:`PlacementError` for a pattern without a field, or with an unknown one.
    """
    patterns = {name: checked_pattern(pattern, FILE_FIELDS) for name, pattern in body.model_dump().items()}
    services.store.batches.keep_file_names(patterns)
    return get_file_names()


@api.get("/<int:batch_id>/files", responses={200: binary("application/zip")})
def download_batch(path: BatchPath) -> Response:
    """Return all files of a batch in one ZIP, named by the seller's pattern: with a folder for each artwork and blank at first."""
    row = _batch(path)
    work = services.store.database.work
    work.mkdir(exist_ok=True)
    packed = cast(BinaryIO, tempfile.TemporaryFile(dir=work))  # noqa: SIM115  # closed by the answer, which reads it
    titles = {art.id: art.title for art in services.store.artworks.all()}
    files = services.store.batches.files(row.id)
    name_of = ArchiveNames(_file_names().batch, len(files))
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_STORED) as archive:
        for artwork_id, template_id, key in files:
            if (made_file := services.store.made_files.named(key)) is not None:
                name, file = made_file
                archive.write(file, name_of(artwork_id, titles.get(artwork_id, "removed"), template_id, name))
    packed.seek(0)
    return send_file(packed, mimetype="application/zip", as_attachment=True, download_name=f"{slug(row.title)}-{row.id}.zip")
