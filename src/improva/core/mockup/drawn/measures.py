"""Dimensions shown on a drawn scene: those of the print, or of a cut-out's contour."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from ...template import Panel, Template
from ..scene import Measure
from .body import body_figures
from .camera import Camera
from .flat_lay import Table
from .round_body import SAMPLES

AIR = 0.04
"""Distance between a blank and its dimension line, in picture heights."""
BESIDE, BELOW = 0.06, 0.07
"""Distance of the height line beside a round blank and of the width line under its foot, in heights of the blank."""


def turned_measures(template: Template, px: tuple[int, int], angle_deg: float) -> tuple[Measure, ...]:
    """Return the print's height and the foot's diameter, placed beside a blank whose handle, if any, points to ``angle_deg``."""
    body = body_figures(template)
    camera = Camera(body, px, body.handle_reach(angle_deg))
    side = (-1 if body.handle_reach(angle_deg) > 0 else 1) * (body.widest + BESIDE * body.full)
    low, high = body.below, body.below + body.height
    foot, under = body.radius(0), -BELOW * body.full
    points = np.array([(side, 0, low), (side, 0, high), (-foot, 0, under), (foot, 0, under)])
    ends = [(float(x), float(y)) for x, y in camera.seen(points)]
    return (
        Measure("Print height", template.panels[0].level().trim_mm[1], ends[0], ends[1]),
        Measure("Diameter", 2 * foot, ends[2], ends[3]),
    )


def laid_measures(panel: Panel, table: Table, cut: NDArray[np.bool_] | None) -> tuple[Measure, ...]:
    """Measure the width and height of a panel that lies flat, or of the shape ``cut`` (h, w) out of it."""
    w, h = panel.trim_mm
    x0, y0, x1, y1 = 0.0, 0.0, 1.0, 1.0
    if cut is not None and cut.any():
        ys, xs = np.flatnonzero(cut.any(axis=1)), np.flatnonzero(cut.any(axis=0))
        x0, x1 = xs[0] / cut.shape[1], (xs[-1] + 1) / cut.shape[1]
        y0, y1 = ys[0] / cut.shape[0], (ys[-1] + 1) / cut.shape[0]
    left, right, top, foot = (x0 - 0.5) * w, (x1 - 0.5) * w, (y0 - 0.5) * h, (y1 - 0.5) * h
    air = AIR * table.h * table.mm

    def line(title: str, start: tuple[float, float], end: tuple[float, float]) -> Measure:
        a, b = table.px(np.array([start, end])) / SAMPLES
        return Measure(title, math.dist(start, end), (float(a[0]), float(a[1])), (float(b[0]), float(b[1])))

    return (line("Width", (left, foot + air), (right, foot + air)), line("Height", (left - air, foot), (left - air, top)))
