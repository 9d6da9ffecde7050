"""Fonts that words are set in: those that ship, and the seller's own."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..core.artwork.pixels import as_array
from ..core.mockup.picture import encode
from ..core.pieces import Lettering
from ..core.render.words import words_layer
from ..core.template import Panel
from ..core.words.font import open_font
from ..fonts import FONTS
from .artworks import UploadForm, plain_name, title_of
from .desk import Desk
from .parts import part
from .shapes import Shape

SAMPLE_MM, SAMPLE_PX_MM = (60.0, 8.0), 6
LETTERS_SHOWN = 24


class FontShape(Shape):
    """A font: its key in a design, what it is called, and whether it is the seller's own."""

    key: str
    title: str
    own: bool


class FontList(Shape):
    """All fonts."""

    fonts: list[FontShape]


class FontPath(BaseModel):
    """Which font."""

    key: str


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/fonts."""
    api = part(desk, "fonts", "fonts", "/api/fonts")

    def answer() -> dict[str, Any]:
        shipped = [FontShape(key=font.id, title=font.title, own=False) for font in FONTS.values()]
        own = [FontShape(key=font.sha256, title=font.title, own=True) for font in desk.fonts.all()]
        return FontList(fonts=[*shipped, *own]).model_dump()

    @api.get("", responses={200: FontList})
    def fonts() -> dict[str, Any]:
        """Every font that words can be set in."""
        return answer()

    @api.post("", responses={201: FontList})
    def add(form: UploadForm) -> tuple[dict[str, Any], int]:
        """Add a font of one's own, TTF or OTF."""
        data, name = form.file.stream.read(), plain_name(form.file.filename)
        desk.fonts.add(data, open_font(data).name[:80] or title_of(name), name)
        return answer(), 201

    @api.get("/<key>/sample")
    def sample(path: FontPath) -> Response:
        """A line set in a font, as PNG."""
        data = desk.font(path.key)
        title = next((f["title"] for f in answer()["fonts"] if f["key"] == path.key), "Sample")[:LETTERS_SHOWN]
        sheet = Panel("sample", "Sample", SAMPLE_MM)
        words = Lettering(title, path.key, sizing="box", width_mm=SAMPLE_MM[0] - 1, height_mm=SAMPLE_MM[1] - 2)
        size = (round(SAMPLE_MM[0] * SAMPLE_PX_MM), round(SAMPLE_MM[1] * SAMPLE_PX_MM))
        layer = words_layer(words, open_font(data), sheet, size)
        assert layer is not None, "the words lie on their sheet"
        drawn = as_array(layer)
        inked = np.flatnonzero(drawn[..., 3].any(axis=0))  # cropped, so that samples stand flush in a list
        picture = Response(encode(np.ascontiguousarray(drawn[:, inked[0] :]), ".png"), mimetype="image/png")
        picture.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return picture

    return api
