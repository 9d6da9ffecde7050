"""Outlines of soft goods lying flat, in mm: x right, y down; x = 0 at the middle of the neck or of the trim."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ...template import Box, Panel

Outline = NDArray[np.float64]


@dataclass(frozen=True)
class Part:
    """A piece of cloth; later parts lie over earlier ones.

    Attributes:
        puff_mm: how high it stands in its middle, and ``soft_mm`` over what width its edge rises.
        shade: times the cloth's own reflectance: ribbing is darker, the inside of a hood much darker.
        folds: strength of its folds, 1 for hanging cloth.
        print: the panel that lies on it and where, or None.
        stitch_mm: a seam line this far inside its edge; 0 for none.
    """

    outline: Outline
    puff_mm: float = 9.0
    soft_mm: float = 20.0
    shade: float = 1.0
    folds: float = 1.0
    print: tuple[str, Box] | None = None
    stitch_mm: float = 0.0


def bow(*points: tuple[float, float], steps: int = 14) -> list[tuple[float, float]]:
    """Return a smooth curve through points (centripetal Catmull-Rom), ends included."""
    p = [points[0], *points, points[-1]]
    out: list[tuple[float, float]] = []
    for i in range(1, len(p) - 2):
        a, b, c, d = (np.array(q, float) for q in p[i - 1 : i + 3])
        for t in np.linspace(0, 1, steps, endpoint=False):
            q = 0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t**2 + (3 * b - a - 3 * c + d) * t**3)
            out.append((float(q[0]), float(q[1])))
    return [*out, points[-1]]


def both(left: list[tuple[float, float]]) -> Outline:
    """Close a left half, from the top centre to the bottom centre, with its mirror image."""
    return np.array(left + [(-x, y) for x, y in reversed(left)], float)


def rounded(box: Box, radius: float) -> Outline:
    """Return a box with rounded corners."""
    x, y, w, h = box
    r = min(radius, w / 2, h / 2)
    angle = np.linspace(0, np.pi / 2, 10)
    corners = ((x + w - r, y + r, -90), (x + w - r, y + h - r, 0), (x + r, y + h - r, 90), (x + r, y + r, 180))
    return np.concatenate(
        [
            np.stack([cx + r * np.cos(angle + np.radians(turn)), cy + r * np.sin(angle + np.radians(turn))], -1)
            for cx, cy, turn in corners
        ]
    )


def _on_chest(panel: Panel, top: float) -> tuple[str, Box]:
    w, h = panel.trim_mm
    return panel.id, (-w / 2, top, w, h)


def shirt(panel: Panel, back: bool) -> list[Part]:
    """Return a T-shirt with its sleeves as separate parts."""
    dip = 22.0 if back else 92.0
    neck = bow((-92, 0), (-62, dip * 0.72), (0, dip))
    body = both(
        [*reversed(neck), *bow((-92, 0), (-170, 22), (-238, 48)), *bow((-262, 215), (-266, 420), (-262, 705)), (0, 714)]
    )
    sleeve = np.array(
        [
            *bow((-226, 42), (-320, 130), (-402, 232)),
            *bow((-402, 232), (-366, 262), (-334, 280)),
            *bow((-262, 222), (-250, 130), (-226, 42)),
        ]
    )
    hem = both([(0, 694), (-262, 686), (-262, 706), (0, 715)])
    inside = both([*bow((0, 16), (-60, 10), (-92, 0)), *reversed(neck[:-1]), (0, dip)]) if not back else None
    collar_out = [*bow((-100, 3), (-68, dip * 0.72 + 16), (0, dip + 17))]
    collar = both([*reversed(neck), *collar_out]) if back else both([(0, dip), *reversed(neck), (-101, 4), *collar_out])
    parts = [Part(sleeve, folds=0.8, stitch_mm=16), Part(sleeve * [-1, 1], folds=0.8, stitch_mm=16)]
    if inside is not None:
        parts.append(Part(inside, puff_mm=2, shade=0.62, folds=0.3))
    return [
        *parts,
        Part(body, print=_on_chest(panel, 118 if not back else 70)),
        Part(hem, 1.5, 4, 0.985, 0.5),
        Part(collar, 3.5, 7, 0.97, 0.2),
    ]


def hoodie(panel: Panel, back: bool) -> list[Part]:
    """Return a hoodie with ribbing, a pocket and a hood that is open at the front."""
    hood = both([*bow((0, -225), (-80, -212), (-142, -130), (-138, -10), (-96, 74)), (0, 92)])
    body = both([(0, 14), *bow((-100, 16), (-180, 44), (-240, 84)), *bow((-276, 290), (-280, 470), (-272, 640)), (0, 648)])
    rib = both([(0, 640), (-268, 634), *bow((-264, 640), (-258, 690), (-250, 708)), (0, 716)])
    sleeve = np.array(
        [
            *bow((-222, 72), (-300, 150), (-372, 360), (-414, 580)),
            *bow((-414, 580), (-380, 594), (-338, 594)),
            *bow((-300, 430), (-274, 300), (-226, 160), (-222, 72)),
        ]
    )
    cuff = np.array([*bow((-414, 576), (-418, 610), (-416, 650)), (-350, 660), *bow((-342, 630), (-338, 592))])
    mirror = [-1, 1]
    parts = [
        Part(sleeve, 13, 26),
        Part(sleeve * mirror, 13, 26),
        Part(cuff, 8, 12, 0.94, 0.4),
        Part(cuff * mirror, 8, 12, 0.94, 0.4),
        Part(rib, 7, 10, 0.94, 0.4),
        Part(body, 12, 26, print=_on_chest(panel, 112 if not back else 96)),
    ]
    if back:
        return [*parts, Part(both([*bow((0, -170), (-90, -150), (-132, -40), (-120, 60)), (0, 86)]), 18, 34)]
    pocket = both([(0, 452), (-112, 452), *bow((-112, 452), (-150, 520), (-182, 560)), (-182, 634), (0, 638)])
    mouth = both([*bow((0, -120), (-44, -108), (-74, -52), (-62, 20)), (0, 78)])
    cords = [
        Part(np.array([[x - 3.2, 66], [x + 3.2, 66], [x + 2.2 + s, 226], [x - 4.2 + s, 226]]), 3.4, 3, 1.02, 0)
        for x, s in ((-40, -6), (40, 8))
    ]
    return [*parts, Part(pocket, 6, 9, stitch_mm=9), Part(hood, 17, 30), Part(mouth, 2, 8, 0.34, 0.3), *cords]


def arranged(panels: tuple[Panel, ...], gap: float = 50.0, aspect: float = 1.1) -> list[tuple[Panel, float, float]]:
    """Arrange panels as cut in rows that fill a square picture, each with the position of its trim's corner."""

    def rows(width: float) -> tuple[list[tuple[Panel, float, float]], float, float]:
        placed, x, y, tall, widest = [], 0.0, 0.0, 0.0, 0.0
        for panel in panels:
            w, h = panel.trim_mm
            if x and x + w > width:
                x, y, tall = 0.0, y + tall + gap, 0.0
            placed.append((panel, x, y))
            x, tall = x + w + gap, max(tall, h)
            widest = max(widest, x - gap)
        return placed, widest, y + tall

    total = sum(p.trim_mm[0] + gap for p in panels)
    tries = [rows(width) for width in np.linspace(max(p.trim_mm[0] for p in panels), total, 24)]
    placed, w, h = min(tries, key=lambda t: max(t[1] / aspect, t[2]))
    return [(p, x - w / 2, y - h / 2) for p, x, y in placed]
