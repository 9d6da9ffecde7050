"""Photographs that nobody took: mountains of fractal noise, seen column by column from near to far, in sun and haze."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import pyvips
from numpy.typing import NDArray

Floats = NDArray[np.float64]
SIZE = (1600, 1200)
FIELD = 1024
"""Side of the height field in its own units; it closes on itself."""


@dataclass(frozen=True)
class View:
    """Where it is seen from and under what light: heights in units of the field, colours as #rrggbb."""

    seed: int
    eye: tuple[float, float, float]
    look_deg: float
    tall: float
    sun_deg: float
    sky: tuple[str, str]
    haze: str
    meadow: str
    far: float
    water: float = -1.0


VIEWS = {
    "tarn": View(5, (140, 420, 27), 20, 112, 300, ("#4d82bd", "#f0dcc4"), "#c3cedb", "#5c7238", 700, 19.0),
    "ridges": View(11, (300, 120, 104), 75, 132, 20, ("#3a5f96", "#f4b98c"), "#d8b7a4", "#66684a", 620),
    "pass": View(23, (620, 700, 74), 200, 118, 255, ("#3f7cc4", "#dce9f2"), "#b3c6d8", "#77853f", 800),
}


def rgb(text: str) -> Floats:
    return np.array([int(text[i : i + 2], 16) for i in (1, 3, 5)], float) / 255


def noise(rng: np.random.Generator, slope: float) -> Floats:
    """Spectral noise on the field: amplitudes fall with frequency to the power ``slope``; in -1…1."""
    f = np.hypot(*np.meshgrid(np.fft.fftfreq(FIELD), np.fft.rfftfreq(FIELD), indexing="ij")) * FIELD
    spectrum = np.exp(2j * np.pi * rng.random(f.shape)) / np.maximum(f, 1) ** slope
    spectrum[f < 1.5] = 0
    field = np.fft.irfft2(spectrum, s=(FIELD, FIELD))
    return np.asarray(field / np.abs(field).max())


def mountains(rng: np.random.Generator, tall: float) -> Floats:
    """Sharp crests where smooth noise crosses zero, worn by finer noise."""
    crest = (1 - np.abs(noise(rng, 2.1)) * 2.2).clip(0, 1) ** 1.6
    mass = (noise(rng, 2.6) * 0.5 + 0.5) ** 1.3
    return np.asarray(tall * (0.62 * crest * mass + 0.3 * mass + 0.08 * noise(rng, 1.5)))


def mirrored(picture: Floats, water: NDArray[np.bool_], rng: np.random.Generator, deep: Floats) -> Floats:
    """What stands beyond the water in it, broken by ripples that grow towards the eye."""
    h, w = water.shape
    shore = np.where(water.any(axis=0), water.argmax(axis=0), h)
    far = int(np.median(shore[shore < h]))
    shore = np.where(np.abs(shore - far) < 0.02 * h, shore, far)
    down = np.arange(h)[:, None] - shore[None]
    wave = noise(rng, 1.1)[(np.arange(h) * 5)[:, None] % FIELD, (np.arange(w) // 5)[None] % FIELD]
    source = np.clip(shore[None] - down * 0.92 + wave * (4 + down * 0.16), 0, h - 1).astype(int)
    seen = picture[source, np.broadcast_to(np.arange(w), (h, w))]
    share = np.clip(0.16 + down / h * 0.9, 0, 0.75)[..., None]
    seen = (seen * (1 - share) + deep * 0.45 * share) * 0.94
    return np.where(water[..., None], seen, picture)


def shaded(v: View, land: Floats, rough: Floats) -> Floats:
    """The field's colours in the sun: rock where it is steep, grass below, snow above."""
    gy, gx = np.gradient(land)
    sun = np.array([np.cos(np.radians(v.sun_deg)) * 0.8, np.sin(np.radians(v.sun_deg)) * 0.8, 0.6])
    normal = np.stack(
        [-gx - 0.9 * np.gradient(rough, axis=1) * 6, -gy - 0.9 * np.gradient(rough, axis=0) * 6, np.ones_like(land)]
    )
    normal /= np.sqrt((normal**2).sum(axis=0))
    light = 0.28 + 0.95 * np.tensordot(sun, normal, 1).clip(0, 1)
    steep = np.hypot(gx, gy)
    rock = rgb("#77706a") * (1 + 0.25 * rough[..., None])
    grass = rgb(v.meadow) * (1 + 0.35 * rough[..., None])
    green = np.clip(1.75 - steep / 0.75 - land / v.tall * 0.9 + 0.3 * rough, 0, 1)[..., None]
    snow = np.clip((land / v.tall - 0.46 + 0.10 * rough) * 9, 0, 1)[..., None] * np.clip(1.6 - steep / 1.5, 0, 1)[..., None]
    ground = (rock + (grass - rock) * green) * (1 - snow) + snow * rgb("#f4f6fa")
    return np.asarray(ground * light[..., None] * np.array([1.06, 1.0, 0.93]) + ground * np.array([0.04, 0.06, 0.10]))


def heaven(v: View, rng: np.random.Generator) -> Floats:
    """The sky with its veils."""
    w, h = SIZE
    y, x = np.mgrid[:h, :w].astype(float)
    t = np.clip(y / (0.5 * h), 0, 1)[..., None] ** 0.85
    picture = rgb(v.sky[0]) * (1 - t) + rgb(v.sky[1]) * t
    veil = np.roll(noise(rng, 1.7), 300, axis=0)[(y * 0.9).astype(int) % FIELD, (x * 0.35).astype(int) % FIELD]
    picture += (np.clip(veil * 0.9, 0, 1) ** 1.5 * 0.5)[..., None] * (1 - t * 0.8)
    return np.asarray(picture)


Corners = tuple[tuple[NDArray[np.intp], NDArray[np.intp]], ...]


def _between(field: Floats, corners: Corners, fx: Floats, fy: Floats) -> Floats:
    """Sample a field between the four points around each place."""
    a, b, c, d = (field[row, column].reshape(fx.shape[0], -1) for row, column in corners)
    return np.asarray((a * (1 - fx) + b * fx) * (1 - fy) + (c * (1 - fx) + d * fx) * fy)


def draw(name: str) -> bytes:
    """One view as JPEG."""
    v = VIEWS[name]
    rng = np.random.default_rng(v.seed)
    (w, h), land = SIZE, mountains(np.random.default_rng(v.seed), v.tall)
    rough = noise(rng, 0.9)
    lit, picture = shaded(v, land, rough), heaven(v, rng)
    horizon, focal, look = 0.46 * h, 1.05 * w, np.radians(v.look_deg)
    across = (np.arange(w) - w / 2) / focal
    lowest = np.full(w, h)
    rows = np.arange(h)[:, None]
    depth = 6.0
    haze, water = rgb(v.haze), np.zeros((h, w), bool)
    while depth < v.far:
        px = v.eye[0] + depth * (np.cos(look) - across * np.sin(look))
        py = v.eye[1] + depth * (np.sin(look) + across * np.cos(look))
        ix, iy = px.astype(int) % FIELD, py.astype(int) % FIELD
        fx, fy = (px % 1)[:, None], (py % 1)[:, None]
        jx, jy = (ix + 1) % FIELD, (iy + 1) % FIELD

        corners = ((iy, ix), (iy, jx), (jy, ix), (jy, jx))
        height, colour = _between(land, corners, fx, fy)[:, 0], _between(lit, corners, fx, fy)
        wet = height < v.water
        if wet.any():
            height = np.where(wet, v.water, height)
        top = np.clip(horizon - (height - v.eye[2]) * focal / depth, 0, h).astype(int)
        clear = np.exp(-((depth / v.far) ** 1.3) * 2.4)
        colour = colour * clear + haze * (1 - clear)
        fill = (rows >= top) & (rows < lowest)
        water |= fill & wet
        picture[fill] = np.broadcast_to(colour, (h, w, 3))[fill]
        lowest = np.minimum(lowest, top)
        depth *= 1.0035 if depth > 60 else 1.012
    if water.any():
        picture = mirrored(picture, water, rng, rgb(v.sky[0]))
    picture += rng.normal(0, 0.010, (h, w, 1)) + rng.normal(0, 0.005, (h, w, 3))
    y, x = np.mgrid[:h, :w]
    picture *= 1 - 0.20 * (((x / w - 0.5) ** 2 + (y / h - 0.5) ** 2) / 0.5)[..., None]
    image = pyvips.Image.new_from_array((picture.clip(0, 1) ** 0.92 * 255).astype(np.uint8)).copy(interpretation="srgb")
    image = image.gaussblur(0.7).copy(xres=300 / 25.4, yres=300 / 25.4)
    return bytes(image.jpegsave_buffer(Q=84))
