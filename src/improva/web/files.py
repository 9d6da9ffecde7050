"""Files made for a pair: print files and listing pictures."""

from __future__ import annotations

from typing import Any, Literal

from flask import Response, send_file
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from ..scenes import scene
from .desk import Desk
from .problems import NotHere
from .shapes import MadeFile, PairPath, PanelQuery, Shape


class FilePath(BaseModel):
    """Which made file."""

    key: str


class PrintBody(Shape):
    """Which print file is wanted."""

    format: Literal["png", "tif", "pdf"] = "png"
    dpi: float = Field(default=300, ge=36, le=1200)
    cut_line: bool = False


class PictureBody(Shape):
    """Which picture is wanted."""

    scene_id: str
    view: str = "front"
    angle: float | None = Field(default=None, ge=-36000, le=36000)
    size: tuple[int, int] = (2000, 2000)
    format: Literal["jpg", "png", "webp"] = "jpg"


def _made(key: str, name: str, size: int, px: tuple[int, int]) -> dict[str, Any]:
    return MadeFile(name=name, url=f"/api/files/{key}", bytes=size, px=px).model_dump()


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses that make files, and of made files."""
    api = APIBlueprint("files", __name__, url_prefix="/api", abp_tags=[Tag(name="files")])
    pair_at = "/pairs/<int:artwork_id>/<template_id>"

    @api.post(f"{pair_at}/print-file", responses={200: MadeFile})
    def print_file(path: PairPath, query: PanelQuery, body: PrintBody) -> dict[str, Any]:
        """Make a panel's print file; made before, it is only named."""
        work = desk.work(path.artwork_id, path.template_id)
        panel = work.template.panel(query.panel)
        key, file = desk.print_file(work, panel, body.format, body.dpi, body.cut_line)
        return _made(key, desk.made.named(key)[0], file.stat().st_size, panel.file_px(body.dpi))  # type: ignore[index]

    @api.post(f"{pair_at}/picture", responses={200: MadeFile})
    def picture(path: PairPath, body: PictureBody) -> dict[str, Any]:
        """Make a listing picture; made before, it is only named."""
        work = desk.work(path.artwork_id, path.template_id)
        angle = scene(body.scene_id, work.template).angle(body.view) if body.angle is None else body.angle
        view = body.view if body.angle is None else f"{angle:g}deg"
        key, file = desk.picture(work, body.scene_id, body.size, angle, view, body.format)
        return _made(key, desk.made.named(key)[0], file.stat().st_size, body.size)  # type: ignore[index]

    @api.get("/files/<key>")
    def made_file(path: FilePath) -> Response:
        """A made file, under its telling name."""
        found = desk.made.named(path.key)
        if found is None:
            raise NotHere("This file is no longer kept: make it again.")
        return send_file(found[1].resolve(), as_attachment=True, download_name=found[0])

    return api
