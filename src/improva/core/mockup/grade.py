"""Light settings beyond the scene's own: exposure, warmth, vignette and background blur."""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..colour import Floats
from ..errors import SceneError
from .composite import ShadedView
from .view import View

WARM = np.array([-0.26, -0.02, 0.20], np.float32)
"""Gain of B, G, R at full warmth, about that from 6500 K to 5000 K. From memory."""

DARKEST_CORNER = 0.62
SOFTEST = 2.5
"""Blur at full softness: times the lens's own blur, or this percentage of the width in scenes without depth."""

LEVELS = (0.0, 0.25, 0.5, 1.0)


@dataclass(frozen=True)
class Grade:
    """Light settings.

    Attributes:
        exposure: in stops, -2…2.
        warmth: -1…1, cooler to warmer, the brightness of grey kept.
        vignette: 0…1, how much darker the corners are.
        softness: 0…1, blur of everything but the product.
    """

    exposure: float = 0.0
    warmth: float = 0.0
    vignette: float = 0.0
    softness: float = 0.0

    def __post_init__(self) -> None:
        for name, low, high in (("exposure", -2, 2), ("warmth", -1, 1), ("vignette", 0, 1), ("softness", 0, 1)):
            if not low <= getattr(self, name) <= high:
                raise SceneError(f"A {name} of {getattr(self, name):g} is out of reach: use {low} to {high}.")


PLAIN = Grade()


def graded(shaded: ShadedView, grade: Grade) -> ShadedView:
    """Return a shaded view with light settings applied."""
    if grade == PLAIN:
        return shaded
    plain = softened(shaded.plain, shaded.view, grade.softness) if grade.softness else shaded.plain
    gain = np.float32(2.0**grade.exposure) * (1 + np.float32(grade.warmth) * WARM)
    if grade.vignette:
        gain = _falloff(shaded.view.size, grade.vignette)[..., None] * gain
    basis = {name: plane * gain for name, plane in shaded.view.basis.items()}
    return ShadedView(replace(shaded.view, basis=basis), np.asarray(plain * gain, np.float32), shaded.cloth)


def _falloff(size: tuple[int, int], strength: float) -> Floats:
    """Return the vignette: 1 in the middle, falling smoothly to the corners, (h, w)."""
    w, h = size
    x, y = np.linspace(-1, 1, w, dtype=np.float32)[None, :] * w, np.linspace(-1, 1, h, dtype=np.float32)[:, None] * h
    out = np.clip((np.hypot(x, y) / np.float32(np.hypot(w, h)) - 0.35) / 0.65, 0, 1)
    return np.asarray(1 - np.float32(strength * DARKEST_CORNER) * out * out * (3 - 2 * out), np.float32)


def softened(plain: Floats, view: View, softness: float) -> Floats:
    """Return light (h, w, 3) with the background blurred in proportion to its distance from the plane of focus.

    The ground is blurred without the product in it, so that no colour of the product leaks out, and goes on behind it.
    """
    if view.cover is None:
        return plain
    w = view.size[0]
    blur = np.full(view.cover.shape, w / 100, np.float32) if view.blur is None else view.blur
    spread = np.minimum(softness * SOFTEST * blur, w / 12)
    most = float(spread.max())
    if most < 0.7:
        return plain
    open_ = 1 - view.cover[..., None]
    bare = view.cover[..., None] < 0.01
    near = np.where(bare, plain, ground(plain, view.cover, 1.5))  # the background's share of a mixed pixel
    out = np.zeros_like(plain)
    at = np.clip(spread / most, 0, 1)
    for level, hat in zip(LEVELS, np.eye(len(LEVELS)), strict=True):
        share = np.interp(at, LEVELS, hat)  # each pixel lies between two levels of blur
        blurred = ground(plain, view.cover, level * most / 2) if level else near
        out += blurred * share[..., None].astype(np.float32)
    return np.asarray(plain + open_ * (out - near), np.float32)


def ground(light: Floats, cover: Floats, sigma: float) -> Floats:
    """Return the background (h, w, 3), extended behind the product and blurred by ``sigma`` px."""
    weight = (1 - cover) ** 12  # half-covered pixels say little about the background
    sigma = max(sigma, 0.8)
    total = cv2.GaussianBlur(light * weight[..., None], (0, 0), sigma)
    share = cv2.GaussianBlur(weight, (0, 0), sigma)
    wide = max(8.0, 4 * sigma)
    far = (
        cv2.GaussianBlur(light * weight[..., None], (0, 0), wide)
        / np.maximum(cv2.GaussianBlur(weight, (0, 0), wide), 1e-4)[..., None]
    )
    near = total / np.maximum(share, 1e-4)[..., None]
    known = np.clip(share * 20, 0, 1)[..., None]
    return np.asarray(near * known + far * (1 - known), np.float32)
