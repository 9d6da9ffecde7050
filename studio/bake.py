"""Bake a scene: a base pass, one basis per region, and texture maps.

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

import math
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
from improva.core.mockup.scene import Lens
from improva.surfaces import surface
from studio import seen
from studio.bordering import evened
from studio.joining import Image, Window, calmed, continued, dilate, edged, kept_apart, laid, parted
from studio.stage import Stage, rgb
from studio.tracing import denoised, render

PRINT = 0.4
"""What a print usually reflects."""
PROBE, LEAST = 0.8, 0.35
"""What a ground reflects while its basis is measured; and the least that a part does, for noise would drown what is darker."""
SMALL = 640
"""Pictures narrower than this are traced whole: parts of them would be too coarse."""
AIR = 0.035
"""Traced at full size round the product, in picture widths: where its contact shadow lies."""

NEAR = 0.015
"""The same round one part of it."""


@dataclass(frozen=True)
class Scene:
    """A scene to bake.

    Attributes:
        pack: what goes into ``scene.toml``.
        build: puts everything on a stage.
        exposure: multiplies linear light before the tone curve.
        surroundings: shapes that do not belong to the product.
        sharp: the surroundings are in focus too, so that all of the base is traced at full size.
        measures: title, ends in cm and length in mm of what is drawn on size pictures.
        hard: paint or glaze, on which a white print must show no border; not cloth, which ends in seams.
    """

    pack: dict[str, Any]
    build: Callable[[Stage], None]
    exposure: float = 1.0
    surroundings: tuple[str, ...] = ("table", "wall")
    sharp: bool = False
    measures: tuple[tuple[str, tuple[float, ...], tuple[float, ...], float], ...] = ()
    hard: bool = False

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
    """Return the scene on its stage; ``bare`` leaves the product out."""
    stage = Stage(size, reflectance, folder)
    scene.build(stage)
    if bare:
        gone = [n for n, p in stage.parts.items() if seen.is_shape(p) and n.split("@")[0] not in scene.surroundings]
        for name in gone:
            del stage.parts[name]
    return stage


def trace(
    scene: Scene,
    size: tuple[int, int],
    reflectance: dict[str, Any],
    samples: int,
    *,
    window: Window | None = None,
    bare: bool = False,
    seed: int = 0,
) -> Image:
    """Render once without denoising: (h, w, 9) linear R, G, B, albedo and normal of a window of the frame."""
    with tempfile.TemporaryDirectory() as folder:
        return render(staged(scene, size, reflectance, Path(folder), bare).parts, samples, window, seed)


def usual(region: dict[str, Any]) -> NDArray[np.float64]:
    """Return a region's usual reflectance, (3,) linear R, G, B: its surface's mean, its own colour, or a print's mid grey."""
    shown = surface(region["surface"]) if "surface" in region else None
    if shown is not None:
        return np.asarray(shown.mean[::-1], np.float64)
    if "colours" in region:
        return np.asarray(
            colour_reflectance(region["colours"][region.get("default", next(iter(region["colours"])))]), np.float64
        )
    return np.full(3, PRINT)


def added(shaded: Image, reference: Image, more_reflected: NDArray[np.float64]) -> Image:
    """Return the light that a reflectance of 1 adds, denoised with both signs: clipping noise at zero would bias its mean."""
    more = ((shaded[..., :3] - reference[..., :3]) / more_reflected).astype(np.float32)
    return np.asarray(denoised(more, shaded) - denoised(-more, shaded), np.float32)


def window_of(mask: NDArray[np.bool_], air: float = AIR) -> Window:
    """Return the box (x, y, w, h) around a mask, with a margin."""
    h, w = mask.shape
    ys, xs = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    if not len(xs):
        return 0, 0, w, h
    d = max(2, round(air * w))
    x0, y0, x1, y1 = max(0, xs[0] - d), max(0, ys[0] - d), min(w, xs[-1] + 1 + d), min(h, ys[-1] + 1 + d)
    return int(x0), int(y0), int(x1 - x0), int(y1 - y0)


def shade_of(scene: Scene, grounds: list[str], shaded: Image, size: tuple[int, int], samples: int) -> Image:
    """Return the ground's light relative to that without the product, smoothed; 1 where there is no ground."""
    small = (size[0] // 2, size[1] // 2)
    bare = trace(scene, small, dict.fromkeys(grounds, PROBE), samples, bare=True)
    black = trace(scene, small, {}, samples, bare=True)
    free = cv2.resize(added(bare, black, np.full(3, PROBE)), size, interpolation=cv2.INTER_CUBIC).mean(axis=2)
    shade = np.where(free > 0.02, np.clip(shaded.mean(axis=2) / np.maximum(free, 0.02), 0, 1), 1)
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
        shapes = {}
        for region in self.scene.regions:
            if "on" not in region:
                is_ground = region["id"] in self.scene.surroundings
                share = (0.5 if ground else 1.0) if is_ground else 0.0
                shapes[region["id"]] = rgb(*(share * usual(region)))
        return shapes

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
        shaded = trace(
            self.scene, self.at(part), {**self.around(ground), region["id"]: rgb(*probe)}, self.samples, window=window
        )
        return added(shaded, self.reference(ground, window, part), probe - as_usual / 2 if ground else probe)


def even_borders(scene: Scene, light: dict[str, Image], product: Image) -> dict[str, Image]:
    """Light of all passes, with the borders of prints on a hard blank brought into line; ``product`` is how much of a pixel it is."""
    shown = {"base": np.ones(3), **{r["id"]: usual(r) for r in scene.regions}}
    for name in [r["id"] for r in scene.regions if "panel" in r and "on" not in r]:
        own, rest = evened(light[name], {each: plane for each, plane in light.items() if each != name}, shown, product)  # type: ignore[arg-type]
        light = {**light, **rest, name: own}
    return light


def bake(scene: Scene, size: tuple[int, int], samples: int, report: Callable[[str], None] = print) -> Bake:
    """Compute all passes of a scene.

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
            low = tracer.basis(region, None, 1 if small else 2)
            light[name] = low if small else edged(parted(low, looked.product, soft), looked.product)
        else:
            own, air = window_of(looked.of(name), NEAR), NEAR
            if small or own[2] * own[3] > 0.4 * product[2] * product[3]:
                own, air = product, AIR  # what it is set against is there already
            basis = tracer.basis(region, own)
            if own != frame:
                basis = laid(tracer.basis(region, None, 4), basis, own, size, air)
            light[name] = basis if small else calmed(basis, looked.product > 0)
        report(f"{name} {time.monotonic() - start:.0f} s")
    light = even_borders(scene, light, looked.product) if scene.hard else light
    grounds = [r["id"] for r in scene.regions if r["id"] in scene.surroundings]
    shade = np.ones(size[::-1], np.float32)
    if grounds:
        shaded = np.asarray(sum(light[name] for name in grounds), np.float32)
        shade = shade_of(scene, grounds, shaded, size, samples)
    maps = maps_of(scene, looked, size)
    return Bake(light, maps, looked.product, shade, looked.depth, time.monotonic() - start, looked.lens, looked.measures)


def maps_of(scene: Scene, looked: seen.Seen, size: tuple[int, int]) -> dict[str, Image]:
    """Return u and v a region, (h, w, 2): continued beyond what is seen by what a lens blurs, NaN farther off."""
    grounds = [r["id"] for r in scene.regions if r["id"] in scene.surroundings]
    reach = max(2, size[0] // 400)
    blurred = reach + math.ceil(float(Lens(**looked.lens).disc_px(looked.depth.max())) / 2)
    maps = {n: continued(uv, blurred) if n in grounds else dilate(uv, reach) for n, uv in looked.maps.items()}
    sewn = [r["id"] for r in scene.regions if "on" in r and r["id"] in maps]
    return maps | kept_apart({name: looked.maps[name] for name in sewn}, {name: maps[name] for name in sewn})
