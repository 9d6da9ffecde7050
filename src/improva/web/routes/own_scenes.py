"""The seller's own scenes: marked photographs, and scene packs as files."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.edits import editing
from ...app.errors import NotFoundError
from ...app.own_scenes import left_out
from ...app.previews import PREVIEW_QUALITY
from ...core.mockup.composite import shade_plain_parts
from ...core.mockup.render import encode, render_mockup
from ...core.mockup.view import make_view
from ...io.scene_pack_zip import zip_pack
from ..answers import cached_answer
from ..context import rendering, services
from ..presenters.own_scenes import own_scene_out
from ..routing import Routes, binary
from ..schemas.common import EditQuery, UploadForm
from ..schemas.own_scenes import (
    DesignQuery,
    KeyQuery,
    OwnSceneLineOut,
    OwnSceneListOut,
    OwnScenePath,
    OwnSceneStateOut,
    PhotoMarksIn,
    PhotoSceneIn,
)

api = Routes("own scenes", "/api/own-scenes")


def _own_scenes() -> dict[str, Any]:
    lines = [
        OwnSceneLineOut(id=r.id, title=r.title, template=r.template_id, photo=r.photo_id is not None, pack=r.pack)
        for r in services.store.own_scenes.all()
    ]
    return OwnSceneListOut(scenes=lines).model_dump()


@api.get("", responses={200: OwnSceneListOut})
def list_own_scenes() -> dict[str, Any]:
    """List the seller's own scenes."""
    return _own_scenes()


@api.post("", responses={201: OwnSceneStateOut})
def add_photo_scene(body: PhotoSceneIn) -> tuple[dict[str, Any], int]:
    """Add a scene from a photograph."""
    template, art = services.blanks.get(body.template_id), services.artworks.get(body.photo_id)
    panel = template.panel(body.panel_id)
    row = services.store.own_scenes.add(art.id, template.id, panel.id, art.title[:80])
    return own_scene_out(services, row).model_dump(), 201


@api.get("/<int:scene_id>", responses={200: OwnSceneStateOut})
def get_own_scene(path: OwnScenePath) -> dict[str, Any]:
    """Return a scene with its marks and findings."""
    return own_scene_out(services, services.own_scenes.row(path.scene_id)).model_dump()


@api.put("/<int:scene_id>", responses={200: OwnSceneStateOut})
def set_photo_marks(path: OwnScenePath, query: EditQuery, body: PhotoMarksIn) -> dict[str, Any]:
    """Set the marks on a photograph."""
    row = services.own_scenes.row(path.scene_id)
    services.blanks.get(row.template_id).panel(body.panel)
    edited = [body.panel, body.title, body.marks.model_dump()]
    with editing(
        services.store.database, query.based_on, lambda: services.own_scenes.marked(services.own_scenes.row(row.id)), edited
    ):
        services.store.own_scenes.mark(row.id, body.panel, body.title, body.marks.model_dump())
    return own_scene_out(services, services.own_scenes.row(row.id)).model_dump()


@api.get("/<int:scene_id>/mask", responses={200: binary("image/png")})
def get_photo_mask(path: OwnScenePath, query: KeyQuery) -> Response:
    """Return the mask of what lies in front of the product, as a PNG overlay."""
    cover = services.own_scenes.draft(services.own_scenes.row(path.scene_id)).passes.cover
    assert cover is not None
    return cached_answer(encode(left_out(cover), ".png"), "image/png")


@api.get("/<int:scene_id>/look", responses={200: binary("image/jpeg")})
def preview_own_scene(path: OwnScenePath, query: DesignQuery) -> Response:
    """Return a preview of a design in a marked photograph, as JPEG."""
    row = services.own_scenes.row(path.scene_id)
    draft, pair = services.own_scenes.draft(row), services.pairs.load(query.artwork_id, row.template_id)
    info = draft.info()
    with rendering():
        shaded = shade_plain_parts(make_view(info, draft.passes, info.px, cores=services.render_cache.cores), {})
        picture = render_mockup(
            shaded, pair.designs(), pair.opener(services.artworks.proxy(pair.art), services.artworks.proxy), 0.0
        )
    return cached_answer(encode(picture, ".jpg", quality=PREVIEW_QUALITY), "image/jpeg")


@api.post("/<int:scene_id>/pack", responses={200: OwnSceneStateOut})
def make_own_scene(path: OwnScenePath) -> dict[str, Any]:
    """Make a scene pack from a marked photograph, at full size."""
    services.own_scenes.make(services.own_scenes.row(path.scene_id))
    return own_scene_out(services, services.own_scenes.row(path.scene_id)).model_dump()


@api.get("/<int:scene_id>/pack", responses={200: binary("application/zip")})
def download_scene_pack(path: OwnScenePath) -> Response:
    """Return a finished scene as a ZIP.

    Raises :class:`NotFoundError` before it is made.
    """
    row = services.own_scenes.row(path.scene_id)
    if row.pack is None:
        raise NotFoundError("This scene is not made yet: make it first.")
    info = services.scenes.get(row.pack, services.blanks.get(row.template_id))
    answer = Response(zip_pack(info), mimetype="application/zip")
    answer.headers["Content-Disposition"] = f'attachment; filename="{info.id}.zip"'
    return answer


@api.post("/packs", responses={201: OwnSceneListOut})
def import_scene_pack(form: UploadForm) -> tuple[dict[str, Any], int]:
    """Import a scene pack from a ZIP."""
    services.own_scenes.take_in(form.file.stream.read())
    return _own_scenes(), 201


@api.delete("/<int:scene_id>", responses={200: OwnSceneListOut})
def remove_own_scene(path: OwnScenePath) -> dict[str, Any]:
    """Remove a scene; its photograph, marks and pack stay stored."""
    services.store.own_scenes.set_removed(services.own_scenes.row(path.scene_id), True)
    services.blanks.refresh()
    return _own_scenes()


@api.post("/<int:scene_id>/restore", responses={200: OwnSceneListOut})
def restore_own_scene(path: OwnScenePath) -> dict[str, Any]:
    """Restore a removed scene."""
    services.store.own_scenes.set_removed(services.own_scenes.row(path.scene_id), False)
    services.blanks.refresh()
    return _own_scenes()
