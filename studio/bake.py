"""Bake a scene into a pack: a base pass, one basis a region, and a texture map a printed panel.

    base    = R(every region black)
    basis_k = (R(region k at 0.5) - R(black)) / 0.5

in linear light. The same seeds serve every pass, so that most of the noise cancels in the difference;
what is left is removed by Open Image Denoise with albedo and normal guides.
"""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

LLVM = Path("/usr/lib/x86_64-linux-gnu/libLLVM.so.19.1")
MAX_SAMPLES_A_WAVE = 12_000_000  # keeps one kernel launch under some 6 GB
PROBE = 0.5
FAINTEST = 0.002
"""Light on the surroundings that is given up: half an 8-bit step where the table is brightest."""

Image = NDArray[np.float32]
Scene = Callable[[tuple[int, int], dict[str, Any], Path], dict[str, Any]]


def mitsuba() -> Any:
    """Mitsuba with its fast variant where Debian's libllvm19 is installed, else its portable one."""
    if LLVM.exists():
        os.environ.setdefault("DRJIT_LIBLLVM_PATH", str(LLVM))
    import mitsuba as mi

    if mi.variant() is None:
        mi.set_variant("llvm_ad_rgb" if LLVM.exists() else "scalar_rgb")
    return mi


def render(scene: Scene, size: tuple[int, int], reflectance: dict[str, Any], samples: int, seed: int = 0) -> Image:
    """Path-trace to linear RGB with albedo and normal guides: (h, w, 9) float32, not denoised."""
    mi = mitsuba()
    w, h = size
    with tempfile.TemporaryDirectory() as folder:
        described = scene(size, reflectance, Path(folder))
        described["integrator"] = {
            "type": "aov", "aovs": "albedo:albedo,normal:sh_normal", "path": {"type": "path", "max_depth": 9},
        }  # fmt: skip
        loaded = mi.load_dict(described)
    wave = max(1, min(samples, MAX_SAMPLES_A_WAVE // (w * h)))
    total = np.zeros((h, w, 9), np.float64)
    done = 0
    while done < samples:
        now = min(wave, samples - done)
        total += np.array(mi.render(loaded, spp=now, seed=seed + done))[..., :9] * now
        done += now
    return (total / samples).astype(np.float32)


def denoised(colour: Image, guides: Image) -> Image:
    """Remove the noise of a (h, w, 3) linear image with the guides of :func:`render`."""
    from pyoidn import denoise

    albedo, normal = np.clip(guides[..., 3:6], 0, 1), np.clip(guides[..., 6:9], -1, 1)
    clean = denoise(np.maximum(colour, 0), np.ascontiguousarray(albedo), np.ascontiguousarray(normal), hdr=True)
    return np.asarray(clean, dtype=np.float32)


def first_seen(scene: Scene, size: tuple[int, int]) -> tuple[NDArray[np.str_], Image]:
    """What each pixel's centre sees first, through a pinhole: names of shapes (h, w), and their u, v (h, w, 2)."""
    mi = mitsuba()
    w, h = size
    with tempfile.TemporaryDirectory() as folder:
        described = scene(size, {}, Path(folder))
        described["sensor"]["type"] = "perspective"
        for lens in ("aperture_radius", "focus_distance"):
            described["sensor"].pop(lens, None)
        shapes = [name for name, part in described.items() if isinstance(part, dict) and part["type"] in ("ply", "rectangle")]
        for name in shapes:
            described[name]["id"] = name
        loaded = mi.load_dict(described)
    by_id = {shape.id(): shape for shape in loaded.shapes()}
    sensor = loaded.sensors()[0]
    names, uv = np.full((h, w), "", dtype="U24"), np.zeros((h, w, 2), np.float32)
    if "scalar" in mi.variant():
        for y, x in np.ndindex(h, w):
            ray, _ = sensor.sample_ray(0, 0.5, [(x + 0.5) / w, (y + 0.5) / h], [0.5, 0.5])
            hit = loaded.ray_intersect(ray)
            if hit.is_valid():
                names[y, x], uv[y, x] = hit.shape.id(), hit.uv
        return names, uv
    ys, xs = np.divmod(np.arange(w * h), w)
    film = mi.Point2f(((xs + 0.5) / w).astype(np.float32), ((ys + 0.5) / h).astype(np.float32))
    ray, _ = sensor.sample_ray(mi.Float(0), mi.Float(0.5), film, mi.Point2f(0.5))
    hit = loaded.ray_intersect(ray)
    uv.reshape(-1, 2)[:] = np.array(hit.uv).reshape(2, -1).T
    for name in shapes:
        mask = np.array(hit.is_valid() & (hit.shape == mi.ShapePtr(by_id[name]))).astype(bool)
        names.reshape(-1)[mask] = name
    return names, uv


def texture_map(names: NDArray[np.str_], uv: Image, shape: str) -> Image:
    """u, v of the named shape, NaN where it is not the first thing seen."""
    return np.where((names == shape)[..., None], uv, np.nan).astype(np.float32)


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
    return spread


def bake(scene: Scene, pack: dict[str, Any], size: tuple[int, int], samples: int, report: Callable[[str], None] = print
         ) -> tuple[dict[str, Image], dict[str, Image], float]:  # fmt: skip
    """All passes of a scene: ({"base" or region: (h, w, 3)}, {printed region: (h, w, 2)}, seconds)."""
    start = time.monotonic()
    regions = [region["id"] for region in pack["regions"]]
    black = render(scene, size, {}, samples)
    light = {"base": denoised(black[..., :3], black)}
    report(f"base {time.monotonic() - start:.0f} s")
    for region in regions:
        lit = render(scene, size, {region: PROBE}, samples)
        # Both signs are denoised and set against each other: clipping the noise at nought would leave its mean as light.
        added = (lit[..., :3] - black[..., :3]) / PROBE
        light[region] = denoised(added, lit) - denoised(-added, lit)
        report(f"{region} {time.monotonic() - start:.0f} s")
    names, uv = first_seen(scene, size)
    product = ~np.isin(names, ["", *pack["surroundings"]])
    for region in regions:
        light[region] = calmed(light[region], product)
    reach = max(2, size[0] // 400)
    maps = {r["id"]: dilate(texture_map(names, uv, r["id"]), reach) for r in pack["regions"] if "panel" in r}
    return light, maps, time.monotonic() - start
