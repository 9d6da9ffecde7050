"""Open font files for shaping and drawing."""

from __future__ import annotations

import io
import math
from functools import lru_cache
from typing import Any

import numpy as np
import uharfbuzz as hb
from fontTools.ttLib import TTFont, TTLibError
from numpy.typing import NDArray

from ..errors import FontError

MOST_FONT_MB = 40
FLAT_EM = 1 / 6000
"""Tolerance between a segment and the curve that it replaces, in em: a sixth of a pixel for letters of 1000 px."""

Contour = NDArray[np.float64]


class _Flattener:
    """Collect contours as points; curves become segments short enough to be bent later."""

    def __init__(self, tolerance: float) -> None:
        self.contours: list[list[tuple[float, float]]] = []
        self._tolerance = tolerance

    def moveTo(self, point: tuple[float, float]) -> None:
        self.contours.append([point])

    def lineTo(self, point: tuple[float, float]) -> None:
        self.contours[-1].append(point)

    def qCurveTo(self, control: tuple[float, float], end: tuple[float, float]) -> None:
        start = self.contours[-1][-1]
        a, b = ((s + 2 * (c - s) / 3) for s, c in zip(start, control, strict=True))
        x, y = ((e + 2 * (c - e) / 3) for e, c in zip(end, control, strict=True))
        self.curveTo((a, b), (x, y), end)

    def curveTo(self, first: tuple[float, float], second: tuple[float, float], end: tuple[float, float]) -> None:
        p0, p1, p2, p3 = (np.array(p, float) for p in (self.contours[-1][-1], first, second, end))
        bow = max(float(np.hypot(*(p0 - 2 * p1 + p2))), float(np.hypot(*(p1 - 2 * p2 + p3))))
        steps = min(64, max(1, math.ceil(math.sqrt(0.75 * bow / self._tolerance))))
        t = np.arange(1, steps + 1)[:, None] / steps
        curve = (1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t**2 * p2 + t**3 * p3
        self.contours[-1] += [(float(x), float(y)) for x, y in curve]

    def closePath(self) -> None:
        pass


class Font:
    """A TrueType or OpenType font, or the first of a collection. Lengths are fractions of the em.

    Raises:
        FontError: it is broken, too large, has no outlines or no letters.
    """

    def __init__(self, data: bytes) -> None:
        if len(data) > MOST_FONT_MB * 1_000_000:
            raise FontError(f"The font's file is over {MOST_FONT_MB} MB: choose a smaller cut of it.")
        if data[:4] in (b"wOFF", b"wOF2"):
            raise FontError("This is a web font: get it as TTF or OTF, as it comes for setting print.")
        try:
            tables = TTFont(io.BytesIO(data), fontNumber=0, lazy=True)
            upem = int(tables["head"].unitsPerEm)
            letters = tables.getBestCmap()
            outlines = any(name in tables for name in ("glyf", "CFF ", "CFF2"))
            self.name = str(tables["name"].getBestFullName() or "") if "name" in tables else ""
        except (TTLibError, KeyError, AssertionError, ValueError, IndexError, OSError, Exception) as broken:
            raise FontError("This font is broken or is none: choose a TTF or OTF file.") from broken
        if not 16 <= upem <= 16384 or not letters or not outlines:
            raise FontError("This font has no letters that can be drawn: choose another.")
        self._font = hb.Font(hb.Face(data, 0))
        self.upem = upem
        self.cap_height = self._extent("H", 0.7)
        self.x_height = self._extent("x", 0.5)

    def _extent(self, letter: str, fallback: float) -> float:
        """Return the height of a flat letter above the baseline, in em."""
        glyph = self._font.get_nominal_glyph(ord(letter))
        extents = self._font.get_glyph_extents(glyph) if glyph else None
        return extents.y_bearing / self.upem if extents and extents.y_bearing > 0 else fallback

    def shape(self, text: str, ligatures: bool = True) -> list[tuple[int, int, float, float, float]]:
        """Shape one line with HarfBuzz: glyph, index of its character, x and y offset, advance; in em."""
        buffer = hb.Buffer()
        buffer.add_str(text)
        buffer.guess_segment_properties()
        hb.shape(self._font, buffer, {"kern": True, "liga": ligatures, "clig": ligatures})
        em = self.upem
        return [
            (info.codepoint, info.cluster, pos.x_offset / em, pos.y_offset / em, pos.x_advance / em)
            for info, pos in zip(buffer.glyph_infos or [], buffer.glyph_positions or [], strict=True)
        ]

    def missing(self, text: str) -> list[str]:
        """Return the characters that the font lacks, each once."""
        wanted = dict.fromkeys(c for c in text if not c.isspace())
        return [c for c in wanted if not self._font.get_nominal_glyph(ord(c))]

    @lru_cache(maxsize=512)  # noqa: B019  # fonts are few and live as long as what is set in them
    def outline(self, glyph: int) -> tuple[Contour, ...]:
        """Return a glyph's closed contours, each (n, 2) in em, y upward."""
        pen: Any = _Flattener(FLAT_EM * self.upem)
        self._font.draw_glyph_with_pen(glyph, pen)
        return tuple(np.array(c, float) / self.upem for c in pen.contours if len(c) > 2)


@lru_cache(maxsize=24)
def open_font(data: bytes) -> Font:
    """Open a font once. Raises :class:`FontError`."""
    return Font(data)
