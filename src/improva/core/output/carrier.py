"""Paper around a wrap's print: a white tab for the tape, and trim marks."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, get_args

import pyvips

from ..artwork.pixels import TRANSPARENT, as_bytes, with_alpha
from ..errors import OutputError
from ..render.lines import drawn
from ..template import Panel
from ..units import finite

MOST_TAB_MM = 60.0
MARKS_MM = 6.0
"""Height of the paper above and below a straight wrap that carries its trim marks, in mm."""
MARK_LONG_MM, MARK_WIDE_MM = 4.5, 0.2
MARK_GAP_MM = 0.8
"""Distance between a ring's corner and its mark, in mm, so that cutting out the print leaves the mark."""

TabSide = Literal["none", "left", "right"]
Point = tuple[float, float]
Segment = tuple[float, float, float, float]
Margins = tuple[float, float, float, float]


@dataclass(frozen=True)
class Carrier:
    """Paper around a wrap: a white tab past one end that carries the tape, and trim marks above and below.

    ``tab`` is the side on the print as it is seen on the cup; the other end is trimmed flush, so that the seam butts.
    """

    tab: TabSide = "none"
    tab_mm: float = 0.0
    marks: bool = False

    def __post_init__(self) -> None:
        if self.tab not in get_args(TabSide):
            raise OutputError(f"A tab on the side '{self.tab}' is not known: choose none, left or right.")
        if not 0 <= finite(self.tab_mm, "tab") <= MOST_TAB_MM:
            raise OutputError(f"A tab of {self.tab_mm:g} mm cannot be made: use 0 to {MOST_TAB_MM:g} mm.")

    @property
    def bare(self) -> bool:
        """Return whether there is no paper around the print."""
        return not self.marks and not (self.tab != "none" and self.tab_mm)

    def check(self, panel: Panel) -> None:
        """Check that the panel's print ends along a straight line, so that a tab can be glued there.

        Raises :class:`OutputError` otherwise.
        """
        if not self.bare and not carries(panel):
            raise OutputError(f"{panel.title} is cut along a curved line: a tab and trim marks need straight ends.")


def carries(panel: Panel) -> bool:
    """Return whether a panel's print has two straight ends, as a rectangle or part of a ring has."""
    return panel.cone is not None or panel.shape == "rectangle"


def _ends(panel: Panel) -> tuple[tuple[Point, Point], tuple[Point, Point]]:
    """Return the left and right end of a print, each from its upper to its lower corner, in mm of the trim."""
    if panel.cone is None:
        (w, h), b = panel.trim_mm, panel.bleed_mm
        return ((-b, -b), (-b, h + b)), ((w + b, -b), (w + b, h + b))
    cone = panel.cone
    left, right = (
        tuple((float(x), float(y)) for x, y in (cone.to_flat(at, 0.0), cone.to_flat(at, cone.slant_mm)))
        for at in (0.0, cone.round_mm)
    )
    return left, right  # type: ignore[return-value]  # two corners each


def tab_of(panel: Panel, carrier: Carrier) -> list[Point]:
    """Return the tab's corners in mm of the trim; empty without a tab."""
    if carrier.tab == "none" or not carrier.tab_mm:
        return []
    left, right = _ends(panel)
    (x0, y0), (x1, y1) = left if carrier.tab == "left" else right
    long = math.hypot(x1 - x0, y1 - y0)
    away = carrier.tab_mm / long * (1 if carrier.tab == "left" else -1)
    nx, ny = -(y1 - y0) * away, (x1 - x0) * away
    return [(x0, y0), (x1, y1), (x1 + nx, y1 + ny), (x0 + nx, y0 + ny)]


def marks_of(panel: Panel, carrier: Carrier) -> list[Segment]:
    """Return the trim marks in mm of the trim, above and below both ends of the print."""
    if not carrier.marks:
        return []
    marks = []
    gap = MARK_GAP_MM if panel.cone is not None else 0.0
    for (x0, y0), (x1, y1) in _ends(panel):
        long = math.hypot(x1 - x0, y1 - y0)
        ux, uy = (x1 - x0) / long, (y1 - y0) / long
        for x, y, way in ((x0, y0, -1.0), (x1, y1, 1.0)):
            near, far = way * gap, way * (gap + MARK_LONG_MM)
            marks.append((x + ux * near, y + uy * near, x + ux * far, y + uy * far))
    return marks


def margins_mm(panel: Panel, carrier: Carrier) -> Margins:
    """Return the paper added left, top, right and below, before the file is mirrored."""
    if panel.cone is None:
        end = MARKS_MM if carrier.marks else 0.0
        return carrier.tab_mm * (carrier.tab == "left"), end, carrier.tab_mm * (carrier.tab == "right"), end
    points = tab_of(panel, carrier) + [p for x0, y0, x1, y1 in marks_of(panel, carrier) for p in ((x0, y0), (x1, y1))]
    if not points:
        return 0.0, 0.0, 0.0, 0.0
    x, y, w, h = panel.file_box
    xs, ys = zip(*points, strict=True)
    return max(0.0, x - min(xs)), max(0.0, y - min(ys)), max(0.0, max(xs) - x - w), max(0.0, max(ys) - y - h)


def _strip(width: int, height: int, at: tuple[int, int], per_mm: tuple[float, float], up: bool) -> pyvips.Image:
    """Return a strip of white paper with one upright mark at either end of the print."""
    strip = pyvips.Image.black(width, height, bands=3).invert()
    wide, long = max(1, round(MARK_WIDE_MM * per_mm[0])), min(height, round(MARK_LONG_MM * per_mm[1]))
    ink = pyvips.Image.black(wide, long, bands=3)
    for left in (max(0, at[0] - wide), min(width - wide, at[1])):
        strip = strip.insert(ink, left, 0 if up else height - long)
    return strip.copy(interpretation="srgb")


def on_carrier(image: pyvips.Image, margins_px: tuple[int, int, int, int], per_mm: tuple[float, float]) -> pyvips.Image:
    """Place a straight print on white paper; bare parts of the print are paper too."""
    left, top, right, below = margins_px
    image = image.flatten(background=[255, 255, 255]) if image.hasalpha() else image
    w = left + image.width + right
    image = image.embed(left, 0, w, image.height, extend="white")
    ends = (left, w - right)
    for height, up in ((top, False), (below, True)):
        if height:
            strip = _strip(w, height, ends, per_mm, up)
            image = image.join(strip, "vertical") if up else strip.join(image, "vertical")
    return image


def on_ring_carrier(image: pyvips.Image, panel: Panel, carrier: Carrier, margins_px: tuple[int, int, int, int]) -> pyvips.Image:
    """Add the tab beside one end of a ring, with its cutting line and marks, and keep the rest transparent."""
    left, top, right, below = margins_px
    size = (left + image.width + right, top + image.height + below)
    per_mm = image.width / panel.file_mm[0], image.height / panel.file_mm[1]
    shift = left / per_mm[0] + panel.bleed_mm, top / per_mm[1] + panel.bleed_mm
    sheet = Panel("sheet", "Sheet", (size[0] / per_mm[0], size[1] / per_mm[1]))
    line = f'stroke="#1a1a1a" stroke-width="{MARK_WIDE_MM}"'
    tab = " ".join(f"{x:.4f},{y:.4f}" for x, y in tab_of(panel, carrier))
    body = f'<polygon points="{tab}" fill="#fff" {line}/>' if tab else ""
    body += "".join(f'<path d="M{a:.4f} {b:.4f}L{c:.4f} {d:.4f}" {line}/>' for a, b, c, d in marks_of(panel, carrier))
    paper = drawn(f'<g transform="translate({shift[0]:.5f} {shift[1]:.5f})">{body}</g>', (0, 0, *size), sheet, size)
    wide = with_alpha(image).embed(left, top, *size, extend="background", background=TRANSPARENT)
    return as_bytes(paper.composite2(wide, "over"))
