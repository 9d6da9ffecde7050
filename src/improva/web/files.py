"""Files made for a pair."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pikepdf
import pyvips
from flask import Response, send_file
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..core.units import PT_PER_IN
from .desk import Desk
from .parts import part
from .problems import NotHere
from .shapes import MadeFile


class FilePath(BaseModel):
    """Which made file."""

    key: str


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
    if path.suffix == ".json":
        return "what they show"
    if path.suffix in (".mp4", ".gif"):
        return "film"
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
    """The addresses of made files."""
    api = part(desk, "files", "files", "/api")

    @api.get("/files/<key>")
    def made_file(path: FilePath) -> Response:
        """A made file, under its telling name."""
        found = desk.made.named(path.key)
        if found is None:
            raise NotHere("This file is no longer kept: make it again.")
        return send_file(found[1].resolve(), as_attachment=True, download_name=found[0])

    return api
