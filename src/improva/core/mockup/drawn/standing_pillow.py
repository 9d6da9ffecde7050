"""A pillow of any contour that stands on a sweep, rotated and leaning back: rays against a height field with two faces."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats
from ...ink import colour_reflectance
from ...template import Template
from ..parallel import Cores
from ..scene import Passes, SceneInfo
from . import light
from .height_field import SEAM_MM, Field, Hits, rows_of
from .inflated_shape import inflated, puckered
from .round_body import GRAIN, SPREAD_PX, spread

TURN_DEG, LEAN_DEG, DOWN_DEG = 27.0, 13.0, 10.0
FAR = 4.6
"""Camera distance in sizes of the panel."""
FILLS = 0.70
PILE = 0.025
GRAIN_ROWS = 250
"""Rows of grain that are repeated further down."""
HOLLOW_MM = 9
"""Radius within which a point lower than its surroundings is shaded."""
WARM = np.array([1.02, 1.0, 0.975], np.float32)
LAMP_SAMPLES = 14
CONTACT_MM = 16
DARKEST = 0.86


@dataclass(frozen=True)
class _Pose:
    """The pillow's position: its centre, and unit axes to its right, up and towards the viewer, in mm of the room."""

    middle: Floats
    axes: Floats

    def room(self, points: Floats) -> Floats:
        """Convert points (…, 3) of the pillow to the room."""
        return np.asarray(self.middle + points @ self.axes, np.float32)

    def own(self, vectors: Floats) -> Floats:
        """Convert directions (…, 3) of the room to the pillow's axes."""
        return np.asarray(vectors @ self.axes.T, np.float32)


def _posed(mask: NDArray[np.bool_], height: Floats, mm: float) -> _Pose:
    """Rotate and tilt the pillow and stand it on its lowest point."""
    t, a = math.radians(TURN_DEG), math.radians(LEAN_DEG)
    right = np.array([math.cos(t), math.sin(t), 0.0])
    front = np.array([math.sin(t) * math.cos(a), -math.cos(t) * math.cos(a), math.sin(a)])
    axes = np.stack([right, np.cross(front, right), front]).astype(np.float32)
    ys, xs = np.nonzero(mask)
    points = _local(xs + 0.5, ys + 0.5, mask.shape, mm)
    low = min(float((points @ axes[:, 2] + sign * height[ys, xs] * axes[2, 2]).min()) for sign in (-1, 1))
    middle = -np.array([*(points.mean(axis=0) @ axes[:, :2]), low])
    return _Pose(middle.astype(np.float32), axes)


def _local(x: NDArray[np.floating], y: NDArray[np.floating], shape: tuple[int, int], mm: float) -> Floats:
    """Return pixels of the panel's mask as points (…, 3) of the pillow's middle plane."""
    return np.stack([(x - shape[1] / 2) * mm, (shape[0] / 2 - y) * mm, np.zeros_like(x)], -1).astype(np.float32)


class _Camera:
    """A pinhole on the -y side that frames the panel's full size."""

    def __init__(self, pose: _Pose, size_mm: float, tall_mm: float, px: tuple[int, int]) -> None:
        d = math.radians(DOWN_DEG)
        aim = np.array([0, 0, tall_mm * 0.47])
        self.eye = (aim + FAR * size_mm * np.array([0, -math.cos(d), math.sin(d)])).astype(np.float32)
        mm = tall_mm / (FILLS * px[1])
        self.up = np.array([0, math.sin(d), math.cos(d)])
        self.ahead = np.array([0, math.cos(d), -math.sin(d)]) * FAR * size_mm
        self.mm, self.px = mm, px

    def rays(self, rows: slice, columns: slice, pose: _Pose | None = None) -> Floats:
        """Return rays (h, w, 3) through pixels, in the room's or in a pillow's axes."""
        x, y = (((np.arange(n) + 0.5 - n / 2) * self.mm)[part, None] for n, part in zip(self.px, (columns, rows), strict=True))
        across, down = x * np.array([1.0, 0, 0]), self.ahead - y * self.up
        if pose:
            across, down = pose.own(across), pose.own(down)
        return np.asarray(down.astype(np.float32)[:, None] + across.astype(np.float32)[None])

    def window(self, points: Floats) -> tuple[slice, slice]:
        """Return the rows and columns that contain points (n, 3) of the room."""
        v = points - self.eye
        away = (v @ self.ahead) / (self.ahead @ self.ahead)
        x = v[:, 0] / away / self.mm + self.px[0] / 2
        y = self.px[1] / 2 - (v @ self.up) / away / self.mm
        low, high = np.maximum([y.min() - 4, x.min() - 4], 0), np.minimum([y.max() + 5, x.max() + 5], self.px[::-1])
        return slice(int(low[0]), int(high[0])), slice(int(low[1]), int(high[1]))


def _floor_shadow(
    mask: NDArray[np.bool_], mm: float, pose: _Pose, box: tuple[float, float, float, float], px: tuple[int, int]
) -> Floats:
    """Return the share of light that the pillow takes from the floor, on a grid of px over a box (x, y, w, h) in mm."""
    darkness = np.zeros((px[1], px[0]), np.float32)
    solid = cv2.resize(mask.astype(np.float32), None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA)
    h, w = solid.shape
    corners = np.array([(0, 0), (w, 0), (0, h)], np.float32)
    room = pose.room(_local(corners[:, 0] * 2, corners[:, 1] * 2, mask.shape, mm))
    rng = np.random.default_rng(0)
    scale = np.array([px[0] / box[2], px[1] / box[3]])
    for lamp, weight in zip(light.LAMPS, (0.46, 0.14, 0.30), strict=True):
        for _ in range(LAMP_SAMPLES):
            d = lamp.axis + rng.normal(0, 0.20, 3)
            d[2] = max(d[2], 0.12)
            cast = room[:, :2] - room[:, 2:] / d[2] * d[:2]
            to = ((cast - np.array(box[:2])) * scale).astype(np.float32)
            drawn = cv2.warpAffine(solid, cv2.getAffineTransform(corners, to), px, flags=cv2.INTER_LINEAR)
            darkness += drawn * (weight / LAMP_SAMPLES)
    to = ((room[:, :2] - np.array(box[:2])) * scale).astype(np.float32)
    ys, xs = np.mgrid[0:h, 0:w].astype(np.float32) * 2
    low = pose.room(_local(xs, ys, mask.shape, mm))[..., 2]
    near = cv2.GaussianBlur((solid * np.exp(-np.maximum(low, 0) / CONTACT_MM)).astype(np.float32), (0, 0), 2.0)
    under = cv2.warpAffine(near, cv2.getAffineTransform(corners, to), px, flags=cv2.INTER_LINEAR)
    dark = 1 - np.clip(cv2.GaussianBlur(darkness, (0, 0), 2.0), 0, 1)
    return np.asarray(1 - dark * (1 - 0.75 * np.clip(cv2.GaussianBlur(under, (0, 0), 1.5) * 2, 0, 1)), np.float32)


def draw_standing(template: Template, info: SceneInfo, cut: NDArray[np.bool_], cores: Cores) -> Passes:
    """Return the passes of a cut-out standing at an angle. ``cut`` is its shape as a mask of its panel."""
    panel = template.panel(info.regions[0].panel)
    mm = panel.trim_mm[0] / cut.shape[1]
    smooth, inside = inflated(cut, mm)
    bumpy = smooth + puckered(cut, inside, mm)
    pose = _posed(cut, smooth, mm)
    ys, xs = np.nonzero(cut)
    edge = pose.room(_local(xs[::7] + 0.5, ys[::7] + 0.5, cut.shape, mm))
    size_mm = float(max(panel.trim_mm))
    camera = _Camera(pose, size_mm, max(float(edge[:, 2].max()), 0.66 * float(np.ptp(edge[:, 0])), 0.35 * size_mm), info.px)
    air = np.array([(dx, dy, dz) for dx in (-1, 1) for dy in (-1, 1) for dz in (-1, 1)], np.float32) * float(smooth.max())
    window = camera.window((edge[:, None] + air[None]).reshape(-1, 3))
    field = Field(smooth, cut, mm, cores)
    ray = camera.rays(*window, pose)
    start = pose.own((camera.eye - pose.middle)[None])[0]
    hits = field.hit(start, ray, float(smooth.max()) + SEAM_MM)
    seen = hits.cover > 0
    at = hits.places[seen]
    shaded = _shaded(field, pose, cut, (smooth, bumpy, inside), at, size_mm)
    uv = np.stack([0.5 + at[:, 0] / panel.trim_mm[0], 0.5 - at[:, 1] / panel.trim_mm[1]], -1).astype(np.float32)
    return _passes(template, info, window, hits, shaded, uv, _ground(camera, cut, mm, pose, size_mm))


def _shaded(
    field: Field, pose: _Pose, cut: NDArray[np.bool_], heights: tuple[Floats, Floats, Floats], points: Floats, size_mm: float
) -> Floats:
    """Return the light reflected at points of the pillow (n, 3) for a reflectance of 1, (n, 3)."""
    smooth, bumpy, inside = heights
    dy, dx = (g.astype(np.float32) for g in np.gradient(np.where(cut, bumpy, 0), field.mm))
    lower = np.asarray(cv2.GaussianBlur(smooth, (0, 0), HOLLOW_MM / field.mm) - smooth, np.float32)
    pile = cv2.GaussianBlur(np.random.default_rng(2).normal(0, 1, (256, 256)).astype(np.float32), (0, 0), 0.8)
    at = rows_of(points)
    shaded = np.empty_like(at)

    def shade(rows: slice) -> None:
        x, y, z = (np.ascontiguousarray(at[rows, :, i]) for i in range(3))
        own = np.stack([-field.at(dx, x, y), field.at(dy, x, y), np.where(z >= 0, 1, -1).astype(np.float32)], -1)
        own /= np.sqrt(np.einsum("...c,...c->...", own, own))[..., None]
        up = pose.middle[2] + x * pose.axes[0, 2] + y * pose.axes[1, 2] + z * pose.axes[2, 2]
        dark = 1 - 0.34 * np.exp(-np.maximum(up, 0) / np.float32(0.09 * size_mm)) - np.clip(field.at(lower, x, y) / 26, 0, 0.3)
        depth = np.maximum(field.at(inside, x, y), 0)
        dark *= 1 - 0.42 * np.exp(-((z / 1.1) ** 2) - depth / 2.2)  # the seam
        dark *= 1 + PILE * cv2.remap(pile, x / 0.5 % 255, y / 0.5 % 255, cv2.INTER_LINEAR)
        np.multiply(light.diffuse(own @ pose.axes), dark[..., None], out=shaded[rows])

    field.cores.by_rows(len(at), 4, shade)
    return shaded.reshape(-1, 3)[: len(points)]


def _passes(
    template: Template,
    info: SceneInfo,
    part: tuple[slice, slice],
    hits: Hits,
    shaded: Floats,
    uv: Floats,
    ground: tuple[Floats, Floats],
) -> Passes:
    """Return passes at the picture's size from the pixels that show the pillow."""
    (w, h), (rows, columns), (print_, table) = info.px, part, (region.id for region in info.regions)
    y, x = np.nonzero(hits.cover > 0)
    seen, cover, printed = (y + rows.start) * w + x + columns.start, hits.cover[y, x], hits.printed[y, x]
    front, back = (np.zeros((h * w, 3), np.float32) for _ in range(2))
    covers, places = np.zeros(h * w, np.float32), np.full((h * w, 2), np.nan, np.float32)
    front[seen] = shaded * printed[:, None]
    bare = cover > printed
    unprinted = shaded[bare] * (cover - printed)[bare, None]
    back[seen[bare]] = unprinted * colour_reflectance(template.blank_colour)
    covers[seen] = cover
    ground[0].reshape(-1, 3)[seen] *= 1 - cover[:, None]
    places[seen[printed > 0.3]] = uv[printed > 0.3]
    place = places.reshape(h, w, 2)
    near = (
        slice(max(0, rows.start - SPREAD_PX), rows.stop + SPREAD_PX),
        slice(max(0, columns.start - SPREAD_PX), columns.stop + SPREAD_PX),
    )
    place[near] = np.clip(spread(place[near], SPREAD_PX), 0, 1)
    basis = {print_: front.reshape(h, w, 3), table: ground[0]}
    return Passes(back.reshape(h, w, 3), basis, {print_: place}, covers.reshape(h, w), ground[1])


def _ground(camera: _Camera, cut: NDArray[np.bool_], mm: float, pose: _Pose, size_mm: float) -> tuple[Floats, Floats]:
    """Return the light on the sweep for a reflectance of 1, (h, w, 3), and the share that the shadow leaves, (h, w).

    Both are soft, so they are worked out for every third pixel.
    """
    size, step = camera.px, 3
    ray = camera.rays(slice(step // 2, None, step), slice(step // 2, None, step))
    t = -camera.eye[2] / np.minimum(ray[..., 2], -1e-3)
    x, y = t * ray[..., 0], camera.eye[1] + t * ray[..., 1]
    on_floor = (ray[..., 2] < -1e-3) & (y < 5 * size_mm)
    box, grid = (-2.4 * size_mm, -2.0 * size_mm, 4.8 * size_mm, 5.0 * size_mm), (360, 375)
    dark = _floor_shadow(cut, mm, pose, box, grid)
    across = ((x - box[0]) / box[2] * grid[0]).astype(np.float32)
    along = ((y - box[1]) / box[3] * grid[1]).astype(np.float32)
    shadow = cv2.remap(dark, across, along, cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=0)
    shade = 1 - np.where(on_floor, np.clip(shadow, 0, DARKEST), 0)
    far = 1 - np.exp(-np.where(on_floor, np.maximum(y / size_mm + 1.5, 0), 6.5) / 3.0)
    aside = np.linspace(-1, 1, ray.shape[1], dtype=np.float32)[None] + 0.35
    level = (1.06 - 0.20 * far) * (1.03 - 0.12 * aside**2)
    level, shade = (cv2.resize(p.astype(np.float32), size, interpolation=cv2.INTER_LINEAR) for p in (level, shade))
    grain = np.random.default_rng(1).standard_normal((GRAIN_ROWS, size[0]), dtype=np.float32) * np.float32(GRAIN)
    grain = np.resize(grain, size[::-1])  # hides 8-bit banding
    level = level * shade + grain
    return np.asarray(cv2.merge([level * warm for warm in WARM])), np.asarray(shade, np.float32)
