"""Procedural surfaces, drawn with NumPy so that a scene needs no picture from elsewhere."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray


def _noise(rng: np.random.Generator, shape: tuple[int, int], along: float, across: float) -> NDArray[np.float32]:
    """Unit-variance noise, smooth over ``along`` px in x and ``across`` px in y, tiling in both."""
    h, w = shape
    fy, fx = np.fft.fftfreq(h)[:, None], np.fft.rfftfreq(w)[None, :]
    spectrum = np.fft.rfft2(rng.standard_normal(shape))
    spectrum *= np.exp(-2 * np.pi**2 * ((fx * along) ** 2 + (fy * across) ** 2))
    field = np.fft.irfft2(spectrum, s=shape)
    return (field / field.std()).astype(np.float32)


def oak(width: int = 4096, height: int = 4096, planks: int = 6, seed: int = 7) -> tuple[NDArray[np.float32], ...]:
    """Oiled oak planks with the grain along x: (sRGB colour h×w×3 in 0…1, roughness h×w)."""
    rng = np.random.default_rng(seed)
    shape, fine = (height, width), width / 4096
    y = np.linspace(0, planks, height, endpoint=False)[:, None].repeat(width, 1)
    plank, inside = np.floor(y).astype(int), y % 1
    shift = rng.integers(0, width, planks)
    drift = _noise(rng, shape, 500 * fine, 60 * fine) * 0.9 + _noise(rng, shape, 180 * fine, 24 * fine) * 0.22
    for p in range(planks):
        drift[plank == p] = np.roll(drift, shift[p], axis=1)[plank == p] + rng.uniform(-4, 4)
    rings = np.sin(2 * np.pi * (drift * 1.15 + inside * rng.uniform(2.0, 3.6, planks)[plank]))
    rings = np.clip(rings, -0.2, 1.0)
    pores = np.clip(_noise(rng, shape, 30 * fine, 1.0 * fine) - 1.2, 0, None)
    fibre = _noise(rng, shape, 70 * fine, 1.6 * fine) * 0.5 + _noise(rng, shape, 260 * fine, 5 * fine) * 0.5
    tone = rng.uniform(-0.035, 0.035, planks)[plank]
    light, dark = np.array([0.60, 0.475, 0.345]), np.array([0.43, 0.315, 0.215])
    mix = np.clip(0.36 + 0.20 * rings + 0.075 * fibre, 0, 1)[..., None]
    colour = light * (1 - mix) + dark * mix + tone[..., None]
    colour -= (0.075 * pores)[..., None] * np.array([1.0, 1.05, 1.0])
    groove = np.exp(-((np.minimum(inside, 1 - inside) * height / planks / (2.2 * fine)) ** 2))
    colour *= 1 - 0.72 * groove[..., None]
    rough = 0.42 + 0.05 * fibre + 0.12 * pores + 0.4 * groove
    return np.clip(colour, 0.02, 1).astype(np.float32), np.clip(rough, 0.25, 0.9).astype(np.float32)


def plaster(size: int = 1024, seed: int = 3) -> NDArray[np.float32]:
    """A limewashed wall: faint clouds on warm white, sRGB size×size×3 in 0…1."""
    rng = np.random.default_rng(seed)
    clouds = _noise(rng, (size, size), 90, 90) * 0.018 + _noise(rng, (size, size), 18, 14) * 0.006
    wall = np.array([0.80, 0.77, 0.725]) + clouds[..., None]
    return cv2.GaussianBlur(np.clip(wall, 0, 1).astype(np.float32), (0, 0), 1.0)
