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

import numpy as np
from numpy.typing import NDArray

LLVM = Path("/usr/lib/x86_64-linux-gnu/libLLVM.so.19.1")
MAX_SAMPLES_A_WAVE = 12_000_000  # keeps one kernel launch under some 6 GB
PROBE = 0.5

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


def texture_map(scene: Scene, size: tuple[int, int], shape: str) -> Image:
    """u, v of the named shape at each pixel's centre, (h, w, 2) float32, NaN where it is not the first thing seen."""
    mi = mitsuba()
    w, h = size
    with tempfile.TemporaryDirectory() as folder:
        described = scene(size, {}, Path(folder))
        described["sensor"]["type"] = "perspective"
        for lens in ("aperture_radius", "focus_distance"):
            described["sensor"].pop(lens, None)
        described[shape]["id"] = shape
        loaded = mi.load_dict(described)
    wanted = next(s for s in loaded.shapes() if s.id() == shape)
    sensor = loaded.sensors()[0]
    out = np.full((h, w, 2), np.nan, np.float32)
    if "scalar" in mi.variant():
        for y, x in np.ndindex(h, w):
            ray, _ = sensor.sample_ray(0, 0.5, [(x + 0.5) / w, (y + 0.5) / h], [0.5, 0.5])
            hit = loaded.ray_intersect(ray)
            if hit.is_valid() and hit.shape == wanted:
                out[y, x] = hit.uv
        return out
    ys, xs = np.divmod(np.arange(w * h), w)
    film = mi.Point2f(((xs + 0.5) / w).astype(np.float32), ((ys + 0.5) / h).astype(np.float32))
    ray, _ = sensor.sample_ray(mi.Float(0), mi.Float(0.5), film, mi.Point2f(0.5))
    hit = loaded.ray_intersect(ray)
    mask = np.array(hit.is_valid() & (hit.shape == mi.ShapePtr(wanted))).astype(bool)
    uv = np.array(hit.uv).reshape(2, -1).T.astype(np.float32)
    out.reshape(-1, 2)[mask] = uv[mask]
    return out


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
    reach = max(2, size[0] // 400)
    maps = {r["id"]: dilate(texture_map(scene, size, r["id"]), reach) for r in pack["regions"] if "panel" in r}
    return light, maps, time.monotonic() - start
