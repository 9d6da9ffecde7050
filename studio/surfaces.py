"""Procedural surfaces, drawn with NumPy so that a scene needs no picture from elsewhere."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from improva.core.colour import srgb_from_linear


def noise(rng: np.random.Generator, shape: tuple[int, int], along: float, across: float) -> NDArray[np.float32]:
    """Unit-variance noise, smooth over ``along`` px in x and ``across`` px in y, tiling in both."""
    h, w = shape
    fy, fx = np.fft.fftfreq(h)[:, None], np.fft.rfftfreq(w)[None, :]
    spectrum = np.fft.rfft2(rng.standard_normal(shape))
    spectrum *= np.exp(-2 * np.pi**2 * ((fx * along) ** 2 + (fy * across) ** 2))
    field = np.fft.irfft2(spectrum, s=shape)
    return (field / field.std()).astype(np.float32)  # type: ignore[no-any-return]


def oak(width: int = 4096, height: int = 4096, planks: int = 6, seed: int = 7) -> tuple[NDArray[np.float32], ...]:
    """Oiled oak planks with the grain along x: (sRGB colour h×w×3 in 0…1, roughness h×w)."""
    rng = np.random.default_rng(seed)
    shape, fine = (height, width), width / 4096
    y = np.linspace(0, planks, height, endpoint=False)[:, None].repeat(width, 1)
    plank, inside = np.floor(y).astype(int), y % 1
    shift = rng.integers(0, width, planks)
    drift = noise(rng, shape, 500 * fine, 60 * fine) * 0.9 + noise(rng, shape, 180 * fine, 24 * fine) * 0.22
    for p in range(planks):
        drift[plank == p] = np.roll(drift, shift[p], axis=1)[plank == p] + rng.uniform(-4, 4)
    rings = np.sin(2 * np.pi * (drift * 1.15 + inside * rng.uniform(2.0, 3.6, planks)[plank]))
    rings = np.clip(rings, -0.2, 1.0)
    pores = np.clip(noise(rng, shape, 30 * fine, 1.0 * fine) - 1.2, 0, None)
    fibre = noise(rng, shape, 70 * fine, 1.6 * fine) * 0.5 + noise(rng, shape, 260 * fine, 5 * fine) * 0.5
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
    clouds = noise(rng, (size, size), 90, 90) * 0.018 + noise(rng, (size, size), 18, 14) * 0.006
    wall = np.array([0.80, 0.77, 0.725]) + clouds[..., None]
    return cv2.GaussianBlur(np.clip(wall, 0, 1).astype(np.float32), (0, 0), 1.0)  # type: ignore[no-any-return]


def trowelled(size: int = 1536, seed: int = 3) -> NDArray[np.float32]:
    """The height of a plastered and rolled wall in 0…1: long strokes of the trowel under the paint's fine stipple."""
    rng = np.random.default_rng(seed)
    strokes = noise(rng, (size, size), 120, 26) + 0.6 * noise(rng, (size, size), 30, 70)
    stipple = noise(rng, (size, size), 2.2, 2.2)
    height = 0.8 * strokes + 0.10 * stipple
    return np.asarray((height - height.min()) / np.ptp(height), np.float32)


def walnut(width: int = 4096, height: int = 4096) -> NDArray[np.float32]:
    """Dark oiled planks: oak's figure in another wood."""
    grey = oak(width, height, planks=5, seed=21)[0]
    tone = grey.mean(axis=2, keepdims=True)
    return np.clip(np.array([0.40, 0.29, 0.215]) * (0.18 + 1.75 * tone), 0.01, 1).astype(np.float32)  # type: ignore[no-any-return]


def limed(width: int = 4096, height: int = 4096) -> NDArray[np.float32]:
    """White-painted boards, worn through to the grain."""
    wood = oak(width, height, planks=6, seed=33)[0]
    tone = wood.mean(axis=2, keepdims=True)
    worn = np.clip((0.50 - tone) * 2.2, 0, 1)
    return np.clip(  # type: ignore[no-any-return]
        np.array([0.86, 0.845, 0.815]) * (1 - 0.32 * worn) - 0.10 * worn * np.array([0.5, 0.8, 1.1]), 0.02, 1
    ).astype(np.float32)


def slate(size: int = 3072, seed: int = 11) -> NDArray[np.float32]:
    """Riven slate: dark, cool, with faint beds and chips of light."""
    rng = np.random.default_rng(seed)
    fine = size / 3072
    beds = noise(rng, (size, size), 220 * fine, 60 * fine) * 0.5 + noise(rng, (size, size), 60 * fine, 26 * fine) * 0.4
    grain = noise(rng, (size, size), 2.2 * fine, 1.6 * fine)
    steps = np.tanh(3 * np.gradient(cv2.GaussianBlur(beds, (0, 0), 3 * fine), axis=0) * 60 / fine)
    tone = 0.265 + 0.020 * beds + 0.012 * grain + 0.018 * steps
    return np.clip(tone[..., None] * np.array([0.97, 1.0, 1.03]), 0.03, 1).astype(np.float32)  # type: ignore[no-any-return]


def marble(size: int = 3072, seed: int = 5) -> NDArray[np.float32]:
    """Pale stone with grey veins that wander and fade."""
    rng = np.random.default_rng(seed)
    fine = size / 3072
    clouds = noise(rng, (size, size), 240 * fine, 240 * fine)
    tone = 0.895 + 0.012 * clouds + 0.004 * noise(rng, (size, size), 3 * fine, 3 * fine)
    for reach, strength in ((420, 0.19), (200, 0.09), (90, 0.045)):
        field = noise(rng, (size, size), reach * fine, reach * 0.55 * fine) + 0.14 * noise(
            rng, (size, size), 26 * fine, 26 * fine
        )
        slope = np.hypot(*np.gradient(field)) + 1e-6
        away = np.abs(field - 0.25) / slope  # in px from the vein's middle
        fade = 1 / (1 + np.exp(-2.2 * noise(rng, (size, size), 300 * fine, 300 * fine)))
        tone -= strength * fade * (0.55 * np.exp(-((away / (3 * fine)) ** 2)) + 0.45 * np.exp(-away / (26 * fine)))
    return np.clip(tone[..., None] * np.array([1.0, 0.992, 0.978]), 0.05, 1).astype(np.float32)  # type: ignore[no-any-return]


def weave(size: int = 1536, threads: int = 300, seed: int = 9) -> NDArray[np.float32]:
    """The height of a plain weave in 0…1: threads of uneven thickness over and under."""
    rng = np.random.default_rng(seed)
    y, x = np.mgrid[0:size, 0:size] / size * threads
    x = x + 0.22 * noise(rng, (size, size), 4, 60) + 0.12 * noise(rng, (size, size), 30, 30)
    y = y + 0.22 * noise(rng, (size, size), 60, 4) + 0.12 * noise(rng, (size, size), 30, 30)
    warp, weft = np.abs(np.sin(np.pi * x)), np.abs(np.sin(np.pi * y))
    over = ((np.floor(x) + np.floor(y)) % 2) == 0
    return np.asarray(
        np.where(over, 0.35 + 0.65 * warp * (0.55 + 0.45 * weft), 0.35 + 0.65 * weft * (0.55 + 0.45 * warp)), np.float32
    )


def linen(size: int = 3072, seed: int = 9) -> NDArray[np.float32]:
    """Undyed linen: a plain weave with slubs."""
    rng = np.random.default_rng(seed)
    fine = size / 1536
    cloth = weave(size, 250, seed)
    slub = noise(rng, (size, size), 90 * fine, 1.6 * fine) + noise(rng, (size, size), 1.6 * fine, 90 * fine)
    tone = 0.60 + 0.19 * (cloth - 0.7) + 0.026 * slub + 0.01 * noise(rng, (size, size), 200 * fine, 200 * fine)
    return np.clip(tone[..., None] * np.array([1.10, 1.03, 0.91]), 0.05, 1).astype(np.float32)  # type: ignore[no-any-return]


def _turned_round(ends: tuple[int, int, int, int], size: int, reach: int) -> Iterator[tuple[tuple[int, int], tuple[int, int]]]:
    """A line's ends, and again where it runs over an edge and comes in at the other."""
    x0, y0, x1, y1 = ends
    for dx in (-size, 0, size):
        for dy in (-size, 0, size):
            if -reach < x0 + dx < size + reach and -reach < y0 + dy < size + reach:
                yield (x0 + dx, y0 + dy), (x1 + dx, y1 + dy)


def lawn(size: int = 3072, seed: int = 17) -> NDArray[np.float32]:
    """Short grass from above: blade over blade, here dry, there lush, in tufts."""
    rng = np.random.default_rng(seed)
    canvas = np.full((size, size, 3), (0.16, 0.19, 0.09), np.float32)
    fine = size / 3072
    dry, lush, tuft = (noise(rng, (size // 8, size // 8), spread * fine / 8, spread * fine / 8) for spread in (210, 120, 34))
    for layer in range(5):
        count, lift = 34000, 0.50 + 0.15 * layer
        at = rng.random((count, 2)) * size
        turn, length = rng.random(count) * 2 * np.pi, rng.normal(62, 20, count).clip(20) * fine
        hue = rng.normal(0, 1, count)
        for (x, y), t, n, k in zip(at, turn, length, hue, strict=True):
            here = int(y) // 8 % len(dry), int(x) // 8 % len(dry)
            straw, dark = 0.014 * float(dry[here]), 0.05 * float(lush[here]) + 0.06 * float(tuft[here])
            colour = np.array([0.36 + 0.07 * k + straw, 0.42 + 0.05 * k + straw / 2, 0.19 + 0.03 * k]) * lift * (1 - dark)
            ends = int(x), int(y), int(x + n * np.cos(t)), int(y + n * np.sin(t))
            for start, end in _turned_round(ends, size, 100):
                cv2.line(canvas, start, end, colour.tolist(), max(1, round(2.6 * fine)), cv2.LINE_AA)
    return np.clip(canvas, 0, 1)


def _out_of_focus(light: NDArray[np.float32], radius: float) -> NDArray[np.float32]:
    """Linear light (h, w, 3) with each point spread to a disc, as by an open lens; it tiles as before."""
    h, w = light.shape[:2]
    y, x = np.fft.fftfreq(h, 1 / h)[:, None], np.fft.fftfreq(w, 1 / w)[None, :]
    disc = np.clip(radius + 0.5 - np.hypot(x, y), 0, 1)
    spread = np.fft.rfft2(disc / disc.sum())[..., None]
    return np.fft.irfft2(np.fft.rfft2(light, axes=(0, 1)) * spread, s=(h, w), axes=(0, 1)).astype(np.float32)


def garden(size: int = 1536, seed: int = 23) -> NDArray[np.float32]:
    """A hedge and trees behind it far out of focus: leaves in clumps, sun that glints on them, sky between, some blossoms."""
    rng = np.random.default_rng(seed)
    shape = (size, size)
    clump, leaf, gap, warm = (noise(rng, shape, spread, spread) for spread in (75, 7, 30, 120))
    high = (0.5 - 0.5 * np.cos(2 * np.pi * np.arange(size) / size)).astype(np.float32)[:, None]  # half way up, trees stand open
    shade = np.exp(0.5 * clump + 0.6 * leaf)[..., None]
    light = shade * (0.055 + 0.05 * high[..., None]) * np.array([0.66, 1.0, 0.33])
    light *= 1 + 0.12 * warm[..., None] * np.array([1.0, 0.2, -0.2])
    sky = 0.8 * np.clip(1.2 * (gap + 0.9 * clump + 1.4 * high - 2.7), 0, 1)[..., None]
    light += sky * (np.array([0.62, 0.74, 0.80]) - light)
    shaded = np.flatnonzero((clump + 0.5 * leaf > 0.2).ravel())
    for count, bright, colours in (
        (1400, 26, [(0.85, 1.0, 0.45), (1.0, 0.95, 0.6), (0.7, 0.95, 0.4)]),
        (110, 110, [(1.0, 0.93, 0.72), (0.9, 1.0, 0.8)]),
        (150, 55, [(1.0, 0.45, 0.55), (0.95, 0.8, 0.85), (0.75, 0.5, 0.95)]),
    ):
        at = np.unravel_index(rng.choice(shaded, count), shape)
        energy = bright * rng.lognormal(0, 0.6, count)
        light[at] += energy[:, None] * np.array(colours)[rng.integers(0, len(colours), count)]
    seen = np.clip(_out_of_focus(light.astype(np.float32), 20 * size / 1536), 0, None)
    return np.clip(srgb_from_linear(seen / (1 + 0.35 * seen)), 0.02, 1).astype(np.float32)


def heather(size: int = 2048, seed: int = 13) -> NDArray[np.float32]:
    """A melange yarn's flecks along the wales, as shading round a middle grey."""
    rng = np.random.default_rng(seed)
    fleck = noise(rng, (size, size), 1.2, 9) * 0.6 + noise(rng, (size, size), 0.8, 3) * 0.4
    tone = 0.70 + 0.075 * fleck + 0.10 * np.clip(fleck - 1.0, 0, None)
    return np.repeat(np.clip(tone, 0.1, 1)[..., None], 3, axis=2).astype(np.float32)


def jersey(size: int = 768, wales: int = 56, courses: int = 76, seed: int = 15) -> NDArray[np.float32]:
    """A fine knit: columns of loops like small V's, of yarn that is here thicker, there thinner, as shading round a middle grey."""
    rng = np.random.default_rng(seed)
    y, x = np.mgrid[0:size, 0:size] / size
    x = x * wales + 0.10 * noise(rng, (size, size), 3, 40) + 0.05 * noise(rng, (size, size), 14, 14)
    y = y * courses + 0.12 * noise(rng, (size, size), 30, 5)
    part = np.abs(x % 1 - 0.5) * 2  # 0 in the middle of a column, 1 between two
    leg = 0.5 + 0.5 * np.cos(2 * np.pi * (y + 0.55 * part))
    loop = 0.62 * (1 - part**3) + 0.38 * leg * (1 - 0.5 * part)
    yarn = (
        0.5 * noise(rng, (size, size), 60, 2.5) + 0.3 * noise(rng, (size, size), 2.5, 50) + 0.3 * noise(rng, (size, size), 3, 3)
    )
    tone = 0.66 * (1 + 0.22 * (loop - loop.mean()) + 0.010 * yarn)
    return np.repeat(np.clip(tone, 0.1, 1)[..., None], 3, axis=2).astype(np.float32)


def washed(size: int = 2048, seed: int = 14) -> NDArray[np.float32]:
    """Pigment washed out in clouds and along creases, as shading round a middle grey."""
    rng = np.random.default_rng(seed)
    clouds = (
        noise(rng, (size, size), 120, 120) * 0.5
        + noise(rng, (size, size), 34, 34) * 0.35
        + noise(rng, (size, size), 9, 9) * 0.25
    )
    crease = np.exp(-np.abs(noise(rng, (size, size), 150, 60)) * 9)
    tone = 0.66 + 0.052 * clouds + 0.10 * crease * np.clip(clouds, 0, 1)
    return np.repeat(np.clip(tone, 0.1, 1)[..., None], 3, axis=2).astype(np.float32)


def write_shipped(folder: Path, quality: int = 80) -> None:
    """Draw all surfaces that ship as JPEG files."""
    drawn = {
        "oak": oak(3072, 3072)[0],
        "walnut": walnut(3072, 3072),
        "limed": limed(3072, 3072),
        "slate": slate(2560),
        "marble": marble(2560),
        "linen": linen(2048),
        "plaster": plaster(1024),
        "lawn": lawn(),
        "garden": garden(),
        "heather": heather(1024),
        "jersey": jersey(),
        "washed": washed(1024),
    }
    for name, pixels in drawn.items():
        Image.fromarray((pixels * 255 + 0.5).astype(np.uint8)).save(folder / f"{name}.jpg", quality=quality)
