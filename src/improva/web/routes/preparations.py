"""Preparation of an artwork: its steps, previews of edited steps, and its origin."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.artworks import plain_name
from ...app.edits import editing
from ...app.errors import NotFoundError
from ...app.preparations import report_of
from ...core.errors import StepError
from ...core.preparation import KINDS, shown
from ..context import rendering, services
from ..presenters.preparations import preparation_out, preparation_report_out
from ..routing import Routes, binary
from ..schemas.artworks import ArtPath, PreviewQuery
from ..schemas.common import EditQuery, UploadForm
from ..schemas.preparations import KindOut, KindsOut, OriginIn, PreparationIn, PreparationOut, PreparationReportOut

api = Routes("artworks", "/api/artworks")

MOST_LICENCE_MB = 20


def _answer(path: ArtPath) -> dict[str, Any]:
    return preparation_out(services, path.artwork_id).model_dump()


def _steps_of(path: ArtPath) -> dict[str, Any]:
    return services.artworks.imported(path.artwork_id).preparation.as_dict()


def _move(path: ArtPath, query: EditQuery, by: int) -> dict[str, Any]:
    with editing(services.store.database, query.based_on, lambda: _steps_of(path), None):
        services.store.preparations.move(path.artwork_id, by)
    return _answer(path)


@api.get("/steps", responses={200: KindsOut})
def list_step_kinds() -> dict[str, Any]:
    """List every kind of step."""
    return KindsOut(kinds=[KindOut.of(kind) for kind in KINDS.values()]).model_dump()


@api.get("/<int:artwork_id>/preparation", responses={200: PreparationOut})
def get_preparation(path: ArtPath) -> dict[str, Any]:
    """Return an artwork's steps and their result."""
    return _answer(path)


@api.put("/<int:artwork_id>/preparation", responses={200: PreparationOut})
def set_preparation(path: ArtPath, query: EditQuery, body: PreparationIn) -> dict[str, Any]:
    """Set an artwork's steps. They run on the whole picture first; steps that fail are refused."""
    row, decided = services.artworks.imported(path.artwork_id), body.to_core()
    if decided.active:
        services.artworks.preparations.make(row, decided)
    with editing(services.store.database, query.based_on, lambda: _steps_of(path), decided.as_dict()):
        services.store.preparations.decide(path.artwork_id, decided)
    return _answer(path)


@api.post("/<int:artwork_id>/preparation/undo", responses={200: PreparationOut})
def undo_preparation(path: ArtPath, query: EditQuery) -> dict[str, Any]:
    """Undo the last change to the steps."""
    return _move(path, query, -1)


@api.post("/<int:artwork_id>/preparation/redo", responses={200: PreparationOut})
def redo_preparation(path: ArtPath, query: EditQuery) -> dict[str, Any]:
    """Redo the next change to the steps."""
    return _move(path, query, 1)


@api.post("/<int:artwork_id>/preparation/preview", responses={200: binary("image/png")})
def preview_preparation(path: ArtPath, query: PreviewQuery, body: PreparationIn) -> Response:
    """Return a small picture after edited steps, as PNG with transparency."""
    row = services.artworks.imported(path.artwork_id)
    with rendering():
        picture = services.artworks.preparations.preview(row, body.to_core())
        data = shown(picture, query.px).pngsave_buffer(compression=1, filter="none", keep="none")
    return Response(data, mimetype="image/png")


@api.post("/<int:artwork_id>/preparation/report", responses={200: PreparationReportOut})
def preview_preparation_report(path: ArtPath, body: PreparationIn) -> dict[str, Any]:
    """Return the report on a small picture after edited steps."""
    picture = services.artworks.preparations.preview(services.artworks.imported(path.artwork_id), body.to_core())
    return preparation_report_out(report_of(picture)).model_dump()


@api.put("/<int:artwork_id>/origin", responses={200: PreparationOut})
def set_origin(path: ArtPath, body: OriginIn) -> dict[str, Any]:
    """Set an artwork's origin and what its licence allows."""
    services.store.origins.note(services.artworks.imported(path.artwork_id).id, body.to_core())
    return _answer(path)


@api.put("/<int:artwork_id>/licence", responses={200: PreparationOut})
def set_licence_file(path: ArtPath, form: UploadForm) -> dict[str, Any]:
    """Store the licence's own file with the artwork.

    Raises :class:`StepError` for a file that is too large.
    """
    data = form.file.stream.read()
    if len(data) > MOST_LICENCE_MB * 1_000_000:
        raise StepError(f"The licence's file is over {MOST_LICENCE_MB} MB: keep its text or a smaller scan.")
    services.store.origins.keep_licence(services.artworks.imported(path.artwork_id).id, data, plain_name(form.file.filename))
    return _answer(path)


@api.get("/<int:artwork_id>/licence", responses={200: binary("application/octet-stream")})
def download_licence_file(path: ArtPath) -> Response:
    """Return the licence's file unchanged; it is always downloaded and never shown, whatever it contains.

    Raises :class:`NotFoundError` where there is none.
    """
    file = services.store.origins.licence(services.artworks.imported(path.artwork_id).id)
    if file is None:
        raise NotFoundError("No licence's file is kept with this artwork.")
    answer = Response(services.store.database.blob(file[0]), mimetype="application/octet-stream")
    answer.headers.set("Content-Disposition", "attachment", filename=file[1])
    return answer


@api.delete("/<int:artwork_id>/licence", responses={200: PreparationOut})
def remove_licence_file(path: ArtPath) -> dict[str, Any]:
    """Remove the licence's file."""
    services.store.origins.drop_licence(services.artworks.imported(path.artwork_id).id)
    return _answer(path)
