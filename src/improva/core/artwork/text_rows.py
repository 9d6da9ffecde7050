"""Find rows of lettering in a picture, with their height and thinnest strokes."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from .content import BARE_ALPHA
from .letters import Bytes, Part, Parts, chains, find_parts, letters_in
from .row_model import THRESHOLD, score

BESIDE = 0.75
LEAST_RIDGE_PX = 12


@dataclass(frozen=True)
class Row:
    """A row of lettering in pixels: its box (x, y, w, h), letter height and stroke width."""

    box: tuple[int, int, int, int]
    height_px: float
    stroke_px: float


def gradient_of(grey: Bytes) -> Floats:
    """Return the strength of the steps between neighbouring pixels, (h, w), by Scharr's filter."""
    across, down = (cv2.Scharr(grey, cv2.CV_32F, *way) / 16 for way in ((1, 0), (0, 1)))
    return np.asarray(cv2.magnitude(across, down), np.float32)


def measures_of(parts: Parts, every: Floats, gradient: Floats) -> Floats:
    """Return what tells a row of lettering from other rows of parts, in the order of :data:`MEASURES`.

    Args:
        parts: the row's parts.
        every: the table of all parts of the picture (see :class:`Parts`).
        gradient: see :func:`gradient_of`.
    """
    row = parts.table[np.argsort(parts.table[:, 0])]
    x, y, w, h, area, _, contrast, stroke, ridge = row.T
    size, step = float(np.median(h)), max(1.0, float(np.median(np.abs(contrast))))
    left, top, across, down = parts.extent
    margin = max(2, int(size / 4))
    window = np.s_[max(0, top - margin) : top + down + margin, max(0, left - margin) : left + across + margin]
    steps = gradient[window]
    beside = np.ones(steps.shape, bool)
    for px, py, pw, ph in row[:, :4].astype(int) - (window[1].start, window[0].start, 0, 0):
        beside[max(0, py - 2) : py + ph + 2, max(0, px - 2) : px + pw + 2] = False
    reach = 1.5 * size
    ex, ey, ew, eh = every[:, :4].T
    close = (ex + ew > left - reach) & (ex < left + across + reach) & (ey + eh > top - reach) & (ey < top + down + reach)
    close &= (eh > 0.3 * size) & (eh < 3 * size)
    centres, ends = x + w / 2, np.maximum.accumulate(x + w)
    pitch = np.diff(centres)
    gaps = (x[1:] - ends[:-1]) / size if len(row) > 1 else np.zeros(1)
    feet, heads = 0.0, float(np.median(np.abs(y - np.median(y)))) / size
    if len(row) > 2:
        feet = float(np.median(np.abs(y + h - np.polyval(np.polyfit(centres, y + h, 1), centres)))) / size
    letters = letters_in(row)
    return np.array(
        [
            float(np.median(np.abs(pitch - np.median(pitch)))) / max(float(np.median(pitch)), 1) if len(row) > 2 else 0.2,
            float(np.percentile(steps, 97)) / step,
            float(steps[beside].mean()) / step if np.count_nonzero(beside) > 20 else 0.0,
            np.log((np.count_nonzero(close) - len(row) + 1) / len(row)),
            np.log(max(letters / len(row), 1)),
            np.median(ridge / h),
            np.log(letters),
            np.log(step),
            min(feet, heads),
            np.median(area / (w * h)),
            np.median(stroke / h),
            np.std(gaps),
            np.median(gaps),
            np.log(size),
        ],
        np.float32,
    )


def _to_half(part: Part, grey: Bytes) -> tuple[int, int, NDArray[np.bool_]]:
    """Return a letter up to where half of its contrast is left, as its edge is printed: left, top and mask.

    A stable region ends a little inside its edge.
    """
    x, y, w, h = part.box
    left, top = max(0, x - 1), max(0, y - 1)
    seen = grey[top : y + h + 1, left : x + w + 1].astype(np.float32)
    grown = np.zeros(seen.shape, np.uint8)
    grown[y - top : y - top + h, x - left : x - left + w] = part.mask
    near = cv2.dilate(grown, np.ones((3, 3), np.uint8)) > 0
    return left, top, (grown > 0) | (near & (np.abs(seen - part.light) < abs(part.contrast) / 2))


def _row(parts: Parts, grey: Bytes) -> Row:
    letters = [_to_half(part, grey) for part in parts.each]
    x, y = min(left for left, _, _ in letters), min(top for _, top, _ in letters)
    right, foot = (max(at[1 - axis] + at[2].shape[axis] for at in letters) for axis in (1, 0))
    mask = np.zeros((foot - y, right - x), bool)
    heights = []
    for left, top, letter in letters:
        mask[top - y : top - y + letter.shape[0], left - x : left - x + letter.shape[1]] |= letter
        heights.append(np.count_nonzero(letter.any(axis=1)))
    ys, xs = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    box = (x + int(xs[0]), y + int(ys[0]), int(xs[-1] + 1 - xs[0]), int(ys[-1] + 1 - ys[0]))
    return Row(box, float(np.median(heights)), thinnest_px(mask))


def candidates(lightness: Floats, alpha: NDArray[np.uint8] | None = None) -> tuple[Bytes, list[tuple[Parts, Floats]]]:
    """Return a picture, L* (h, w), as bytes, and all rows of parts in it, each with its measures."""
    grey = np.clip(lightness * 2.55, 0, 255).astype(np.uint8)
    parts = find_parts(grey, None if alpha is None else alpha >= BARE_ALPHA)
    if not parts.each:
        return grey, []
    gradient = gradient_of(grey)
    rows = [parts.taken(chain) for chain in chains(parts)]
    return grey, [(row, measures_of(row, parts.table, gradient)) for row in rows]


def find_rows(lightness: Floats, alpha: NDArray[np.uint8] | None = None) -> list[Row]:
    """Find rows of lettering in a picture: L* (h, w), and alpha (h, w) if there is any."""
    grey, rows = candidates(lightness, alpha)
    return [_row(parts, grey) for parts, measures in rows if score(measures) > THRESHOLD]


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
