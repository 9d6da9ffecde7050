"""Find rows of lettering by parts that stand side by side, with their height and thinnest strokes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from .content import BARE_ALPHA

STEP = 14.0
"""Lightness difference between a letter and its surroundings. From memory."""

LEAST_HEIGHT_PX = 4
LARGEST_SHARE = 0.09
"""Letters higher than this share of the print count as drawing; they are never too small."""

LEAST_LETTERS = 4
LEAST_VARIETY = 0.1
"""Spread of most widths divided by the median: windows, dots and fence posts have nearly equal widths, letters do not."""

MOST_PARTS = 1500
BESIDE = 0.75
LEAST_RIDGE_PX = 12


@dataclass(frozen=True)
class Row:
    """A row of lettering in pixels: its box (x, y, w, h), letter height and stroke width."""

    box: tuple[int, int, int, int]
    height_px: float
    stroke_px: float


def _parts(mask: NDArray[np.uint8], tallest: float) -> tuple[NDArray[np.int32], NDArray[np.int32]]:
    """Return the connected parts that might be letters: stats (n, 5) of x, y, w, h, area, and the label image."""
    _, labels, stats, _ = cv2.connectedComponentsWithStats(mask, connectivity=8)
    _, _, w, h, area = stats.T
    fill = area / np.maximum(1, w * h)
    good = (h >= LEAST_HEIGHT_PX) & (h <= tallest) & (w >= 0.1 * h) & (w <= 1.8 * h) & (fill > 0.15) & (area >= 5)
    good[0] = False
    index = np.flatnonzero(good)
    if len(index) > MOST_PARTS:
        index = index[np.argsort(h[index])[:MOST_PARTS]]
    return np.column_stack([stats[index], index]).astype(np.int32), np.asarray(labels, np.int32)


def _chains(parts: NDArray[np.int32]) -> list[NDArray[np.int64]]:
    """Group parts into rows: similar in height, on one line, close to each other."""
    x, y, w, h = (parts[:, i].astype(np.float32) for i in range(4))
    cx, foot = x + w / 2, y + h
    apart = np.abs(cx[:, None] - cx) - (w[:, None] + w) / 2
    tall = np.maximum(h[:, None], h)
    near = (
        (np.abs(foot[:, None] - foot) < 0.3 * tall)
        & (np.minimum(h[:, None], h) > 0.55 * tall)
        & (apart < 0.9 * tall)
        & (apart > -0.3 * tall)
    )
    np.fill_diagonal(near, False)
    label = np.arange(len(parts))
    for _ in range(len(parts)):
        spread = np.where(near, label[None, :], len(parts)).min(axis=1, initial=len(parts))
        lower = np.minimum(label, spread)
        if (lower == label).all():
            break
        label = lower
    return [group for k in np.unique(label) if len(group := np.flatnonzero(label == k)) >= LEAST_LETTERS]


def _row(parts: NDArray[np.int32], labels: NDArray[np.int32], lightness: Floats) -> Row | None:
    x, y, w, h = (parts[:, i] for i in range(4))
    narrow, wide = np.percentile(w, (15, 85))
    if wide - narrow < LEAST_VARIETY * np.median(w):
        return None
    box = (int(x.min()), int(y.min()), int((x + w).max() - x.min()), int((y + h).max() - y.min()))
    bx, by, bw, bh = box
    window = np.isin(labels[by : by + bh, bx : bx + bw], parts[:, 5])
    # Letters differ from the surroundings of their row; the spaces between and inside letters do not.
    margin = max(2, bh // 2)
    outer = lightness[max(0, by - margin) : by + bh + margin, max(0, bx - margin) : bx + bw + margin]
    inner = lightness[by : by + bh, bx : bx + bw]
    around = (float(outer.sum()) - float(inner.sum())) / max(1, outer.size - inner.size)
    if abs(around - float(np.median(inner[window]))) < STEP:
        return None
    return Row(box, float(np.median(h)), thinnest_px(window))


def find_rows(lightness: Floats, alpha: NDArray[np.uint8] | None = None) -> list[Row]:
    """Find rows of lettering in a picture: L* (h, w), and alpha (h, w) if there is any."""
    tall, wide = lightness.shape
    window = max(15, round(0.05 * min(tall, wide))) | 1
    around = cv2.blur(lightness, (window, window))
    printed = None if alpha is None else alpha >= BARE_ALPHA
    groups: list[list[Row]] = []
    for way in (-1, 1):
        stands: Any = (lightness - around) * way > STEP
        mask = (stands if printed is None else stands & printed).astype(np.uint8)
        parts, labels = _parts(mask, LARGEST_SHARE * tall)
        chains = _chains(parts) if len(parts) >= LEAST_LETTERS else []
        groups.append([row for chain in chains if (row := _row(parts[chain], labels, lightness)) is not None])
    return [row for rows in groups for row in rows]


def thinnest_px(mask: NDArray[np.bool_]) -> float:
    """Return the width in pixels of a shape's thinnest strokes: the tenth percentile along its middle lines.

    The middle lines are the ridges of the exact Euclidean distance to the outside (OpenCV's precise transform).
    Ridges that run into a corner are left out: something thicker lies beside them.
    """
    grown = np.pad(mask.astype(np.uint8), 1)
    inside = cv2.distanceTransform(grown, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    ridge = (inside > 0) & (inside >= cv2.dilate(inside, np.ones((3, 3), np.uint8)) - 1e-6)
    ridge &= inside > BESIDE * cv2.dilate(inside, np.ones((9, 9), np.uint8))
    if int(ridge.sum()) < LEAST_RIDGE_PX:
        return 0.0
    return float(np.percentile(2 * inside[ridge] - 1, 10))
