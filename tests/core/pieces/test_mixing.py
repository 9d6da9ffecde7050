"""Blend modes against the formulas of W3C Compositing and Blending Level 1, written out here independently."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
import pyvips

from improva.core.artwork.pixels import as_array
from improva.core.pieces.blending import BLENDS, Mixing
from improva.core.render.blend import atop, mixed

# Sections 9.1 (separable) and 9.2 (non-separable); Cb is the backdrop, Cs the source.


def multiply(b: float, s: float) -> float:
    return b * s


def screen(b: float, s: float) -> float:
    return b + s - b * s


def hard_light(b: float, s: float) -> float:
    return multiply(b, 2 * s) if s <= 0.5 else screen(b, 2 * s - 1)


def dodge(b: float, s: float) -> float:
    return 0 if b == 0 else 1 if s == 1 else min(1, b / (1 - s))


def burn(b: float, s: float) -> float:
    return 1 if b == 1 else 0 if s == 0 else 1 - min(1, (1 - b) / s)


def soft_light(b: float, s: float) -> float:
    if s <= 0.5:
        return b - (1 - 2 * s) * b * (1 - b)
    d = ((16 * b - 12) * b + 4) * b if b <= 0.25 else b**0.5
    return b + (2 * s - 1) * (d - b)


SEPARABLE: dict[str, Callable[..., Any]] = {
    "normal": lambda b, s: s,
    "multiply": multiply,
    "screen": screen,
    "overlay": lambda b, s: hard_light(s, b),
    "darken": min,
    "lighten": max,
    "color-dodge": dodge,
    "color-burn": burn,
    "hard-light": hard_light,
    "soft-light": soft_light,
    "difference": lambda b, s: abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
}


def lum(c: np.ndarray) -> float:
    return float(0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2])


def set_lum(c: np.ndarray, wanted: float) -> np.ndarray:
    c = c + (wanted - lum(c))
    light, low, high = lum(c), c.min(), c.max()
    if low < 0:
        c = light + (c - light) * light / (light - low)
    if high > 1:
        c = light + (c - light) * (1 - light) / (high - light)
    return c


def set_sat(c: np.ndarray, wanted: float) -> np.ndarray:
    low, high = c.min(), c.max()
    return (c - low) * wanted / (high - low) if high > low else c * 0


def sat(c: np.ndarray) -> float:
    return float(c.max() - c.min())


NON_SEPARABLE = {
    "hue": lambda b, s: set_lum(set_sat(s, sat(b)), lum(b)),
    "saturation": lambda b, s: set_lum(set_sat(b, sat(s)), lum(b)),
    "color": lambda b, s: set_lum(s, lum(b)),
    "luminosity": lambda b, s: set_lum(b, lum(s)),
}


def expected(blend: str, back: np.ndarray, front: np.ndarray) -> np.ndarray:
    """Section 5.8.1 with source-over: co = αs(1 − αb)Cs + αsαbB(Cb, Cs) + (1 − αs)αbCb."""
    cb, ab, cs, as_ = back[:3], back[3], front[:3], front[3]
    b = (
        NON_SEPARABLE[blend](cb, cs)
        if blend in NON_SEPARABLE
        else np.array([SEPARABLE[blend](*pair) for pair in zip(cb, cs, strict=True)])
    )
    alpha = as_ + ab * (1 - as_)
    if alpha == 0:
        return np.zeros(4)
    return np.append((as_ * (1 - ab) * cs + as_ * ab * b + (1 - as_) * ab * cb) / alpha, alpha)


def image(values: np.ndarray) -> pyvips.Image:
    return pyvips.Image.new_from_array(values[None]).copy(interpretation="srgb")


@pytest.mark.parametrize("blend", BLENDS)
def test_every_blend_matches_the_specification(blend: str) -> None:
    rng = np.random.default_rng(9)
    back, front = (rng.integers(0, 256, (300, 4)).astype(np.uint8) for _ in range(2))
    back[:100, 3] = 255
    front[50:150, 3] = 255
    front[150:160] = back[150:160]
    got = as_array(mixed(image(back), image(front), Mixing(blend=blend)))[0].astype(float)  # type: ignore[arg-type]
    want = np.array([expected(blend, b / 255, f / 255) for b, f in zip(back, front, strict=True)]) * 255
    seen = want[:, 3] > 12  # of what is nearly clear, eight bits say little about the colour
    assert np.abs(got[:, 3] - want[:, 3]).max() <= 1.01
    assert np.percentile(np.abs(got - want)[seen].max(axis=1), 97) <= 2.5
    assert np.abs(got - want)[seen].max() <= 12


def test_opacity_is_exact_and_atop_keeps_the_artwork_s_alpha() -> None:
    """Porter and Duff 1984, atop: αo = αb, and co = αsCs + (1 − αs)Cb."""
    back = np.array([[255, 255, 255, a] for a in (255, 128, 0)], np.uint8)
    front = np.array([[0, 0, 0, 255]] * 3, np.uint8)
    got = as_array(atop(image(back), image(front), Mixing(opacity=0.4)))[0]
    assert (got[:, 3] == back[:, 3]).all()
    assert got[:2, 0] == pytest.approx(153, abs=1)
    assert as_array(mixed(image(back), image(front), Mixing(opacity=0.4)))[0, 2, 3] == pytest.approx(102, abs=1)
