"""Leftover specks and holes of a cut-out: found with position and size, and removed below a size in mm."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np

from .picture import Mask, Picture
from .step import Field, StepKind

MOST_SPOTS = 400
SEEN_ALPHA = 13
"""Alpha of 5 %, from which a speck is visible on a backing."""


@dataclass(frozen=True)
class Spot:
    """A speck of leftover paper, or a hole in the picture.

    Attributes:
        at: its middle, in fractions of the picture's width and height.
        size_mm: the diameter of the circle of its area.
    """

    kind: Literal["speck", "hole"]
    at: tuple[float, float]
    size_mm: float


def _found(mask: Mask, below_mm: float, picture: Picture, inside: bool) -> tuple[Mask, list[tuple[float, float, float]]]:
    """Return the small parts of a mask, together and one by one; with ``inside``, parts at the picture's edge do not count."""
    _, labels, stats, middles = cv2.connectedComponentsWithStats(mask.view(np.uint8), connectivity=8, ltype=cv2.CV_32S)
    areas = stats[:, cv2.CC_STAT_AREA].astype(np.float64)
    wanted = areas < math.pi / 4 * (below_mm * picture.px_per_mm) ** 2
    wanted[0] = False
    h, w = mask.shape
    if inside:
        x, y, across, down = stats[:, :4].T
        wanted &= (x > 0) & (y > 0) & (x + across < w) & (y + down < h)
    which = np.flatnonzero(wanted)
    sizes = np.sqrt(4 * areas[which] / math.pi) / picture.px_per_mm
    spots = [(float(x + 0.5) / w, float(y + 0.5) / h, float(d)) for (x, y), d in zip(middles[which], sizes, strict=True)]
    return (wanted[labels] if len(which) else np.zeros(mask.shape, bool)), spots


def _seen(picture: Picture) -> Mask:
    return np.asarray(np.ascontiguousarray(picture.alpha) >= SEEN_ALPHA)


def find_specks(picture: Picture, below_mm: float) -> list[Spot]:
    """Return specks and holes smaller than ``below_mm``, the largest first, at most :data:`MOST_SPOTS`."""
    seen = _seen(picture)
    if seen.all():
        return []
    spots = [Spot("speck", (x, y), d) for x, y, d in _found(seen, below_mm, picture, inside=False)[1]]
    spots += [Spot("hole", (x, y), d) for x, y, d in _found(~seen, below_mm, picture, inside=True)[1]]
    return sorted(spots, key=lambda spot: -spot.size_mm)[:MOST_SPOTS]


def clean(picture: Picture, *, specks: float = 1, holes: float = 0.3) -> Picture:
    """Clear specks smaller than ``specks`` mm, and fill holes smaller than ``holes`` mm with their original colour.

    The rim of a removed speck that is too faint to be seen goes with it.
    """
    alpha = np.ascontiguousarray(picture.alpha)
    seen = _seen(picture)
    away, gone = _found(seen, specks, picture, inside=False)
    alpha[cv2.dilate(away.view(np.uint8), np.ones((5, 5), np.uint8)).view(bool) & ~(seen & ~away)] = 0
    fill, filled = _found(~seen, holes, picture, inside=True)
    if filled:  # fill the faint edge around a hole too
        near = cv2.dilate(fill.view(np.uint8), np.ones((5, 5), np.uint8)).view(bool)
        alpha[near] = 255
    out = picture.pixels.copy()
    out[..., 3] = alpha
    return picture.changed(pixels=out).noting(f"{len(gone)} specks were cleared and {len(filled)} holes filled.")


KIND = StepKind(
    "clean",
    "Clear specks, fill holes",
    "Removes what a cut left behind, and fills the holes that it made.",
    (
        Field("specks", "Specks below", "number", 1, "mm", 0, 100, hint="as wide as a circle of their area"),
        Field("holes", "Holes below", "number", 0.3, "mm", 0, 100, hint="with the colour that was there"),
    ),
    clean,
)
