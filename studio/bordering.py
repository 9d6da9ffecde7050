"""Remove the visible border of a print on a hard blank, where its light and the bare blank's were traced and denoised
separately."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from studio.joining import Image, disc, grown

NEAR, AIR, SOFT = 3, 2, 2.5
"""Px either side of the border that are brought into line, px from the silhouette that are left, and how softly."""

PAINT, ALIKE, CURVED = 0.6, 0.12, 0.5
"""What bare white paint or glaze reflects at least, and steel does not; by how much both sides of a border may differ, before
it is one that is seen as such; and from where they are two materials, whose border is left."""


def evened(print_: Image, plain: dict[str, Image], shown: dict[str, Image], cover: Image) -> tuple[Image, dict[str, Image]]:
    """Return the light of a print and of the bare blank beside it without a visible border.

    The share of a pixel that is print stays; the sum of both sides is carried over the border from farther off.

    Args:
        print_: the print's light for a reflectance of 1, (h, w, 3).
        plain: light of all else by name; ``shown`` has what each reflects, (3,).
        cover: how much of each pixel is the product, (h, w).
    """
    bare = np.sum([light * shown[name] for name, light in plain.items()], axis=0, dtype=np.float32)
    body = cv2.erode((cover > 0.98).astype(np.uint8), disc(AIR)) > 0
    printed = print_.mean(axis=2) > bare.mean(axis=2)
    border = cv2.morphologyEx(printed.astype(np.uint8), cv2.MORPH_GRADIENT, np.ones((3, 3), np.uint8)) > 0
    band = body & grown(border & body, NEAR)
    near = body & grown(band, NEAR) & ~band
    if not ((near & printed).any() and (near & ~printed).any()):
        return print_, plain
    sides = _carried(bare, near & ~printed) / np.maximum(_carried(print_, near & printed), 1e-4)  # type: ignore[arg-type]
    painted = sides[border & body]
    painted = painted[(painted > PAINT).all(axis=1)]
    if not len(painted):
        return print_, plain
    total = print_ * np.median(painted, axis=0) + bare
    inside, outside = (_carried(total, body & ~band & side) for side in (printed, ~printed))  # type: ignore[arg-type]
    both = _carried(total, body & ~band)  # type: ignore[arg-type]
    apart = np.abs(inside - outside).mean(axis=2) / np.maximum((inside + outside).mean(axis=2) / 2, 1e-4)
    between = np.clip(total, np.minimum(inside, outside), np.maximum(inside, outside))  # an edge that is seen keeps its step
    wanted = np.where((apart < ALIKE)[..., None], both, between)
    times = np.where((band & (apart < CURVED))[..., None], wanted / np.maximum(total, 1e-4), 1)
    times = np.clip(np.nan_to_num(times, nan=1), 0.5, 2).astype(np.float32)
    return print_ * times, {name: light * times for name, light in plain.items()}


def _carried(light: Image, known: NDArray[np.bool_]) -> Image:
    """Extrapolate light smoothly from known pixels; NaN far from any."""
    share = known.astype(np.float32)
    weight = cv2.GaussianBlur(share, (0, 0), SOFT)[..., None]
    carried = cv2.GaussianBlur(light * share[..., None], (0, 0), SOFT) / np.maximum(weight, 1e-6)
    return np.where(weight > 1e-3, carried, np.nan).astype(np.float32)
