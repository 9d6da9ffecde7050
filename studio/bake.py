"""Bake a scene: a base pass, one basis a region, and where each pixel looks.

    base          = R(every region black)
    basis_product = (R(k as usual, grounds as usual) - R(product black, grounds as usual)) / usual
    basis_ground  = (R(g at p, product black, other grounds at h) - R(the same, g at h)) / (p - h)

in linear light, h being half of what a ground usually reflects. Light that goes from one region to another grows with the
product of both reflectances, which no sum of bases holds. What passes between product and ground belongs to the product's
basis, taken on the scene's own ground: it is exact there for every print. What a part sends to itself, as the inside of a
mug does, is exact in its usual colour; what passes between table and wall is shared by both.
The same seeds serve every pass, so that most of the noise cancels in the difference;
what is left is removed by Open Image Denoise with albedo and normal guides.
"""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from improva.core.ink import colour_reflectance
from improva.surfaces import surface

from . import seen
from .stage import Stage, rgb
from .tracing import denoised, render

PRINT = 0.4
"""What a print usually reflects."""
PROBE, LEAST = 0.8, 0.35
"""What a ground reflects while its basis is measured; and the least that a part does, for noise would drown what is darker."""
FAINTEST = 0.002
"""Light on the surroundings that is given up: half an 8-bit step where the table is brightest."""
SMALL = 640
"""Pictures narrower than this are traced whole: parts of them would be too coarse."""
AIR = 0.035
"""Traced at full size round the product, in picture widths: where its contact shadow lies."""

NEAR = 0.015
"""The same round one part of it."""

Image = NDArray[np.float32]
Window = tuple[int, int, int, int]


@dataclass(frozen=True)
class Scene:
    """What the studio bakes.

    Attributes:
        pack: what goes into ``scene.toml``.
        build: puts everything on a stage.
        exposure: multiplies linear light before the tone curve.
        surroundings: shapes that do not belong to the product.
        sharp: the surroundings are in focus too, so that all of the base is traced at full size.
        measures: title, ends in cm and length in mm of what is drawn on size pictures.
    """

    pack: dict[str, Any]
    build: Callable[[Stage], None]
    exposure: float = 1.0
    surroundings: tuple[str, ...] = ("table", "wall")
    sharp: bool = False
    measures: tuple[tuple[str, tuple[float, ...], tuple[float, ...], float], ...] = ()

    @property
    def id(self) -> str:
        return str(self.pack["id"])

    @property
    def regions(self) -> list[dict[str, Any]]:
        return list(self.pack["regions"])


@dataclass(frozen=True)
class Bake:
    """Passes at the picture's size.

    Attributes:
        light: ``base`` and every region, (h, w, 3) linear.
        maps: u and v a region that is printed or shows a surface, (h, w, 2), NaN where it is not seen.
        cover: how much of each pixel is the product, (h, w) in 0…1.
        shade: light on the ground against the light without the product, (h, w).
        depth: distance in cm, (h, w).
        lens: what blurs with distance, as in ``scene.toml``.
        measures: of the scene, with points in px.
    """

    light: dict[str, Image]
    maps: dict[str, Image]
    cover: Image
    shade: Image
    depth: Image
    seconds: float
    lens: dict[str, float]
    measures: list[dict[str, Any]] = field(default_factory=list)


def staged(scene: Scene, size: tuple[int, int], reflectance: dict[str, Any], folder: Path, bare: bool = False) -> Stage:
    """The scene on its stage; ``bare`` leaves the product out."""
    stage = Stage(size, reflectance, folder)
    scene.build(stage)
    if bare:
        gone = [n for n, p in stage.parts.items() if seen.is_shape(p) and n.split("@")[0] not in scene.surroundings]
        for name in gone:
            del stage.parts[name]
    return stage


def trace(scene: Scene, size: tuple[int, int], reflectance: dict[str, Any], samples: int, *, window: Window | None = None,
          bare: bool = False, seed: int = 0) -> Image:  # fmt: skip
    """One render, not denoised: (h, w, 9) linear R, G, B, albedo and normal of a window of the frame."""
    with tempfile.TemporaryDirectory() as folder:
        return render(staged(scene, size, reflectance, Path(folder), bare).parts, samples, window, seed)


def usual(region: dict[str, Any]) -> NDArray[np.float64]:
    """What a region usually reflects, (3,) linear R, G, B: its own surface's mean, its own colour, or a print's middle grey."""
    shown = surface(region["surface"]) if "surface" in region else None
    if shown is not None:
        return np.asarray(shown.mean[::-1], np.float64)
    if "colours" in region:
        return np.asarray(
            colour_reflectance(region["colours"][region.get("default", next(iter(region["colours"])))]), np.float64
        )
    return np.full(3, PRINT)


def added(lit: Image, reference: Image, more_reflected: NDArray[np.float64]) -> Image:
    """What a reflectance of 1 adds, denoised with both signs: clipping the noise at nought would leave its mean as light."""
    more = ((lit[..., :3] - reference[..., :3]) / more_reflected).astype(np.float32)
    return np.asarray(denoised(more, lit) - denoised(-more, lit), np.float32)


def window_of(mask: NDArray[np.bool_], air: float = AIR) -> Window:
    """The box (x, y, w, h) round a mask with some air."""
    h, w = mask.shape
    ys, xs = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    if not len(xs):
        return 0, 0, w, h
    d = max(2, round(air * w))
    x0, y0, x1, y1 = max(0, xs[0] - d), max(0, ys[0] - d), min(w, xs[-1] + 1 + d), min(h, ys[-1] + 1 + d)
    return int(x0), int(y0), int(x1 - x0), int(y1 - y0)


def laid(low: Image, high: Image, window: Window, size: tuple[int, int], air: float) -> Image:
    """A window at full size, laid into a coarser frame brought up to ``size``, its borders melted within ``air``."""
    x, y, w, h = window
    frame_w, frame_h = size
    out = cv2.resize(low, (frame_w, frame_h), interpolation=cv2.INTER_CUBIC)
    ramp = max(1, round(0.8 * air * frame_w))  # melted within the air round what must be sharp
    along, down = np.arange(w, dtype=np.float32) + 0.5, np.arange(h, dtype=np.float32) + 0.5
    full = np.float32(ramp)
    left, right = (along if x else along + full), ((w - along) if x + w < frame_w else along * 0 + full)
    top, foot = (down if y else down + full), ((h - down) if y + h < frame_h else down * 0 + full)
    weight = np.clip(np.minimum(left, right), 0, full)[None, :] * np.clip(np.minimum(top, foot), 0, full)[:, None] / full**2
    part = out[y : y + h, x : x + w]
    part += weight[..., None] * (high - part)
    return np.asarray(out, np.float32)


def calmed(basis: Image, product: NDArray[np.bool_]) -> Image:
    """Smooth the light a region throws on its surroundings, which is soft, and leave the product itself sharp.

    What noise remains there would be neither seen nor compressed. ``product`` is a (h, w) mask of the product.
    """
    w = product.shape[1]
    reach = max(1, w // 700)
    sharp = cv2.dilate(product.astype(np.uint8), np.ones((2 * reach + 1,) * 2, np.uint8)).astype(bool)
    sigma = max(1.0, w / 270)
    outside = (~sharp).astype(np.float32)
    steady = cv2.medianBlur(np.ascontiguousarray(basis), 5) * outside[..., None]
    weight = cv2.GaussianBlur(outside, (0, 0), sigma)[..., None]
    soft = cv2.GaussianBlur(steady, (0, 0), sigma) / np.maximum(weight, 1e-3)
    soft = np.sign(soft) * np.maximum(np.abs(soft) - FAINTEST, 0)
    return np.where(sharp[..., None], basis, soft).astype(np.float32)


def dilate(uv: Image, reach_px: int) -> Image:
    """Carry u, v outward by up to ``reach_px``, so that pixels on the silhouette sample real art."""
    from scipy.ndimage import distance_transform_edt

    empty = np.isnan(uv[..., 0])
    distance, (iy, ix) = distance_transform_edt(empty, return_indices=True)
    spread = uv[iy, ix]
    spread[distance > reach_px] = np.nan
    return np.asarray(spread, np.float32)


def parted(low: Image, cover: Image, soft: float) -> Image:
    """Soft light on a ground, traced at half the size, brought up with the product's own sharp silhouette.

    Ground and product are told apart, each is carried on beneath the other, and both are joined by the cover at full size.
    ``soft`` is the reach in px over which what noise is left is smoothed: it would be seen by nobody, but compressed by none.
    """
    small = cv2.resize(cover, (low.shape[1], low.shape[0]), interpolation=cv2.INTER_AREA)
    size = (cover.shape[1], cover.shape[0])
    layers = []
    for share in (1 - small, small):
        known = (share > 0.5).astype(np.float32)
        if not known.any():
            layers.append(np.zeros((*cover.shape, 3), np.float32))
            continue
        place = np.where(known[..., None] > 0, low / np.maximum(share, 0.5)[..., None], np.nan).astype(np.float32)
        full = cv2.GaussianBlur(dilate(place, low.shape[1]), (0, 0), soft)
        layers.append(cv2.resize(full, size, interpolation=cv2.INTER_CUBIC))
    return np.asarray(layers[0] * (1 - cover[..., None]) + layers[1] * cover[..., None], np.float32)


def kept_apart(seen: dict[str, Image], spread: dict[str, Image]) -> dict[str, Image]:
    """Panels sewn to each other are spread only to where no other of them is seen or nearer."""
    from scipy.ndimage import distance_transform_edt

    if not seen:
        return {}
    away = np.stack([distance_transform_edt(np.isnan(uv[..., 0])) for uv in seen.values()])
    nearest = away.argmin(axis=0)
    return {name: np.where((nearest == i)[..., None], spread[name], np.nan).astype(np.float32) for i, name in enumerate(seen)}


def shade_of(scene: Scene, grounds: list[str], lit: Image, size: tuple[int, int], samples: int) -> Image:
    """Light on the ground against that without the product, smoothed; 1 where there is no ground."""
    small = (size[0] // 2, size[1] // 2)
    bare = trace(scene, small, dict.fromkeys(grounds, PROBE), samples, bare=True)
    black = trace(scene, small, {}, samples, bare=True)
    free = cv2.resize(added(bare, black, np.full(3, PROBE)), size, interpolation=cv2.INTER_CUBIC).mean(axis=2)
    shade = np.where(free > 0.02, np.clip(lit.mean(axis=2) / np.maximum(free, 0.02), 0, 1), 1)
    return np.asarray(cv2.GaussianBlur(shade.astype(np.float32), (0, 0), max(size[0] / 900, 0.5)), np.float32)


@dataclass
class _Tracer:
    """Traces a scene's passes in windows at full size, or the whole frame at a part of it."""

    scene: Scene
    size: tuple[int, int]
    samples: int
    references: dict[tuple[bool, Window | None, int], Image] = field(default_factory=dict)

    def at(self, part: int) -> tuple[int, int]:
        return -(-self.size[0] // part), -(-self.size[1] // part)

    def around(self, ground: bool) -> dict[str, Any]:
        """What everything reflects while a ground, or a part of the product, is measured."""
        found = {}
        for region in self.scene.regions:
            if "on" not in region:
                is_ground = region["id"] in self.scene.surroundings
                share = (0.5 if ground else 1.0) if is_ground else 0.0
                found[region["id"]] = rgb(*(share * usual(region)))
        return found

    def reference(self, ground: bool, window: Window | None, part: int) -> Image:
        """What the bases of grounds, or those of parts of the product, are set against; made once."""
        key = (ground, window, part)
        if key not in self.references:
            self.references[key] = trace(self.scene, self.at(part), self.around(ground), self.samples, window=window)
        return self.references[key]

    def base(self, window: Window | None, part: int = 1) -> Image:
        black = trace(self.scene, self.at(part), {}, self.samples, window=window)
        return denoised(black[..., :3], black)

    def basis(self, region: dict[str, Any], window: Window | None, part: int = 1) -> Image:
        ground, as_usual = region["id"] in self.scene.surroundings, usual(region)
        probe = np.full(3, PROBE) if ground else np.clip(as_usual, LEAST, 1)
        lit = trace(self.scene, self.at(part), {**self.around(ground), region["id"]: rgb(*probe)}, self.samples, window=window)
        return added(lit, self.reference(ground, window, part), probe - as_usual / 2 if ground else probe)


def bake(scene: Scene, size: tuple[int, int], samples: int, report: Callable[[str], None] = print) -> Bake:
    """All passes of a scene.

    The base is traced whole at half the size, grounds too; what a part of the product adds elsewhere, which is soft, at a
    quarter; and the product at full size.
    """
    start = time.monotonic()
    looked = seen.look(scene, size)
    frame = (0, 0, *size)
    product = window_of(looked.product > 0)
    small = size[0] < SMALL
    if small or product[2] * product[3] > 0.6 * size[0] * size[1]:
        product = frame
    tracer = _Tracer(scene, size, samples)
    sharp = frame if scene.sharp else product
    base = tracer.base(sharp)
    light = {"base": base if sharp == frame else laid(tracer.base(None, 2), base, sharp, size, AIR)}
    report(f"base {time.monotonic() - start:.0f} s")
    for region in scene.regions:
        name = region["id"]
        if "on" in region:  # it takes its cloth's light
            continue
        if name in scene.surroundings:
            soft = size[0] / (900 if name == "wall" else 2200)
            light[name] = tracer.basis(region, None) if small else parted(tracer.basis(region, None, 2), looked.product, soft)
        else:
            own, air = window_of(looked.of(name), NEAR), NEAR
            if small or own[2] * own[3] > 0.4 * product[2] * product[3]:
                own, air = product, AIR  # what it is set against is there already
            basis = tracer.basis(region, own)
            if own != frame:
                basis = laid(tracer.basis(region, None, 4), basis, own, size, air)
            light[name] = basis if small else calmed(basis, looked.product > 0)
        report(f"{name} {time.monotonic() - start:.0f} s")
    grounds = [r["id"] for r in scene.regions if r["id"] in scene.surroundings]
    shade = np.ones(size[::-1], np.float32)
    if grounds:
        lit = np.asarray(sum(light[name] for name in grounds), np.float32)
        shade = shade_of(scene, grounds, lit, size, samples)
    reach = max(2, size[0] // 400)
    maps = {name: dilate(uv, reach) for name, uv in looked.maps.items()}
    sewn = [r["id"] for r in scene.regions if "on" in r and r["id"] in maps]
    maps |= kept_apart({name: looked.maps[name] for name in sewn}, {name: maps[name] for name in sewn})
    return Bake(light, maps, looked.product, shade, looked.depth, time.monotonic() - start, looked.lens,
                looked.measures)  # fmt: skip
