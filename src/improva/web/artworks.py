"""Artworks: dropping them on the board, looking at them, taking them off and putting them back."""

from __future__ import annotations

from pathlib import PurePosixPath
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint, FileStorage
from pydantic import BaseModel, Field

from ..core.artwork.pixels import Artwork, as_array
from ..core.artwork.traits import find_traits
from ..core.mockup.picture import encode
from ..store import ArtRow
from .parts import part
from .shapes import Art, Shape

LEAST_PREVIEW_PX, MOST_PREVIEW_PX = 64, 2048


class ArtPath(BaseModel):
    """Which artwork."""

    artwork_id: int


class UploadForm(BaseModel):
    """An artwork file, as a form's part named ``file``."""

    file: FileStorage


class AsideQuery(BaseModel):
    """Whether a file is kept beside the board: a photograph for a frame."""

    aside: bool = False


class TitleBody(Shape):
    """A new title."""

    title: str = Field(min_length=1, max_length=120)


class PreviewQuery(BaseModel):
    """How large a preview is wanted."""

    px: int = Field(default=1400, ge=LEAST_PREVIEW_PX, le=MOST_PREVIEW_PX)


def art_shape(row: ArtRow) -> Art:
    """An artwork as it is answered."""
    f = row.facts
    return Art(id=row.id, title=row.title, file_name=row.file_name, sha256=row.sha256, px=f.px, tagged_dpi=f.tagged_dpi,
               mode=f.mode, has_alpha=f.has_alpha, vector=f.vector, notes=list(f.notes),
               enlarged=f.enlarged, steps=len(row.preparation.active), noted=bool(row.origin.source))  # fmt: skip


def plain_name(file_name: str | None) -> str:
    """The last part of whatever a browser sends as a file name, without control characters."""
    last = PurePosixPath((file_name or "").replace("\\", "/")).name
    return "".join(c for c in last if c.isprintable())[:200] or "artwork"


def title_of(file_name: str) -> str:
    """A first title: the file's name without its ending, with spaces for underscores and hyphens."""
    stem = PurePosixPath(file_name).stem.replace("_", " ").replace("-", " ").strip() or "Artwork"
    return (stem[0].upper() + stem[1:])[:120]


def blueprint(desk: Any) -> APIBlueprint:
    """The addresses under /api/artworks."""
    api = part(desk, "artworks", "artworks", "/api/artworks")

    @api.post("", responses={201: Art})
    def add(query: AsideQuery, form: UploadForm) -> tuple[dict[str, Any], int]:
        """Keep a dropped file. It is decoded whole before it is kept, so that a damaged one is told at once."""
        name = plain_name(form.file.filename)
        art = Artwork.read(form.file.stream.read())
        proxy = art.proxy()
        row = desk.artworks.add(title_of(name), name, art, find_traits(proxy), query.aside)
        desk.darkroom.proxy(row.sha256, lambda: proxy)
        return art_shape(row).model_dump(), 201

    @api.patch("/<int:artwork_id>", responses={200: Art})
    def rename(path: ArtPath, body: TitleBody) -> dict[str, Any]:
        """Give an artwork another title."""
        desk.art(path.artwork_id)
        desk.artworks.rename(path.artwork_id, body.title.strip() or "Artwork")
        return art_shape(desk.art(path.artwork_id)).model_dump()

    @api.delete("/<int:artwork_id>")
    def remove(path: ArtPath) -> tuple[str, int]:
        """Take an artwork off the board. Nothing of it is deleted."""
        desk.art(path.artwork_id)
        desk.artworks.set_removed(path.artwork_id, True)
        return "", 204

    @api.post("/<int:artwork_id>/restore", responses={200: Art})
    def restore(path: ArtPath) -> dict[str, Any]:
        """Put an artwork back on the board."""
        desk.art(path.artwork_id)
        desk.artworks.set_removed(path.artwork_id, False)
        return art_shape(desk.art(path.artwork_id)).model_dump()

    @api.get("/<int:artwork_id>/preview")
    def preview(path: ArtPath, query: PreviewQuery) -> Response:
        """The picture itself, reduced: PNG where it has transparency, else JPEG."""
        row = desk.art(path.artwork_id)
        picture = as_array(desk.proxy(row).reduced(query.px))
        ending = ".png" if picture.shape[2] == 4 else ".jpg"
        answer = Response(encode(picture, ending), mimetype="image/png" if ending == ".png" else "image/jpeg")
        answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return answer

    return api
