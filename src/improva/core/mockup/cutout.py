"""Cut the product and its shadow out of a mock-up, for transparent pictures and for the seller's photographs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import LINEAR_OF_BYTE, Floats, srgb_from_linear
from ..errors import SceneError
from .composite import ShadedView, composite_light
from .grade import ground
from .tone import CODES, RANGE, tone

DEEPEST = 0.85
"""Largest opacity of a shadow: light comes from all directions."""


FAINTEST, FAR, EDGE = 0.02, 0.05, 0.10
"""Cover that counts as none; darkening that is not a shadow; share of the width over which shadows fade out at the edges."""


@dataclass(frozen=True)
class Cutout:
    """A product, (h, w) each: its colour (…, 3) linear as displayed, B, G, R; its cover; the share of light its shadow takes."""

    colour: Floats
    cover: Floats
    shadow: Floats


def cut_out(shaded: ShadedView, prints: dict[str, Floats], angle_deg: float) -> Cutout:
    """Cut the product out of a lit view: its colours (h, w, 3) and its cover (h, w).

    Raises :class:`SceneError` where the pack has no mask of the product.
    """
    cover, shade = shaded.view.cover, shaded.view.shade
    if cover is None:
        raise SceneError(f"{shaded.view.info.title} does not say what is product and what is ground: choose another scene.")
    light = composite_light(shaded, prints, angle_deg) * np.float32(RANGE / CODES)
    cover = np.where(cover < FAINTEST, 0, cover).astype(np.float32)
    inside = ground(light, 1 - cover, 1.0)  # extend the product's colour outwards at its edge
    colour = np.where(cover[..., None] > 0.995, light, inside)
    shadow = np.zeros_like(cover) if shade is None else _shadow(shade)
    return Cutout(tone(colour), cover, shadow)


def _shadow(shade: Floats) -> Floats:
    """Return the part of the light that the shadow takes, without faint darkening far away, fading towards the picture's edges."""
    h, w = shade.shape
    edge = EDGE * w
    x, y = np.arange(w, dtype=np.float32) + 0.5, np.arange(h, dtype=np.float32) + 0.5
    fade = np.clip(np.minimum(x, w - x) / edge, 0, 1)[None, :] * np.clip(np.minimum(y, h - y) / edge, 0, 1)[:, None]
    dark = np.clip((1 - shade - FAR) / (1 - FAR), 0, 1)
    return np.asarray(DEEPEST * dark * fade * fade * (3 - 2 * fade), np.float32)


def transparent(cut: Cutout) -> NDArray[np.uint8]:
    """Return the product and its shadow as (h, w, 4) sRGB with straight alpha, in R, G, B order."""
    alpha = cut.cover + (1 - cut.cover) * cut.shadow
    share = (cut.cover / np.maximum(alpha, 1e-4))[..., None]
    colour = srgb_from_linear(cut.colour[..., ::-1]) * share  # a shadow's own colour is black
    return np.asarray(np.concatenate([colour, alpha[..., None]], axis=2) * 255 + 0.5, np.uint8)


def on_photograph(
    cut: Cutout, photo: NDArray[np.uint8], at: tuple[float, float], size: float
) -> tuple[NDArray[np.uint8], Floats]:
    """Lay the product on a photograph: (h, w, 3) sRGB in R, G, B order, and the product's cover (h, w).

    Args:
        cut: the product.
        photo: (h, w, 3) sRGB, R, G, B.
        at: where the foot of the product stands, in fractions of the photograph's width and height.
        size: height of the product in photograph heights.

    Raises :class:`SceneError` where the product is not seen.
    """
    rows, columns = np.flatnonzero((cut.cover > 0.5).any(axis=1)), np.flatnonzero((cut.cover > 0.5).any(axis=0))
    if not len(rows):
        raise SceneError("Nothing of the product is seen in this scene.")
    h, w = photo.shape[:2]
    scale = size * h / (rows[-1] + 1 - rows[0])
    move = np.array(
        [[scale, 0, at[0] * w - scale * (columns[0] + columns[-1] + 1) / 2], [0, scale, at[1] * h - scale * (rows[-1] + 1)]],
        np.float32,
    )
    kernel = cv2.INTER_AREA if scale < 1 else cv2.INTER_CUBIC
    planes: tuple[Any, ...] = cut.colour * cut.cover[..., None], np.dstack([cut.cover, cut.shadow * (1 - cut.cover)])
    if scale < 0.5:  # a warp does not average: resize it to about its size first
        small = max(scale, 0.02)
        planes = tuple(cv2.resize(p, None, fx=small, fy=small, interpolation=kernel) for p in planes)
        move[:, :2] /= np.float32(small)
    colour, darkness = (cv2.warpAffine(np.ascontiguousarray(p), move, (w, h), flags=cv2.INTER_LINEAR) for p in planes)
    cover, shadow = darkness[..., :1], darkness[..., 1:]
    behind = LINEAR_OF_BYTE.astype(np.float32)[photo[..., ::-1]]
    out = behind * np.clip(1 - cover - shadow, 0, 1) + colour
    return np.asarray(srgb_from_linear(np.clip(out, 0, 1))[..., ::-1] * 255 + 0.5, np.uint8), np.asarray(
        cover[..., 0], np.float32
    )
