"""Words as outlines, so that a drawing looks the same on every machine."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.ttLib import TTFont

FONTS = Path("frontend/node_modules/@fontsource")
SANS = "josefin-sans/files/josefin-sans-latin-600-normal.woff2"
SANS_BOLD = "josefin-sans/files/josefin-sans-latin-700-normal.woff2"
DECO = "limelight/files/limelight-latin-400-normal.woff2"


@cache
def _font(name: str) -> TTFont:
    return TTFont(FONTS / name)


def width(font: str, text: str, size: float, tracking: float = 0.0) -> float:
    """Advance width of a line at ``size``; ``tracking`` is added after each letter, in thousandths of the size."""
    f = _font(font)
    cmap, hmtx, upm = f.getBestCmap(), f["hmtx"], f["head"].unitsPerEm
    advance = sum(hmtx[cmap[ord(c)]][0] for c in text) / upm * size
    return float(advance + tracking / 1000 * size * (len(text) - 1))


def line(
    font: str, text: str, size: float, x: float, y: float, *, anchor: str = "start", tracking: float = 0.0, fill: str = "#000"
) -> str:
    """A path of a line of words with its baseline at ``y``."""
    f = _font(font)
    cmap, hmtx, glyphs, upm = f.getBestCmap(), f["hmtx"], f.getGlyphSet(), f["head"].unitsPerEm
    scale = size / upm
    x -= {"start": 0.0, "middle": 0.5, "end": 1.0}[anchor] * width(font, text, size, tracking)
    pen = SVGPathPen(glyphs, ntos=lambda v: f"{v:.2f}".rstrip("0").rstrip("."))
    for c in text:
        glyphs[cmap[ord(c)]].draw(TransformPen(pen, (scale, 0, 0, -scale, x, y)))
        x += hmtx[cmap[ord(c)]][0] * scale + tracking / 1000 * size
    return f'<path d="{pen.getCommands()}" fill="{fill}"/>'
