"""Files made for a pair, and the making of listing pictures."""

from __future__ import annotations

import zipfile
from pathlib import Path
from typing import Any, Literal

import pikepdf
import pyvips
from flask import Response, send_file
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from ..core.units import PT_PER_IN
from ..scenes import scene
from .desk import Desk
from .problems import NotHere
from .shapes import MadeFile, PairPath, Shape


class FilePath(BaseModel):
    """Which made file."""

    key: str


class PictureBody(Shape):
    """Which picture is wanted."""

    scene_id: str
    view: str = "front"
    angle: float | None = Field(default=None, ge=-36000, le=36000)
    size: tuple[int, int] = (2000, 2000)
    format: Literal["jpg", "png", "webp"] = "jpg"


def _about(path: Path) -> str:
    """What a file is, in a few words; measured from the file itself."""
    if path.suffix == ".pdf":
        with pikepdf.open(path) as pdf:
            pages = len(pdf.pages)
            w, h = (float(v) / PT_PER_IN for v in pdf.pages[0].mediabox[2:])
        return f"{pages} page{'s' if pages > 1 else ''} of {w:.4g} × {h:.4g} in"
    if path.suffix == ".zip":
        with zipfile.ZipFile(path) as archive:
            return f"{len(archive.namelist())} files"
    image = pyvips.Image.new_from_file(str(path))
    return f"{image.width} × {image.height} px"


def made_shape(desk: Desk, key: str) -> MadeFile | None:
    """A made file as it is answered, or None where it is no longer kept."""
    found = desk.made.named(key)
    if found is None:
        return None
    name, path = found
    return MadeFile(name=name, url=f"/api/files/{key}", bytes=path.stat().st_size, about=_about(path))


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses that make files, and of made files."""
    api = APIBlueprint("files", __name__, url_prefix="/api", abp_tags=[Tag(name="files")])
    pair_at = "/pairs/<int:artwork_id>/<template_id>"

    @api.post(f"{pair_at}/picture", responses={200: MadeFile})
    def picture(path: PairPath, body: PictureBody) -> dict[str, Any]:
        """Make a listing picture; made before, it is only named."""
        work = desk.work(path.artwork_id, path.template_id)
        angle = scene(body.scene_id, work.template).angle(body.view) if body.angle is None else body.angle
        view = body.view if body.angle is None else f"{angle:g}deg"
        key, _ = desk.picture(work, body.scene_id, body.size, angle, view, body.format)
        return made_shape(desk, key).model_dump()  # type: ignore[union-attr]  # it was made just now

    @api.get("/files/<key>")
    def made_file(path: FilePath) -> Response:
        """A made file, under its telling name."""
        found = desk.made.named(path.key)
        if found is None:
            raise NotHere("This file is no longer kept: make it again.")
        return send_file(found[1].resolve(), as_attachment=True, download_name=found[0])

    return api
