"""Fonts for text: the shipped ones and the seller's own."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import Response

from ...app.artworks import plain_name, title_of
from ...core.artwork.pixels import as_array
from ...core.mockup.render import encode
from ...core.pieces import Lettering
from ...core.render.words import words_layer
from ...core.template import Panel
from ...core.words.font import open_font
from ...fonts import FONTS
from ..answers import cached_answer
from ..context import services
from ..routing import Routes
from ..schemas.common import UploadForm
from ..schemas.fonts import FontListOut, FontOut, FontPath

api = Routes("fonts", "/api/fonts")

SAMPLE_MM, SAMPLE_PX_MM = (60.0, 8.0), 6
LETTERS_SHOWN = 24


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
    services.store.fonts.add(data, open_font(data).name[:80] or title_of(name), name)
    return _fonts(), 201


@api.get("/<key>/sample")
def get_font_sample(path: FontPath) -> Response:
    """Return a sample line in a font, as PNG."""
    data = services.fonts.data(path.key)
    title = next((f["title"] for f in _fonts()["fonts"] if f["key"] == path.key), "Sample")[:LETTERS_SHOWN]
    sheet = Panel("sample", "Sample", SAMPLE_MM)
    words = Lettering(title, path.key, sizing="box", width_mm=SAMPLE_MM[0] - 1, height_mm=SAMPLE_MM[1] - 2)
    size = (round(SAMPLE_MM[0] * SAMPLE_PX_MM), round(SAMPLE_MM[1] * SAMPLE_PX_MM))
    layer = words_layer(words, open_font(data), sheet, size)
    assert layer is not None, "the words lie on their sheet"
    drawn = as_array(layer)
    inked = np.flatnonzero(drawn[..., 3].any(axis=0))  # cropped, so that samples stand flush in a list
    return cached_answer(encode(np.ascontiguousarray(drawn[:, inked[0] :]), ".png"), "image/png")
