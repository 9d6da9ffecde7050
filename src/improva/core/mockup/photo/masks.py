"""Masks of a photograph: the product by GrabCut inside a rough box, corrected by brush strokes, with soft edges.

GrabCut: Rother, Kolmogorov and Blake, "GrabCut: interactive foreground extraction using iterated graph cuts", ACM
Transactions on Graphics 23 (2004), as OpenCV has it. Guided filter: He, Sun and Tang, "Guided Image Filtering", IEEE
Transactions on Pattern Analysis and Machine Intelligence 35 (2013).
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats
from ...errors import SceneError
from .marks import Dab, Marks

Models = tuple[NDArray[np.float64], NDArray[np.float64]]
"""GrabCut's colour models of background and product."""

WORK_PX = 720
"""Longer side of the copy on which the mask is computed, in px."""
AIR = 0.16
"""Margin around the marked points if no box is given, in extents of the points."""
NEAR = 0.04
"""Distance from the print within which the product is likely, in picture sides."""
ROUNDS = 5
BAND = 7
"""Px of the copy on either side of the coarse edge in which the fine edge is searched."""
SOFT = 0.0025
"""Width of the soft edge, in photo widths."""


def rough_box(marks: Marks) -> tuple[float, float, float, float]:
    """Return the marked box around the product, or one around the marked points; left, top, right, bottom in 0…1."""
    if marks.box is not None:
        return marks.box
    at = np.array(marks.points)
    low, high = at.min(0), at.max(0)
    air = AIR * (high - low).max()
    return tuple(float(v) for v in np.clip([*(low - air), *(high + air)], 0.0, 1.0))  # type: ignore[return-value]


def paint_strokes(mask: NDArray[np.uint8], dabs: Iterable[Dab], keep: int, leave: int) -> None:
    """Paint the seller's brush strokes into a mask (h, w), in order."""
    h, w = mask.shape
    for dab in dabs:
        centre = round(dab.at[0] * w - 0.5), round(dab.at[1] * h - 0.5)
        cv2.circle(mask, centre, max(1, round(dab.reach * w)), keep if dab.keep else leave, -1)


def _grown(seed: NDArray[np.uint8], small: NDArray[np.uint8]) -> NDArray[np.bool_]:
    """Run GrabCut from certain and likely pixels. Raises :class:`SceneError` where nothing is left."""
    return _cut(seed, small, _unlearned(), ROUNDS, cv2.GC_INIT_WITH_MASK)


def _unlearned() -> Models:
    return np.zeros((1, 65)), np.zeros((1, 65))


def _cut(seed: NDArray[np.uint8], small: NDArray[np.uint8], models: Models, rounds: int, mode: int) -> NDArray[np.bool_]:
    """Run rounds of GrabCut on ``seed`` in place; unless the mode is frozen, ``models`` learn both sides' colours.

    Raises :class:`SceneError` where a side is empty.
    """
    sure = [
        int(np.count_nonzero((seed == a) | (seed == b))) for a, b in ((cv2.GC_FGD, cv2.GC_PR_FGD), (cv2.GC_BGD, cv2.GC_PR_BGD))
    ]
    if min(sure) < 16:
        raise SceneError(
            "The box leaves nothing inside or nothing outside: draw it round the product, with some ground in sight."
        )
    cv2.setRNGSeed(7)  # its clusters start at random
    cv2.grabCut(np.ascontiguousarray(small[..., ::-1]), seed, None, *models, rounds, mode)  # type: ignore[call-overload]
    return np.asarray((seed == cv2.GC_FGD) | (seed == cv2.GC_PR_FGD))


def _grown_coarse_to_fine(seed: NDArray[np.uint8], small: NDArray[np.uint8]) -> NDArray[np.bool_]:
    """Run GrabCut at half size, then once more along the edge: a third of the time for large pictures."""
    h, w = seed.shape
    half, models = (w // 2, h // 2), _unlearned()
    coarse_seed = np.asarray(cv2.resize(seed, half, interpolation=cv2.INTER_NEAREST), np.uint8)
    coarse_small = np.asarray(cv2.resize(small, half, interpolation=cv2.INTER_AREA), np.uint8)
    coarse = _cut(coarse_seed, coarse_small, models, ROUNDS, cv2.GC_INIT_WITH_MASK).astype(np.float32)
    marked = (seed == cv2.GC_FGD) | (seed == cv2.GC_BGD)
    mask = np.where(marked, seed == cv2.GC_FGD, cv2.resize(coarse, (w, h), interpolation=cv2.INTER_LINEAR) > 0.5)
    wide, reach = mask.astype(np.uint8), _disc(BAND)
    edge = (cv2.dilate(wide, reach) > 0) & (cv2.erode(wide, reach) == 0) & ~marked
    if not edge.any():
        return mask
    fine = np.where(mask, cv2.GC_FGD, cv2.GC_BGD).astype(np.uint8)
    fine[edge] = np.where(mask[edge], cv2.GC_PR_FGD, cv2.GC_PR_BGD)
    rows, columns = np.flatnonzero(edge.any(axis=1)), np.flatnonzero(edge.any(axis=0))
    near = slice(max(0, rows[0] - 2), rows[-1] + 3), slice(max(0, columns[0] - 2), columns[-1] + 3)
    mask[near] = _cut(np.ascontiguousarray(fine[near]), small[near], models, 1, cv2.GC_EVAL_FREEZE_MODEL)
    return mask


def product_mask(photo: NDArray[np.uint8], marks: Marks, seen: NDArray[np.bool_]) -> Floats:
    """Return the product's share of each pixel, (h, w) in 0…1, without what lies in front of it.

    Args:
        photo: (h, w, 3) sRGB.
        seen: where the print is seen, (h, w): surely product.
    """
    small = _small(photo, WORK_PX)
    size = small.shape[1::-1]
    left, top, right, foot = rough_box(marks)
    seed = np.full(size[::-1], cv2.GC_BGD, np.uint8)
    box = slice(round(top * size[1]), round(foot * size[1])), slice(round(left * size[0]), round(right * size[0]))
    seed[box] = cv2.GC_PR_BGD
    inner = (cv2.resize(seen.astype(np.float32), size, interpolation=cv2.INTER_AREA) > 0.99).astype(np.uint8)
    likely = cv2.dilate(inner, _disc(NEAR * max(size))) > 0
    seed[likely & (seed == cv2.GC_PR_BGD)] = cv2.GC_PR_FGD
    seed[cv2.erode(inner, np.ones((5, 5), np.uint8)) > 0] = cv2.GC_FGD
    paint_strokes(seed, marks.product, cv2.GC_FGD, cv2.GC_BGD)
    mask = _whole(_grown_coarse_to_fine(seed.copy(), small), seed == cv2.GC_FGD)
    alpha = refined(photo, mask)
    if marks.front:
        alpha = alpha * (1 - front_mask(photo, marks.front))
    return np.asarray(alpha, np.float32)


def _whole(mask: NDArray[np.bool_], sure: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Remove specks apart from the certain product, and fill pinholes."""
    opened = cv2.morphologyEx(mask.astype(np.uint8), cv2.MORPH_OPEN, _disc(1))
    count, labels, stats, _ = cv2.connectedComponentsWithStats(opened)
    is_kept = np.zeros(count, bool)
    is_kept[np.unique(labels[sure & (opened > 0)])] = True
    is_kept[1:] |= stats[1:, cv2.CC_STAT_AREA] > 0.10 * max(1, stats[1:, cv2.CC_STAT_AREA].max(initial=1))
    is_kept[0] = False
    closed = cv2.morphologyEx(is_kept[labels].astype(np.uint8), cv2.MORPH_CLOSE, _disc(2))
    return np.asarray(cv2.GaussianBlur(closed.astype(np.float32), (0, 0), 1.6) > 0.5)


def _small(photo: NDArray[np.uint8], most_px: float) -> NDArray[np.uint8]:
    """Return a copy limited to a longest side."""
    h, w = photo.shape[:2]
    factor = min(1.0, most_px / max(w, h))
    return np.asarray(
        cv2.resize(photo, (max(8, round(w * factor)), max(8, round(h * factor))), interpolation=cv2.INTER_AREA), np.uint8
    )


def _disc(reach: float) -> NDArray[np.uint8]:
    r = max(1, round(reach))
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * r + 1, 2 * r + 1)), np.uint8)


def front_mask(photo: NDArray[np.uint8], dabs: tuple[Dab, ...]) -> Floats:
    """Return how much of each pixel lies in front of the product, (h, w): regions grown from the strokes to the nearest edges."""
    small = _small(photo, 1.6 * WORK_PX)
    seed = np.full(small.shape[:2], cv2.GC_BGD, np.uint8)
    near = [Dab(d.at, 2.2 * d.reach, True) for d in dabs if d.keep]
    paint_strokes(seed, near, cv2.GC_PR_BGD, cv2.GC_PR_BGD)
    paint_strokes(seed, [Dab(d.at, 0.7 * d.reach, d.keep) for d in dabs], cv2.GC_FGD, cv2.GC_BGD)
    if not (seed == cv2.GC_FGD).any():
        return np.zeros(photo.shape[:2], np.float32)
    return refined(photo, _grown(seed, small))


def refined(photo: NDArray[np.uint8], mask: NDArray[np.bool_]) -> Floats:
    """Scale a coarse mask (h, w) to the photograph's size, with edges that follow the photograph's."""
    h, w = photo.shape[:2]
    step = w / mask.shape[1]
    wide = np.asarray(cv2.resize(mask.astype(np.float32), (w, h), interpolation=cv2.INTER_CUBIC), np.float32)
    grey = np.asarray(cv2.cvtColor(photo, cv2.COLOR_RGB2GRAY), np.float32) / 255
    reach = 2 * max(1, round(max(SOFT * w, 1.2 * step))) + 1

    def mean(plane: NDArray[np.floating[Any]]) -> NDArray[np.float32]:
        return np.asarray(cv2.blur(np.asarray(plane, np.float32), (reach, reach)), np.float32)

    m_i, m_p = mean(grey), mean(wide)
    slope = (mean(grey * wide) - m_i * m_p) / (mean(grey * grey) - m_i * m_i + 1e-4)
    refined = mean(slope) * grey + mean(m_p - slope * m_i)
    # only the edge is refined: pixels well inside or outside do not change
    inside = cv2.erode((wide > 0.5).astype(np.uint8), np.ones((reach, reach), np.uint8)) > 0
    outside = cv2.dilate((wide > 0.5).astype(np.uint8), np.ones((reach, reach), np.uint8)) == 0
    sharp = np.clip((refined - 0.5) * 1.6 + 0.5, 0, 1)
    return np.where(inside, 1, np.where(outside, 0, sharp)).astype(np.float32)
