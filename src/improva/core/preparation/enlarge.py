"""Enlarge pictures: smoother pixels, never more detail. The factor is recorded, so that no check counts it as sharpness."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ..errors import StepError
from .picture import MOST_PREPARED_PX, Picture, premultiplied, straight
from .step import Field, StepKind

SHOCK_ROUNDS, SHOCK_STEP, SHOCK_REACH = 2, 0.25, 0.35
"""Edge-keeping strength: the closest match on drawings and text; on photographs the difference from Lanczos is small."""

STEEP = 60.0
"""Slope of grey, in Sobel's sums, from which an edge is sharpened in full. From memory."""


def _sharpened(pixels: NDArray[np.uint8], low: NDArray[np.uint8], high: NDArray[np.uint8], sigma: float) -> NDArray[np.uint8]:
    """Sharpen edges without new halos.

    A coherence-enhancing shock filter: along the direction in which colours change most, what is darker than its
    surroundings' turning point goes to the darkest neighbour, what is lighter to the lightest (J. Weickert,
    "Coherence-Enhancing Shock Filters", DAGM 2003). Values stay within what the original had there.
    """
    work = pixels
    kernel = np.ones((3, 3), np.uint8)
    for _ in range(SHOCK_ROUNDS):
        grey = cv2.GaussianBlur(
            cv2.cvtColor(np.ascontiguousarray(work[..., :3]), cv2.COLOR_RGB2GRAY).astype(np.float32), (0, 0), sigma
        )
        gx, gy = cv2.Sobel(grey, cv2.CV_32F, 1, 0), cv2.Sobel(grey, cv2.CV_32F, 0, 1)
        xx, xy, yy = (cv2.GaussianBlur(part, (0, 0), 1.5 * sigma) for part in (gx * gx, gx * gy, gy * gy))
        angle = cv2.phase(xx - yy, 2 * xy) / 2  # of the steepest change; phase is in radians
        c, s = np.cos(angle), np.sin(angle)
        bend = c * c * cv2.Sobel(grey, cv2.CV_32F, 2, 0) + 2 * c * s * cv2.Sobel(grey, cv2.CV_32F, 1, 1)
        bend += s * s * cv2.Sobel(grey, cv2.CV_32F, 0, 2)
        steep = np.minimum(cv2.sqrt(xx + yy) / STEEP, 1) * SHOCK_STEP
        goal = cv2.dilate(work, kernel)
        cv2.copyTo(cv2.erode(work, kernel), (bend > 0).view(np.uint8), goal)
        work = np.asarray(cv2.blendLinear(work, goal, 1 - steep, steep), np.uint8)
    return np.asarray(cv2.min(cv2.max(work, low), high), np.uint8)


def enlarge(picture: Picture, *, factor: float = 2, method: str = "edges") -> Picture:
    """Enlarge the picture in pixels; in print it keeps its size.

    Args:
        factor: 1 to 8 times as many pixels a side.
        method: ``lanczos`` (4 lobes), or ``edges``: the same, kept within the original's values and with edges made
            steep again; for drawings and lettering.

    Raises :class:`StepError` where the result is larger than can be prepared.
    """
    h, w = picture.pixels.shape[:2]
    if h * w * factor * factor > MOST_PREPARED_PX:
        most = (MOST_PREPARED_PX / (h * w)) ** 0.5
        raise StepError(f"{factor:g} times as large, it would be more than can be prepared: use {most:.1f} at most.")
    size = (round(w * factor), round(h * factor))
    soft = premultiplied(picture.pixels)
    pixels = straight(np.asarray(cv2.resize(soft, size, interpolation=cv2.INTER_LANCZOS4), np.float32))
    if method == "edges":
        kernel = np.ones((3, 3), np.uint8)
        low, high = (
            np.asarray(cv2.resize(f(picture.pixels, kernel), size, interpolation=cv2.INTER_LINEAR), np.uint8)
            for f in (cv2.erode, cv2.dilate)
        )
        pixels = _sharpened(
            np.asarray(cv2.min(cv2.max(pixels, low), high), np.uint8), low, high, max(0.5, SHOCK_REACH * factor)
        )
    note = f"Enlarged ×{factor:g}: it has more pixels and no more detail."
    return picture.changed(pixels=pixels, px_per_mm=picture.px_per_mm * factor, enlarged=picture.enlarged * factor).noting(note)


KIND = StepKind(
    "enlarge",
    "Enlarge",
    "Smooths coarse pixels. It adds no detail; checks still count the original's pixels.",
    (
        Field("factor", "Factor", "number", 2, "×", 1, 8),
        Field("method", "Method", "choice", "edges", choices=(("edges", "Keep edges"), ("lanczos", "Lanczos"))),
    ),
    enlarge,
)
