"""Shipped fonts, all under open licences: see LICENCES.txt."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from importlib import resources

from ..core.errors import FontError


@dataclass(frozen=True)
class ShippedFont:
    """A shipped font with a descriptive name."""

    id: str
    title: str
    file: str


FONTS: dict[str, ShippedFont] = {
    font.id: font
    for font in (
        ShippedFont("book", "Book serif", "GoudyBookletter1911.otf"),
        ShippedFont("old-style", "Old style serif", "EBGaramond12-Regular.otf"),
        ShippedFont("sans-bold", "Sans, bold", "Cabin-Bold.otf"),
        ShippedFont("poster", "Poster, heavy", "LeagueSpartan-ExtraBold.otf"),
        ShippedFont("narrow", "Narrow capitals", "BebasNeue-Regular.otf"),
        ShippedFont("round", "Round, bold", "Comfortaa-Bold.ttf"),
        ShippedFont("script", "Script, bold", "DancingScript-Bold.otf"),
        ShippedFont("brush", "Brush", "KaushanScript-Regular.otf"),
        ShippedFont("typewriter", "Typewriter, bold", "CourierPrime-Bold.otf"),
    )
}


@cache
def font_bytes(font_id: str) -> bytes:
    """Return a shipped font's file. Raises :class:`FontError` for an unknown id."""
    if font_id not in FONTS:
        raise FontError(f"There is no font '{font_id}': choose one of {', '.join(FONTS)}, or add your own.")
    return resources.files(__name__).joinpath(FONTS[font_id].file).read_bytes()
