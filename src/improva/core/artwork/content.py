"""Find a picture's content: a cut-out by its alpha, a drawing by its contrast against an even background."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats, lab_distance
from ..template import Box

BARE_ALPHA = 13
"""Alpha below 5 % counts as empty."""

BARE_SHARE = 0.02
GROUND_SHARE = 0.6
"""Share of the print's border that an even background covers at least. From memory."""

GROUND_STEP, CONTENT_STEP = 6.0, 12.0
"""Lab distances: up to the first a point is background, from the second on it stands out. From memory."""

LEAST_SPOT_PX = 4


@dataclass(frozen=True)
class Content:
    """The content of a picture, apart from its background.

    Attributes:
        kind: ``cutout`` (found by alpha), ``drawing`` (found by contrast with an even background) or ``picture``
            (no background: everything is content).
        mask: (h, w) bool over the examined picture.
        ground: Lab of the even background of a drawing, scaled like 8-bit values, else None.
    """

    kind: Literal["cutout", "drawing", "picture"]
    mask: NDArray[np.bool_]
    ground: Floats | None = None


def border_of(image: NDArray[np.floating]) -> Floats:
    """Return the points within 2 % of an image's four edges, (n, channels)."""
    h, w = image.shape[:2]
    d = max(1, round(0.02 * min(h, w)))
    sides = [image[:d], image[-d:], image[d:-d, :d], image[d:-d, -d:]]
    return np.concatenate([side.reshape(-1, image.shape[2]) for side in sides]).astype(np.float32)


def find_content(lab: Floats, alpha: NDArray[np.uint8] | None) -> Content:
    """Separate content from background: Lab (h, w, 3) on the blank, and alpha (h, w) if present."""
    if alpha is not None and float((alpha < BARE_ALPHA).mean()) > BARE_SHARE:
        return Content("cutout", alpha >= BARE_ALPHA)
    border = border_of(lab)
    ground = np.median(border, axis=0)
    if float((lab_distance(border, ground) < GROUND_STEP).mean()) < GROUND_SHARE:
        return Content("picture", np.ones(lab.shape[:2], bool))
    away = lab_distance(lab, ground)
    return Content("drawing", away > CONTENT_STEP, ground.astype(np.float32))


def boxes_of(mask: NDArray[np.bool_], px_per_mm: float, most: int = 6) -> tuple[Box, ...]:
    """Return boxes in mm around the largest connected parts of a mask (h, w), without specks."""
    near = max(1, round(px_per_mm))
    joined = cv2.dilate(mask.astype(np.uint8), np.ones((2 * near + 1,) * 2, np.uint8))
    _, _, stats, _ = cv2.connectedComponentsWithStats(joined)
    parts = sorted(stats[1:], key=lambda s: -int(s[4]))[:most]
    return tuple(tuple(float(v) / px_per_mm for v in part[:4]) for part in parts if part[4] >= LEAST_SPOT_PX)  # type: ignore[misc]


def without_specks(mask: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Remove the parts of a mask (h, w) that have fewer than :data:`LEAST_SPOT_PX` points."""
    _, labels, stats, _ = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    large = stats[:, 4] >= LEAST_SPOT_PX
    large[0] = False
    return np.asarray(large[labels], bool)
