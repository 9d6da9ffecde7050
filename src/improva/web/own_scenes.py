"""The addresses of a seller's own scenes: a photograph marked into a scene, and packs brought in and out as files."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from ..core.mockup.composite import light_plain_parts
from ..core.mockup.pack_zip import zip_pack
from ..core.mockup.picture import encode, mock_up
from ..core.mockup.view import make_view
from ..scenes import scene
from .desk import LOOK_QUALITY, Desk
from .own_scene_shapes import (
    BeginBody,
    DesignQuery,
    KeyQuery,
    MarkBody,
    OwnSceneLine,
    OwnSceneList,
    OwnScenePath,
    OwnSceneState,
    PackForm,
)
from .parts import part
from .photographing import Photographing, left_out
from .problems import NotHere


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/own-scenes."""
    api = part(desk, "own scenes", "own scenes", "/api/own-scenes")
    photos = Photographing(desk)

    def listed() -> dict[str, Any]:
        lines = [OwnSceneLine(id=r.id, title=r.title, template=r.template_id, photo=r.photo_id is not None, pack=r.pack)
                 for r in desk.own_scenes.all()]  # fmt: skip
        return OwnSceneList(scenes=lines).model_dump()

    def kept(data: bytes, kind: str) -> Response:
        answer = Response(data, mimetype=kind)
        answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return answer

    @api.get("", responses={200: OwnSceneList})
    def all_own() -> dict[str, Any]:
        """All scenes of the seller's own."""
        return listed()

    @api.post("", responses={201: OwnSceneState})
    def begin(body: BeginBody) -> tuple[dict[str, Any], int]:
        """Begin a scene with a photograph."""
        template, art = desk.template(body.template_id), desk.art(body.photo_id)
        panel = template.panel(body.panel_id)
        row = desk.own_scenes.add(art.id, template.id, panel.id, art.title[:80])
        return photos.state(row).model_dump(), 201

    @api.get("/<int:scene_id>", responses={200: OwnSceneState})
    def one(path: OwnScenePath) -> dict[str, Any]:
        """A scene, and what is to be said about it."""
        return photos.state(photos.row(path.scene_id)).model_dump()

    @api.put("/<int:scene_id>", responses={200: OwnSceneState})
    def mark(path: OwnScenePath, body: MarkBody) -> dict[str, Any]:
        """Keep what is marked."""
        row = photos.row(path.scene_id)
        desk.template(row.template_id).panel(body.panel)
        desk.own_scenes.mark(row.id, body.panel, body.title, body.marks.model_dump())
        return photos.state(photos.row(row.id)).model_dump()

    @api.get("/<int:scene_id>/mask")
    def mask(path: OwnScenePath, query: KeyQuery) -> Response:
        """What is left out of the product, as a PNG to lay over the photograph."""
        cover = photos.draft(photos.row(path.scene_id)).passes.cover
        assert cover is not None
        return kept(encode(left_out(cover), ".png"), "image/png")

    @api.get("/<int:scene_id>/look")
    def look(path: OwnScenePath, query: DesignQuery) -> Response:
        """A design in the scene as it is marked, as JPEG."""
        row = photos.row(path.scene_id)
        draft, work = photos.draft(row), desk.work(query.artwork_id, row.template_id)
        info = draft.info()
        lit = light_plain_parts(make_view(info, draft.passes, info.px), {})
        picture = mock_up(lit, work.designs(), work.opener(desk.proxy(work.art), desk.proxy), 0.0)
        return kept(encode(picture, ".jpg", quality=LOOK_QUALITY), "image/jpeg")

    @api.post("/<int:scene_id>/pack", responses={200: OwnSceneState})
    def make(path: OwnScenePath) -> dict[str, Any]:
        """Make the scene at full size."""
        photos.make(photos.row(path.scene_id))
        return photos.state(photos.row(path.scene_id)).model_dump()

    @api.get("/<int:scene_id>/pack")
    def pack(path: OwnScenePath) -> Response:
        """The made scene as a ZIP."""
        row = photos.row(path.scene_id)
        if row.pack is None:
            raise NotHere("This scene is not made yet: make it first.")
        info = scene(row.pack, desk.template(row.template_id))
        answer = Response(zip_pack(info), mimetype="application/zip")
        answer.headers["Content-Disposition"] = f'attachment; filename="{info.id}.zip"'
        return answer

    @api.post("/packs", responses={201: OwnSceneList})
    def take_in(form: PackForm) -> tuple[dict[str, Any], int]:
        """Take in a scene pack's ZIP."""
        photos.take_in(form.file.stream.read())
        return listed(), 201

    @api.delete("/<int:scene_id>", responses={200: OwnSceneList})
    def remove(path: OwnScenePath) -> dict[str, Any]:
        """Take a scene away; its photograph, marks and pack are kept."""
        desk.own_scenes.set_removed(photos.row(path.scene_id), True)
        desk.forget_templates()
        return listed()

    @api.post("/<int:scene_id>/restore", responses={200: OwnSceneList})
    def restore(path: OwnScenePath) -> dict[str, Any]:
        """Put a scene back."""
        desk.own_scenes.set_removed(photos.row(path.scene_id), False)
        desk.forget_templates()
        return listed()

    return api
