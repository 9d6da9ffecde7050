"""Even out the light of a scan or a photographed page: measure it on the bare paper, then divide by it."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import Floats
from ..errors import StepError
from .picture import Mask, Picture, Pixels
from .step import StepKind

MEASURED_PX = 480
"""Longest side of the reduced copy on which the light is measured: light changes slowly."""

SMOOTHED_PX = 5
"""Side of the square, on the reduced copy, over which grain is averaged; its deviation falls by as much."""

PASSES = (
    *((1, below, False) for below in (0.4, 0.2, 0.1, 0.05)),
    *((2, below, False) for below in (0.05, 0.03, 0.0)),
    *((order, 0.0, True) for order in (2, 2, 3, 3, 4, 4, 4)),
)
"""The surfaces that are fitted one after another: order, how far below it a pixel may lie to count as paper, as a natural
logarithm of a ratio, and whether pixels count all over the picture or only along its border."""

ABOVE = 0.08
"""How far above the surface a pixel of paper may lie: paint is darker than paper, so this side is open."""

LEAST_BELOW, GRAIN_BELOW = 0.01, 3.0
"""How far below the last surfaces a pixel of paper may lie: at least, and in standard deviations of the paper's grain."""

LEAST_PAPER = 0.04
"""Smallest share of the picture that must be bare paper, else its light cannot be measured."""

PER_TERM = 40
"""Fewest pixels of paper for each coefficient of a surface."""

STRIP_ROWS = 512


def _terms(shape: tuple[int, ...], order: int) -> Floats:
    """Return (h, w, terms): the products of powers of x and y up to an order, with x and y from -1 to 1."""
    h, w = shape
    y, x = np.meshgrid(np.linspace(-1, 1, h, dtype=np.float32), np.linspace(-1, 1, w, dtype=np.float32), indexing="ij")
    return np.stack([x**i * y**j for i in range(order + 1) for j in range(order + 1 - i)], axis=-1)


def _border(shape: tuple[int, ...]) -> Mask:
    """Return a ring along the border, an eighth of the shorter side wide."""
    wide = max(2, min(shape[:2]) // 8)
    ring = np.ones(shape[:2], bool)
    ring[wide:-wide, wide:-wide] = False
    return ring


def _grain(logs: Floats) -> float:
    """Return the standard deviation of the paper's grain, from the differences between neighbours.

    The median of the absolute differences of two normal values with deviation σ is 0.954 σ.
    """
    steps = np.abs(np.diff(logs, axis=1))
    return float(np.median(steps) / 0.954)


def _spread(near: Mask) -> bool:
    """Return whether bare paper lies in most parts of the picture, so that a curved surface is held everywhere."""
    parts = cv2.resize(near.astype(np.float32), (6, 6), interpolation=cv2.INTER_AREA)
    return bool((parts > LEAST_PAPER).mean() > 0.6)


def light_of(pixels: Pixels) -> Floats | None:
    """Measure the light on bare paper.

    Surfaces of growing order are fitted to the logarithm of the paper's values, one channel at a time, and each takes
    in the pixels that lie near it for the next one (P. J. Besl and R. C. Jain, "Segmentation through variable-order
    surface fitting", IEEE PAMI 10, 1988). The first ones see only the picture's border, so that a large pale wash in
    the middle is not taken for a shadow. Orders above two are used only where paper lies in most parts of the picture.

    Args:
        pixels: (h, w, 4) uint8; light paper.

    Returns:
        (h', w', 3) values from 0 to 255 of the paper under this light, for a reduced copy of the picture; None where too
        little bare paper is in sight.
    """
    factor = min(1.0, MEASURED_PX / max(pixels.shape[:2]))
    seen = pixels[..., :3]
    small = cv2.resize(seen, None, fx=factor, fy=factor, interpolation=cv2.INTER_AREA) if factor < 1 else seen
    logs = np.log(np.maximum(small.astype(np.float32), 1))
    dark = max(LEAST_BELOW, GRAIN_BELOW * _grain(logs) / SMOOTHED_PX)
    logs = cv2.blur(logs, (SMOOTHED_PX, SMOOTHED_PX))
    place = _border(logs.shape[:2])
    near, fitted = place, np.zeros_like(logs)
    for order, below, everywhere in PASSES:
        terms = _terms(logs.shape[:2], order)
        if near.sum() < PER_TERM * terms.shape[-1] or (order > 2 and not _spread(near)):
            break
        found, *_ = np.linalg.lstsq(terms[near], logs[near], rcond=None)
        fitted = terms @ found
        off = logs - fitted
        near = ((off > -max(below, dark)) & (off < ABOVE)).all(axis=2) & (place | everywhere)
    return None if near.mean() < LEAST_PAPER else np.exp(fitted).astype(np.float32)


def evened(pixels: Pixels, light: Floats) -> Pixels:
    """Divide a picture by its light, channel by channel; the lightest paper keeps its values."""
    h, w = pixels.shape[:2]
    gain = np.percentile(light.reshape(-1, 3), 99, axis=0).astype(np.float32) / light
    whole = cv2.resize(gain, (w, h), interpolation=cv2.INTER_CUBIC) if gain.shape[:2] != (h, w) else gain
    out = pixels.copy()
    for top in range(0, h, STRIP_ROWS):
        rows = slice(top, top + STRIP_ROWS)
        out[rows, :, :3] = cv2.multiply(pixels[rows, :, :3], whole[rows], dtype=cv2.CV_8U)
    return out


def falloff(light: Floats) -> float:
    """Return by what share the darkest paper lies below the lightest, from 0 to 1."""
    low, high = np.percentile(light.mean(axis=2), (1, 99))
    return float(1 - low / high)


def even_light(picture: Picture) -> Picture:
    """Even out the light over a picture on paper. Raises :class:`StepError` where too little bare paper is in sight."""
    light = light_of(picture.pixels)
    if light is None:
        raise StepError("Too little bare paper is in sight to measure the light: it must show at the picture's border.")
    return picture.changed(pixels=evened(picture.pixels, light)).noting(
        f"Light evened out: the paper was up to {100 * falloff(light):.0f} % darker in places."
    )


KIND = StepKind(
    "even",
    "Even out the light",
    "Removes the shadows of a scan or a photographed page, measured on its bare paper.",
    (),
    even_light,
)
