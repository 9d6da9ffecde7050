"""Where a shape that is cut out along its own artwork is sewn, and where it is cut: for pictures and print files alike."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray

from ..artwork.pixels import as_array
from ..colour import lab
from ..design import Design
from ..template import Panel
from . import Opener, render_level

Floats = NDArray[np.float32]
Ring = list[tuple[float, float]]

CONTOUR_PX = 900
"""Width at which the contour is found; it is right to about a tenth of a pixel."""

SOLID = 128
"""Alpha from which a point belongs to the shape."""

OWN_BORDER_MM = 4.0
"""An even rim of at least this width is the artwork's own border: nothing is added round it. From memory."""

EVEN_STEP, EVEN_SHARE = 8.0, 0.97
"""Lab distance within which points of a border are alike, and the share of them that must be."""

BORDER_SHARE = 0.4
"""Of the way from a shape's contour to its middle: what is even further than that is the motif itself. From memory."""

EDGE_PX = 1.5
"""Points nearer to the contour are mixed with what is beyond it."""


@dataclass(frozen=True)
class CutShape:
    """The shape of a cut-out in mm of its panel's trim, y down.

    Attributes:
        sewn: what the buyer sees: the contour of what is printed, with a border where the artwork has none of its own.
        cut: the same with the sewing allowance, inside the trim.
    """

    sewn: shapely.Geometry
    cut: shapely.Geometry


def _depth(solid: NDArray[np.bool_]) -> Floats:
    """Return how deep in px each point lies in a shape (h, w), which ends at the picture's edges."""
    padded = np.pad(solid, 1).astype(np.uint8)
    return np.asarray(cv2.distanceTransform(padded, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)[1:-1, 1:-1], np.float32)


def border_width(colours: Floats, solid: NDArray[np.bool_], px_per_mm: float) -> float:
    """Return the width in mm of the even border along the inside of a shape, 0 where it has none.

    Args:
        colours: Lab, (h, w, 3).
        solid: the shape, (h, w).
        px_per_mm: of both.
    """
    deep = _depth(solid)
    rim = (deep > EDGE_PX) & (deep <= EDGE_PX + px_per_mm)
    if not rim.any():
        return 0.0
    alike = np.linalg.norm(colours - np.median(colours[rim], axis=0), axis=2) < EVEN_STEP
    most = int(deep.max())
    inside = np.minimum(deep.astype(int), most)
    total = np.bincount(inside[deep > EDGE_PX], minlength=most + 1)
    even = np.bincount(inside[alike & (deep > EDGE_PX)], minlength=most + 1)
    broken = np.flatnonzero((total > 0) & (even < EVEN_SHARE * total))
    wide = float(broken[0] if len(broken) else most)
    return wide / px_per_mm if wide < BORDER_SHARE * deep.max() else 0.0


def within_border(colours: Floats, solid: NDArray[np.bool_], px_per_mm: float) -> NDArray[np.bool_]:
    """Return a shape (h, w) without its own even border; the whole shape where it has none."""
    wide = border_width(colours, solid, px_per_mm) * px_per_mm
    return np.asarray(_depth(solid) > wide + EDGE_PX) if wide else solid


def cut_shape(design: Design, open_art: Opener) -> CutShape:
    """Return where a design is sewn and cut; the whole panel where nothing is printed or no part of it is bare."""
    panel = design.panel
    w, h = panel.trim_mm
    whole = shapely.box(0, 0, w, h)
    image = as_array(render_level(design, open_art, (CONTOUR_PX, max(8, round(CONTOUR_PX * h / w)))))
    if image.shape[2] < 4 or not (solid := image[..., 3] >= SOLID).any() or solid.all():
        return CutShape(whole, whole)
    per_mm = CONTOUR_PX / w
    bordered = border_width(lab(np.ascontiguousarray(image[..., :3])), solid, per_mm) >= OWN_BORDER_MM
    grown = 0.0 if bordered else panel.safe_mm
    sewn = shapely.union_all([shapely.Polygon(ring) for ring in _rings(solid, grown * per_mm, 1 / per_mm)])
    sewn = sewn.intersection(whole)
    return CutShape(sewn, sewn.buffer(panel.allowance_mm, quad_segs=32).intersection(whole))


def _rings(solid: NDArray[np.bool_], grown_px: float, mm: float) -> Iterator[Ring]:
    """Return the outer lines of a shape that is grown by a distance and rounded, in mm; ``mm`` is the size of a pixel."""
    pad = int(grown_px) + 8
    field = np.pad(solid, pad).astype(np.uint8)
    outside, inside = (cv2.distanceTransform(side, cv2.DIST_L2, cv2.DIST_MASK_PRECISE) for side in (1 - field, field))
    sharp = (np.where(field, 0.5 - inside, outside - 0.5) - grown_px).astype(np.float32)
    away: Floats = np.asarray(cv2.GaussianBlur(sharp, (0, 0), 0.15 * grown_px + 1.0), np.float32)
    down, right = (np.asarray(slope, np.float32) for slope in np.gradient(away))
    lines, _ = cv2.findContours((away < 0).astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    for line in lines:
        column, row = line[:, 0].T
        if len(column) < 4:
            continue
        slope = np.stack([right[row, column], down[row, column]], -1)
        step = away[row, column] / np.maximum((slope**2).sum(axis=1), 0.2)
        at: Floats = (np.stack([column, row], -1) - step[:, None] * slope + 0.5 - pad) * mm
        ring = shapely.Polygon(at).buffer(0)
        for part in getattr(ring, "geoms", [ring]):
            yield list(part.exterior.coords)


def rings_of(shape: shapely.Geometry) -> list[Ring]:
    """Return the lines of a shape in mm, outer ones and those of holes."""
    parts = getattr(shape, "geoms", [shape])
    return [list(ring.coords) for part in parts for ring in (part.exterior, *part.interiors)]


def mask_of(shape: shapely.Geometry, panel: Panel, width_px: int) -> NDArray[np.bool_]:
    """Return a shape as a mask of its panel's trim, ``width_px`` wide."""
    w, h = panel.trim_mm
    per_mm = width_px / w
    mask = np.zeros((max(8, round(per_mm * h)), width_px), np.uint8)
    lines = [np.round((np.array(ring) * per_mm - 0.5) * 16).astype(np.int32) for ring in rings_of(shape)]
    cv2.fillPoly(mask, lines, 1, shift=4)
    return mask.astype(bool)
