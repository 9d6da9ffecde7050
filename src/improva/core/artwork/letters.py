"""Find the parts of a picture that could be letters, and group those that stand in a row."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from ..colour import Floats

Bytes = NDArray[np.uint8]

STABLE_STEPS = 12
"""Steps of 255 over which a region must keep its shape."""

MOST_VARIATION = 0.5
LARGEST_AREA = 0.012
LARGEST_SHARE = 0.12
"""Letters higher than this share of the print count as drawing; they are never too small."""

LEAST_HEIGHT_PX = 4
LEAST_PICTURE_PX = 16
"""A picture lower or narrower than this holds no words that could be read."""

LEAST_AREA_PX = 8
LEAST_CONTRAST = 18
"""Steps of 255 between a letter and what lies around it."""

WIDEST = 14
"""Width of a part in heights: the letters of a joined script are one part."""

MOST_REGIONS = 8000
MOST_PARTS = 1500
LEAST_LETTERS = 3
LEAST_VARIETY = 0.1
"""Smallest spread of most values in a row, divided by the median."""


@dataclass(frozen=True)
class Part:
    """A region that could be a letter, or some joined ones.

    Attributes:
        box: x, y, width and height in px.
        mask: (h, w) bool within the box.
        light, contrast: its median lightness of 255, and that less the median right around it.
        stroke_px, ridge_px: the median width of its strokes, and the length of their middle lines.
    """

    box: tuple[int, int, int, int]
    mask: NDArray[np.bool_]
    light: float
    contrast: float
    stroke_px: float
    ridge_px: float


def _part(region: NDArray[np.int32], box: tuple[int, int, int, int], grey: Bytes) -> Part | None:
    x, y, w, h = box
    mask = np.zeros((h + 4, w + 4), np.uint8)
    mask[region[:, 1] - y + 2, region[:, 0] - x + 2] = 1
    top, left = 2 - min(2, y), 2 - min(2, x)
    seen = grey[max(0, y - 2) : y + h + 2, max(0, x - 2) : x + w + 2]
    within = mask[top : top + seen.shape[0], left : left + seen.shape[1]]
    ring = (cv2.dilate(within, np.ones((5, 5), np.uint8)) > 0) & (cv2.dilate(within, np.ones((3, 3), np.uint8)) == 0)
    if np.count_nonzero(ring) < 4:
        return None
    light = float(np.median(seen[within > 0]))
    contrast = light - float(np.median(seen[ring]))
    if abs(contrast) <= LEAST_CONTRAST:
        return None
    inside = cv2.distanceTransform(mask, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    ridge = (inside > 0) & (inside >= cv2.dilate(inside, np.ones((3, 3), np.uint8)) - 1e-6)
    widths = 2 * inside[ridge] - 1
    return Part(box, mask[2:-2, 2:-2] > 0, light, contrast, float(np.median(widths)), float(len(widths)))


@dataclass(frozen=True)
class Parts:
    """Parts with their measures as columns: x, y, width, height, area, light, contrast, stroke and ridge."""

    each: list[Part]

    @cached_property
    def table(self) -> Floats:
        """Return (n, 9) values in the order above."""
        rows = [(*p.box, np.count_nonzero(p.mask), p.light, p.contrast, p.stroke_px, p.ridge_px) for p in self.each]
        return np.array(rows, np.float32).reshape(-1, 9)

    @property
    def extent(self) -> tuple[int, int, int, int]:
        """Return the box around all parts: x, y, width and height in px."""
        x, y, w, h = self.table[:, :4].T
        return int(x.min()), int(y.min()), int((x + w).max() - x.min()), int((y + h).max() - y.min())

    def taken(self, index: NDArray[Any]) -> Parts:
        """Return some of the parts."""
        return Parts([self.each[i] for i in index])


def _outermost(parts: Parts) -> NDArray[np.int64]:
    """Return one of each set of nested regions of the same sign: the one with the strongest contrast."""
    x, y, w, h, _, _, contrast, _, _ = parts.table.T
    area, sign = w * h, np.sign(contrast)
    gone, kept = np.zeros(len(x), bool), []
    for i in np.argsort(-np.abs(contrast)):
        if gone[i]:
            continue
        kept.append(i)
        across = np.minimum(x + w, x[i] + w[i]) - np.maximum(x, x[i])
        down = np.minimum(y + h, y[i] + h[i]) - np.maximum(y, y[i])
        shared = np.clip(across, 0, None) * np.clip(down, 0, None)
        less, more = np.minimum(area, area[i]), np.maximum(area, area[i])
        gone |= (shared > 0.7 * less) & (sign == sign[i]) & (less > 0.3 * more)
    return np.array(kept, np.int64)


def find_parts(grey: Bytes, printed: NDArray[np.bool_] | None = None) -> Parts:
    """Return the parts of a picture that could be letters.

    They are maximally stable extremal regions (J. Matas, O. Chum, M. Urban and T. Pajdla, "Robust wide baseline stereo
    from maximally stable extremal regions", BMVC 2002), in OpenCV's version.

    Args:
        grey: (h, w) lightness of 255.
        printed: (h, w) where there is ink; elsewhere nothing counts.
    """
    height, width = grey.shape
    if min(height, width) < LEAST_PICTURE_PX:
        return Parts([])
    finder = cv2.MSER.create(
        delta=STABLE_STEPS,
        min_area=LEAST_AREA_PX,
        max_area=max(60, int(LARGEST_AREA * grey.size)),
        max_variation=MOST_VARIATION,
        min_diversity=0.0,
    )
    regions, boxes = finder.detectRegions(grey)
    if not len(regions):
        return Parts([])
    x, y, w, h = np.asarray(boxes).T
    areas = np.array([len(region) for region in regions])
    fits = (h >= LEAST_HEIGHT_PX) & (h <= LARGEST_SHARE * height) & (w <= WIDEST * h) & (w >= 0.08 * h)
    fits &= (x > 0) & (y > 0) & (x + w < width) & (y + h < height) & (areas >= 0.1 * w * h)
    found = []
    for i in np.flatnonzero(fits)[:MOST_REGIONS]:
        region = np.asarray(regions[int(i)])
        if printed is not None and printed[region[:, 1], region[:, 0]].mean() < 0.5:
            continue
        part = _part(region, (int(x[i]), int(y[i]), int(w[i]), int(h[i])), grey)
        if part is not None:
            found.append(part)
    parts = Parts(found)
    return parts.taken(_outermost(parts)[:MOST_PARTS]) if found else parts


def letters_in(table: Floats) -> float:
    """Return how many letters parts are worth: a joined script counts one for each three quarters of its height."""
    return float(np.maximum(1, table[:, 2] / (0.75 * table[:, 3])).sum())


def chains(parts: Parts) -> list[NDArray[np.int64]]:
    """Group parts into rows: on one line, close to each other, alike in height, lightness and stroke.

    The conditions are those of B. Epshtein, E. Ofek and Y. Wexler, "Detecting text in natural scenes with stroke width
    transform", CVPR 2010, section 3.3, with limits of our own.
    """
    x, y, w, h, _, light, contrast, stroke, _ = parts.table.T
    middle, foot = x + w / 2, y + h
    apart = np.abs(middle[:, None] - middle) - (w[:, None] + w) / 2
    tall, low = np.maximum(h[:, None], h), np.minimum(h[:, None], h)
    near = (np.abs(foot[:, None] - foot) < 0.3 * tall) | (np.abs(y[:, None] - y) < 0.25 * tall)
    near &= (low > 0.4 * tall) & (apart < low) & (apart > -0.35 * low)
    weaker = np.minimum(np.abs(contrast)[:, None], np.abs(contrast))
    near &= (np.sign(contrast)[:, None] == np.sign(contrast)) & (np.abs(light[:, None] - light) < 0.35 * weaker + 6)
    near &= np.maximum(stroke[:, None], stroke) < 2.2 * np.minimum(stroke[:, None], stroke) + 1
    ones = np.nonzero(near)
    count, label = connected_components(coo_matrix((np.ones(len(ones[0]), bool), ones), shape=near.shape), directed=False)
    order = np.argsort(label, kind="stable")
    groups = np.split(order, np.searchsorted(label[order], np.arange(1, count)))
    return [group for group in groups if letters_in(parts.table[group]) >= LEAST_LETTERS and _varied(parts.table[group])]


def _varied(table: Floats) -> bool:
    """Return whether widths, or shares of the box that is filled, differ as those of letters do.

    Windows, dots and fence posts are nearly equal; letters of one width still fill their boxes differently.
    """
    _, _, w, h, area, *_ = table.T
    spreads = [np.ptp(np.percentile(values, (15, 85))) / np.median(values) for values in (w, area / (w * h))]
    return len(table) < LEAST_LETTERS or max(spreads) >= LEAST_VARIETY
