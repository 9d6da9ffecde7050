"""Bend words along a path by moving the points of their outlines."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np

from ..errors import PieceError
from .font import Contour
from .layout import Block

Along = Literal["line", "arc", "circle", "wave", "bulge", "envelope"]
PATHS: tuple[Along, ...] = get_args(Along)
FINE_EM = 0.04
"""Straight segments are divided to at most this length before they are bent."""


@dataclass(frozen=True)
class WordPath:
    """The path that words follow.

    Attributes:
        along: ``line``; ``arc`` over ``amount`` degrees; ``circle`` of the diameter ``across``, in em, read outside, or
            inside with a negative one; ``wave`` of a height of ``amount`` per cent of the letters' size and ``waves`` of
            it; ``bulge``, higher by ``amount`` per cent in the middle; ``envelope``, whose upper edge rises by ``amount``
            and whose lower edge falls by ``other`` per cent of the block's height in the middle. Negative amounts bend
            the other way.
    """

    along: Along = "line"
    amount: float = 0.0
    other: float = 0.0
    waves: float = 1.0
    across: float = 10.0

    def __post_init__(self) -> None:
        if self.along not in PATHS:
            raise PieceError(f"Words cannot run along '{self.along}': choose one of {', '.join(PATHS)}.")
        limit = 355.0 if self.along == "arc" else 300.0
        if not max(abs(self.amount), abs(self.other)) <= limit:
            raise PieceError(f"A bend of {self.amount:g} is out of reach: use {-limit:g} to {limit:g}.")
        if not 0.1 <= self.waves <= 20:
            raise PieceError(f"{self.waves:g} waves are out of reach: use 0.1 to 20.")


def refined(contour: Contour) -> Contour:
    """Add points to a closed contour until no segment is longer than :data:`FINE_EM`."""
    after = np.roll(contour, -1, axis=0)
    counts = np.maximum(1, np.ceil(np.hypot(*(after - contour).T) / FINE_EM).astype(int))
    at = np.repeat(np.arange(len(contour)), counts)
    t = (np.arange(len(at)) - np.repeat(np.cumsum(counts) - counts, counts)) / counts[at]
    return np.asarray(contour[at] + (after[at] - contour[at]) * t[:, None])


def _round(points: Contour, radius: float) -> Contour:
    """Map the baseline to an arc whose middle stays at the origin's height; a negative radius curves the other way."""
    angle, r = points[:, 0] / radius, radius + points[:, 1]
    return np.column_stack([r * np.sin(angle), r * np.cos(angle) - radius])


def _moved(points: Contour, path: WordPath, block: Block) -> Contour:
    x, y = points.T
    half = max(block.width / 2, 1e-6)
    u = x / half
    if path.along == "arc" and path.amount:
        return _round(points, block.width / math.radians(path.amount))
    if path.along == "circle":
        radius = path.across / 2
        if abs(radius) < block.height / 2:
            raise PieceError("The circle is smaller than the letters: make it larger, or the letters smaller.")
        return np.asarray(np.add(_round(points, radius), (0, radius)))
    if path.along == "wave":
        return np.column_stack([x, y + path.amount / 100 * np.sin(math.pi * path.waves * (u + 1))])
    if path.along == "bulge":
        return np.column_stack([x, y * (1 + path.amount / 100 * (1 - u**2))])
    if path.along == "envelope":
        rise, fall = (v / 100 * block.height * (1 - u**2) for v in (path.amount, path.other))
        share = y / block.height + 0.5
        return np.column_stack([x, (-block.height / 2 - fall) * (1 - share) + (block.height / 2 + rise) * share])
    return points


def bent(block: Block, path: WordPath) -> tuple[Contour, ...]:
    """Return a block's contours bent along a path, in em, y upward. A circle's centre is at the origin.

    Raises:
        PieceError: the circle is smaller than the letters.
    """
    if path.along == "line":
        return block.contours
    return tuple(_moved(refined(contour), path, block) for contour in block.contours)
