"""The main colours of a picture: k-means in a perceptual space over its opaque pixels."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import Floats, hex_of_lab, lab, lab_distance
from .picture import Picture

LOOKED_AT = 40_000
SOLID_ALPHA = 128
ALIKE = 7.0
"""Lab distance under which two colours count as one. From memory."""


@dataclass(frozen=True)
class Swatch:
    """A main colour as ``#rrggbb``, and the share of pixels nearest to it."""

    colour: str
    share: float


def _sample(picture: Picture) -> Floats:
    """Return Lab colours (n, 3) of opaque pixels, evenly sampled from flat areas."""
    h, w = picture.pixels.shape[:2]
    step = max(1, int((h * w / LOOKED_AT) ** 0.5))
    seen = np.ascontiguousarray(picture.pixels[step // 2 :: step, step // 2 :: step])
    return lab(seen[..., :3])[seen[..., 3] >= SOLID_ALPHA]


def _centres(colours: Floats, count: int) -> tuple[Floats, np.ndarray]:
    """Run k-means with k-means++ seeds (Arthur and Vassilvitskii 2007); deterministic."""
    cv2.setRNGSeed(1)
    stop = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_MAX_ITER, 40, 0.1)
    count = min(count, len(np.unique(colours, axis=0)))
    if count == 1:  # OpenCV takes a single colour for three numbers
        return colours[:1], np.zeros(len(colours), np.int32)
    _, labels, centres = cv2.kmeans(colours, count, None, stop, 3, cv2.KMEANS_PP_CENTERS)  # type: ignore[call-overload]
    return centres, labels.ravel()


def palette(picture: Picture, count: int = 8) -> list[Swatch]:
    """Return up to ``count`` main colours, the largest first; none for a transparent picture.

    Each is the median of its pixels, so that a flat colour comes out as it is and not mixed with its edges;
    colours that look alike are one.
    """
    colours = _sample(picture)
    if not len(colours):
        return []
    _, labels = _centres(colours, count)
    clusters = [(np.median(colours[labels == i], axis=0), int((labels == i).sum())) for i in range(int(labels.max()) + 1)]
    merged: list[tuple[Floats, int]] = []
    for colour, size in sorted(((c, n) for c, n in clusters if n), key=lambda pair: -pair[1]):
        near = next((i for i, (c, _) in enumerate(merged) if float(lab_distance(c, colour)) < ALIKE), None)
        if near is None:
            merged.append((colour, size))
        else:
            merged[near] = (merged[near][0], merged[near][1] + size)
    return [Swatch(hex_of_lab(c), n / len(colours)) for c, n in sorted(merged, key=lambda pair: -pair[1])]
