"""Fonts for text: the shipped ones and the seller's own."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.artworks import plain_name, title_of
from ...app.foreign_files import FONT
from ...core.mockup.render import encode
from ...core.render.font_sample import font_sample
from ...core.words.font import open_font
from ...fonts import FONTS
from ..answers import cached_answer
from ..context import services
from ..routing import Routes, binary
from ..schemas.common import UploadForm
from ..schemas.fonts import FontListOut, FontOut, FontPath

api = Routes("fonts", "/api/fonts")


def _fonts() -> dict[str, Any]:
    shipped = [FontOut(key=font.id, title=font.title, own=False) for font in FONTS.values()]
    own = [FontOut(key=font.sha256, title=font.title, own=True) for font in services.store.fonts.all()]
    return FontListOut(fonts=[*shipped, *own]).model_dump()


@api.get("", responses={200: FontListOut})
def list_fonts() -> dict[str, Any]:
    """List every font."""
    return _fonts()


@api.post("", responses={201: FontListOut})
def add_font(form: UploadForm) -> tuple[dict[str, Any], int]:
    """Add a font file, TTF or OTF."""
    data, name = form.file.stream.read(), plain_name(form.file.filename)
    title = services.reader.read(FONT, data).values["name"]
    services.store.fonts.add(data, title or title_of(name), name)
    return _fonts(), 201


@api.get("/<key>/sample", responses={200: binary("image/png")})
def get_font_sample(path: FontPath) -> Response:
    """Return a sample line in a font, as PNG."""
    title = next((f["title"] for f in _fonts()["fonts"] if f["key"] == path.key), "Sample")
    return cached_answer(encode(font_sample(open_font(services.fonts.data(path.key)), title), ".png"), "image/png")
