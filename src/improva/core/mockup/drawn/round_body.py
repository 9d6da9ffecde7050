"""Tumblers, bottles and mugs: a profile rotated about its axis, in perspective, on a seamless sweep."""

from __future__ import annotations

import math
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats
from ...template import Panel, Template
from ..scene import SceneInfo
from . import light
from .body import Band, Body, body_figures, handle_line, profile
from .camera import Camera, corners, hit_band, hit_rod

Drawn = tuple[Floats, dict[str, Floats], dict[str, Floats]]
Window = tuple[slice, slice]
SAMPLES = 2
"""Samples per side of each pixel."""

SWEEP = (0.66, 0.64, 0.61)
WHITE = np.array((0.86, 0.86, 0.85), np.float32)
HANDLE_MM = 6.0
SPREAD_PX = 3
GRAIN = 0.0035
"""Noise in linear light; it hides 8-bit banding in the soft shades of the backdrop."""


def _floor(camera: Camera, body: Body) -> tuple[Floats, Floats]:
    """Return the sweep's light (h, w, 3), and the light that the print reflects on to it (h, w), computed coarse and smoothed."""
    step = 4
    ray = camera.ray[::step, ::step]
    down = -camera.eye[2] / np.minimum(ray[..., 2], -1e-4)
    x, y = camera.eye[0] + down * ray[..., 0], camera.eye[1] + down * ray[..., 1]
    on_floor = (ray[..., 2] < -1e-4) & (y < 9 * body.full)
    r, tall = body.radius(0), body.full
    shade = np.zeros(x.shape, np.float32)
    rng = np.random.default_rng(0)
    for lamp, weight in zip(light.LAMPS, (0.5, 0.16, 0.24), strict=True):
        blocked = np.zeros(x.shape, np.float32)
        for _ in range(40):
            d = lamp.axis + rng.normal(0, 0.20, 3).astype(np.float32)
            d[2] = max(d[2], 0.08)
            flat = math.hypot(d[0], d[1])
            ex, ey = d[0] / flat, d[1] / flat
            along = -(x * ex + y * ey)
            past = np.abs(x * ey - y * ex)
            reach = along - np.sqrt(np.maximum(r * r - past * past, 0))
            blocked += (past < r) & (along > 0) & (reach * d[2] / flat < tall)
        shade += weight * blocked / 40
    away = np.maximum(np.hypot(x, y) - r, 0)
    shade = np.clip(shade + 0.42 * np.exp(-away / (0.045 * tall)), 0, 0.93)
    far = np.clip((y / tall + 0.5) / 8, 0, 1)
    level = (1 - 0.16 * far) * np.where(on_floor, 1 - shade, 1)
    bounce = np.where(on_floor & (y < r), 0.20 * np.exp(-away / (0.12 * tall)), 0)
    w, h = camera.size
    soft = cv2.GaussianBlur(level.astype(np.float32), (0, 0), 1.2)
    grown = cv2.resize(soft, (w, h), interpolation=cv2.INTER_LINEAR)
    across = np.linspace(-1, 1, w, dtype=np.float32)
    grown *= (1.04 - 0.10 * (across + 0.35) ** 2)[None, :]
    lifted = cv2.resize(cv2.GaussianBlur(bounce.astype(np.float32), (0, 0), 2), (w, h))
    return np.asarray(grown[..., None] * np.array(SWEEP, np.float32), np.float32), np.asarray(lifted, np.float32)


def _wrap_place(panel: Panel, x: Any, y: Any, f: Any, angle_deg: float) -> tuple[Any, Any]:
    """Return u and v of points on the print's band; u leaves 0…1 in the gap at a handle."""
    round_mm = panel.level().trim_mm[0] + panel.gap_mm
    at = np.arctan2(x, -y) / (2 * math.pi) + angle_deg / 360  # in turns, to the right of the wrap's middle
    at = (at + 0.5) % 1 - 0.5
    return 0.5 + at * round_mm / panel.level().trim_mm[0], 1 - f


class _Plate:
    """The samples being drawn: light, depth and texture coordinates; nearer things cover farther ones."""

    def __init__(self, body: Body, camera: Camera, info: SceneInfo) -> None:
        w, h = camera.size
        self.body, self.camera, self.print = body, camera, info.regions[0].id
        self.base, lifted = _floor(camera, body)
        self.basis = {region.id: np.zeros((h, w, 3), np.float32) for region in info.regions}
        self.basis[self.print] += lifted[..., None] * 0.5
        self.uv = np.full((h, w, 2), np.nan, np.float32)
        self.depth = np.full((h, w), np.inf, np.float32)

    def nearer(self, window: Window, t: Floats) -> NDArray[np.bool_]:
        """Return the mask (h, w) of points at distance ``t`` in front of all that was drawn, and clear what they hide."""
        mask = t < self.depth[window]
        self.depth[window][mask] = t[mask]
        self.uv[window][mask] = np.nan
        return np.asarray(mask)

    def lay(self, window: Window, mask: NDArray[np.bool_], part: str, shine: Any, glow: Any) -> None:
        """Write highlights (n, 3) to the base, and light (n, 3) to the region ``part`` or to the base, where ``mask`` (h, w) is set."""
        self.base[window][mask] = shine
        for plane in self.basis.values():
            plane[window][mask] = 0
        if part in self.basis:
            self.basis[part][window][mask] = glow
        else:
            self.base[window][mask] += glow * WHITE

    def band(self, band: Band, panel: Panel, fixed: float) -> None:
        """Draw one band of the profile."""
        window = self.camera.window(corners(max(band.r), band.z))
        rays, body = self.camera.ray[window], self.body
        t, f = hit_band(band, self.camera.eye, rays)
        mask = self.nearer(window, t)
        if not mask.any():
            return
        ray, at = rays[mask], f[mask]
        hit = self.camera.eye + t[mask][:, None] * ray
        normal = _normal(band, hit, at)
        if band.stuff == "steel":
            return self.lay(window, mask, "", light.steel(normal, ray), 0.0)
        if band.stuff == "inside":
            deep = np.clip((hit[:, 2:3] - body.below) / body.full, 0.25, 1) ** 0.8
            return self.lay(window, mask, "inside", light.gloss(normal, ray, 0.1) * 0.5, light.diffuse(normal) * 0.75 * deep)
        glow = light.diffuse(normal) * (0.80 + 0.20 * np.clip(hit[:, 2:3] / (0.16 * body.full), 0, 1))
        if band.stuff != "print":
            return self.lay(window, mask, band.stuff, light.gloss(normal, ray, 0.08), glow)
        u, v = _wrap_place(panel, hit[:, 0], hit[:, 1], at, fixed)
        on = (u >= 0) & (u <= 1)
        printed, bare = mask.copy(), mask.copy()
        printed[mask], bare[mask] = on, ~on
        shine = light.gloss(normal, ray)
        self.lay(window, bare, "", shine[~on], glow[~on])
        self.lay(window, printed, self.print, shine[on], glow[on])
        self.uv[window][printed] = np.stack([u, v], -1).astype(np.float32)[on]

    def rod(self, a: Floats, b: Floats) -> None:
        """Draw a straight piece of the handle between two points (3,) in mm."""
        half = (-HANDLE_MM, HANDLE_MM)
        window = self.camera.window(np.concatenate([a + corners(HANDLE_MM, half), b + corners(HANDLE_MM, half)]))
        rays = self.camera.ray[window]
        t, normal = hit_rod(a, b, HANDLE_MM, self.camera.eye, rays)
        mask = self.nearer(window, t)
        self.lay(window, mask, "handle", light.gloss(normal[mask], rays[mask]), light.diffuse(normal[mask]) * 0.94)


def draw_turned(template: Template, info: SceneInfo) -> Drawn:
    """Return base, basis and maps of a round blank at the scene's native size."""
    body = body_figures(template)
    fixed = 0.0 if info.turns else next(iter(info.views.values()))
    size = (info.px[0] * SAMPLES, info.px[1] * SAMPLES)
    plate = _Plate(body, Camera(body, size, body.handle_reach(fixed)), info)
    for band in profile(body):
        plate.band(band, template.panels[0], fixed)
    for a, b in handle_line(body, fixed) if body.handle else ():
        plate.rod(a, b)
    base, basis, place = reduced(plate.base, plate.basis, {plate.print: plate.uv}, info)
    return base, basis, place


def _normal(band: Band, hit: Floats, f: Floats) -> Floats:
    """Return unit normals (n, 3) of points on a band, interpolated between its ends."""
    out = np.hypot(hit[:, 0], hit[:, 1])
    n_out = band.n0[0] + (band.n1[0] - band.n0[0]) * f
    n_up = band.n0[1] + (band.n1[1] - band.n0[1]) * f
    normal = np.stack([hit[:, 0] / out * n_out, hit[:, 1] / out * n_out, n_up], -1).astype(np.float32)
    return np.asarray(normal / np.linalg.norm(normal, axis=1, keepdims=True), np.float32)


def reduced(base: Floats, basis: dict[str, Floats], maps: dict[str, Floats], info: SceneInfo) -> Drawn:
    """Average samples to pixels, add a little grain, and extend the texture coordinates past the edge.

    ``base`` and ``basis`` are (h, w, 3), ``maps`` (h, w, 2), at the samples' resolution.
    """
    size = info.px

    def mean(plane: Floats) -> Floats:
        return np.asarray(cv2.resize(np.ascontiguousarray(plane, np.float32), size, interpolation=cv2.INTER_AREA), np.float32)

    places, plain = {}, np.ones((size[1], size[0], 1), np.float32)
    for name, uv in maps.items():
        near = mean((~np.isnan(uv[..., 0])).astype(np.float32))
        with np.errstate(invalid="ignore", divide="ignore"):
            place = mean(np.nan_to_num(uv)) / near[..., None]
        place[near < 0.3] = np.nan
        places[name] = spread(place, SPREAD_PX)
        plain *= 1 - near[..., None]  # a print has its own texture
    grain = np.random.default_rng(1).normal(0, GRAIN, (size[1], size[0], 1)).astype(np.float32)
    return np.maximum(mean(base) + grain * plain, 0), {k: mean(v) for k, v in basis.items()}, places


def spread(uv: Floats, reach: int) -> Floats:
    """Carry u, v (h, w, 2) outward by ``reach`` pixels, sideways first, so that pixels on the silhouette sample real art."""
    known = ~np.isnan(np.pad(uv[..., 0], 1, constant_values=np.nan))
    wide = cv2.dilate(known.astype(np.uint8), np.ones((2 * reach + 1, 2 * reach + 1), np.uint8))[1:-1, 1:-1] > 0
    ys, xs = np.nonzero(wide & ~known[1:-1, 1:-1])  # the few positions that can be reached
    out = uv.copy()
    for _ in range(reach):
        for dy, dx in ((0, 1), (0, -1), (1, 0), (-1, 0)):
            gained = known[ys + 1 - dy, xs + 1 - dx] & ~known[ys + 1, xs + 1]
            y, x = ys[gained], xs[gained]
            out[y, x] = out[y - dy, x - dx]
            known[y + 1, x + 1] = True
    return out
