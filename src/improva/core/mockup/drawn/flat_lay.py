"""Soft goods and paper on a table, seen from above: outlines become heights, heights become light."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats
from ...ink import colour_reflectance
from ...template import Template
from ..scene import SceneInfo
from . import light
from .outlines import Part, arranged, hoodie, rounded, shirt
from .round_body import SAMPLES, Drawn, reduced

FILLS = 0.82
TABLE = (0.575, 0.555, 0.525)
SHADOW = 0.55
CUSHION_MM = 30.0
"""Height in mm above which a product counts as stuffed."""


def parts_of(template: Template, info: SceneInfo, body: str) -> list[Part]:
    """Return the parts on the table, in mm around the picture's centre."""
    first = template.panel(info.regions[0].panel)
    if body in ("shirt", "hoodie"):
        make = shirt if body == "shirt" else hoodie
        return make(first, back=first.id == "back")
    if body == "panels":
        return [
            Part(
                np.array(p.outline_mm or rounded((0, 0, *p.trim_mm), 2)) + np.array((x, y)),
                1.6,
                5,
                folds=0.35,
                print=(p.id, (x, y, *p.trim_mm)),
            )
            for p, x, y in arranged(template.panels)
        ]
    w, h = first.trim_mm
    box = (-w / 2, -h / 2, w, h)
    if body == "cushion":
        return [
            Part(
                rounded(box, 0.07 * min(w, h)),
                0.17 * min(w, h),
                0.30 * min(w, h),
                folds=0.9,
                print=(first.id, box),
                stitch_mm=0.006 * w,
            )
        ]
    paper = body == "paper"
    edge = 0.004 if paper else 0.012
    part = Part(
        rounded(box, edge * min(w, h)),
        0.4 if paper else 0.006 * min(w, h),
        0.012 * min(w, h),
        folds=0.12 if paper else 0.8,
        print=(first.id, box),
        stitch_mm=0 if paper else 0.014 * min(w, h),
    )
    if not template.looks.get("hung"):
        return [part]
    pole = rounded((-0.62 * w, -h / 2 - 0.010 * h, 1.24 * w, 0.022 * h), 0.011 * h)
    return [Part(pole, 0.011 * h, 0.010 * h, 0.10, 0), part]


class Table:
    """The picture's samples and their positions in mm."""

    def __init__(self, info: SceneInfo, parts: list[Part]) -> None:
        self.w, self.h = info.px[0] * SAMPLES, info.px[1] * SAMPLES
        points = np.concatenate([part.outline for part in parts])
        low, high = points.min(axis=0), points.max(axis=0)
        self.mm = float(max((high[0] - low[0]) / (FILLS * self.h * 1.12), (high[1] - low[1]) / (FILLS * self.h)))
        self.middle = (low + high) / 2

    def px(self, outline: NDArray[np.float64]) -> NDArray[np.float64]:
        """Convert points (n, 2) from mm to samples."""
        return np.asarray((outline - self.middle) / self.mm + (self.w / 2, self.h / 2))

    def window(self, outline: NDArray[np.float64], margin_mm: float) -> tuple[slice, slice]:
        """Return the rows and columns that hold an outline (n, 2) and a margin, clipped to the picture."""
        p, m = self.px(outline), margin_mm / self.mm
        x0, y0 = np.floor(p.min(axis=0) - m).astype(int)
        x1, y1 = np.ceil(p.max(axis=0) + m).astype(int)
        return slice(max(0, y0), min(self.h, y1)), slice(max(0, x0), min(self.w, x1))

    def mask(self, outline: NDArray[np.float64], window: tuple[slice, slice]) -> NDArray[np.uint8]:
        """Fill an outline (n, 2) in mm on a window: 1 inside, shape (rows, columns)."""
        rows, columns = window
        out = np.zeros((rows.stop - rows.start, columns.stop - columns.start), np.uint8)
        points = ((self.px(outline) - (columns.start, rows.start)) * 16).round().astype(np.int32)
        cv2.fillPoly(out, [points], 1, shift=4)
        return out


def _folds(shape: tuple[int, int], px_mm: float, seed: int, reach: float) -> Floats:
    """Return broad soft folds of unit height, longer than wide, computed coarse and enlarged."""
    step = max(1, round(4 / px_mm))
    h, w = max(8, shape[0] // step), max(8, shape[1] // step)
    rng = np.random.default_rng(seed)
    field = np.zeros((h, w), np.float32)
    for along, across, weight in ((0.30, 0.06, 1.0), (0.14, 0.045, 0.45), (0.05, 0.10, 0.35)):
        noise = rng.normal(0, 1, (h, w)).astype(np.float32)
        soft = cv2.GaussianBlur(
            noise, (0, 0), sigmaX=max(0.8, across * reach / px_mm / step), sigmaY=max(0.8, along * reach / px_mm / step)
        )
        field += weight * soft / max(float(soft.std()), 1e-6)
    return np.asarray(cv2.resize(field, shape[::-1], interpolation=cv2.INTER_CUBIC))


def _height(part: Part, mask: NDArray[np.uint8], mm: float, seed: int, size_mm: float) -> tuple[Floats, Floats]:
    """Return the height of a part in mm and the distance from its edge, on its window."""
    inside = np.asarray(cv2.distanceTransform(mask, cv2.DIST_L2, cv2.DIST_MASK_5) * mm, np.float32)
    if part.puff_mm > CUSHION_MM:
        height = _cushion(part, inside, mm)
    else:
        height = part.puff_mm * (1 - np.exp(-inside / max(part.soft_mm * 0.5, 1e-3)))
        height = cv2.GaussianBlur(height, (0, 0), max(0.6, 0.10 * part.soft_mm / mm))
    if part.folds:
        still = 1 - np.exp(-inside / (0.05 * size_mm))
        height += part.folds * 0.0042 * size_mm * _folds(mask.shape, mm, seed, size_mm) * (0.35 + 0.65 * still)
    return np.asarray(height, np.float32), inside


def _cushion(part: Part, inside: Floats, mm: float) -> Floats:
    """Return a shape that is round all over, not only at its edge, computed coarse and enlarged."""
    step = max(1, round(0.02 * part.soft_mm / mm))
    small = cv2.resize(inside, (max(2, inside.shape[1] // step), max(2, inside.shape[0] // step)), interpolation=cv2.INTER_AREA)
    rise = np.sqrt(np.clip(1 - (1 - np.clip(small / part.soft_mm / 1.55, 0, 1)) ** 2, 0, 1))
    rise = cv2.GaussianBlur(rise, (0, 0), max(0.6, 0.10 * part.soft_mm / mm / step))
    return np.asarray(part.puff_mm * cv2.resize(rise, inside.shape[::-1], interpolation=cv2.INTER_CUBIC), np.float32)


def _normals(height: Floats, mm: float) -> Floats:
    dy, dx = np.gradient(height, mm)
    normal = np.stack([-dx, dy, np.ones_like(dx)], -1).astype(np.float32)
    normal[..., 1] *= -1  # the table's far edge is up, and the key light comes from there
    return np.asarray(normal / np.linalg.norm(normal, axis=2, keepdims=True), np.float32)


def draw_laid(template: Template, info: SceneInfo, body: str, cut: NDArray[np.bool_] | None = None) -> Drawn:
    """Return base, basis and maps of goods on a table. ``cut`` is the shape of a cut-out on its square panel."""
    parts = parts_of(template, info, body)
    table = Table(info, parts)
    h, w, mm = table.h, table.w, table.mm
    size_mm = mm * h * FILLS
    y, x = np.mgrid[:h:4, :w:4].astype(np.float32)
    glow = 1.05 - 0.20 * np.hypot((x / w - 0.38) * 1.1, y / h - 0.36) ** 2
    ground: Any = cv2.resize(glow.astype(np.float32), (w, h))[..., None] * np.array(TABLE, np.float32)
    basis = {region.id: np.zeros((h, w, 3), np.float32) for region in info.regions}
    maps = {region.id: np.full((h, w, 2), np.nan, np.float32) for region in info.regions if region.panel}
    cloth = colour_reflectance(template.blank_colour)
    for seed, part in enumerate(parts):
        reach = 0.05 * size_mm + 3 * part.puff_mm
        window = table.window(part.outline, reach)
        mask = table.mask(part.outline, window)
        if cut is not None:
            mask = _cut_mask(part, table, window, cut)
        height, inside = _height(part, mask, mm, seed + 3, size_mm)
        on = mask.astype(bool)
        # a soft shadow to the lower right, wider for higher products, and a thin dark contact line
        fall = _cast(mask, max(part.puff_mm, 2.0), mm)[..., None]
        fall[on] = 1
        ground[window] *= fall
        for plane in basis.values():
            plane[window] *= fall
        normal = _normals(height, mm)
        shade = light.diffuse(normal)
        shade *= (1 - 0.24 * np.exp(-inside / max(2.2, 0.18 * part.puff_mm)))[..., None]
        if part.stitch_mm:
            line = np.exp(-(((inside - part.stitch_mm) / max(0.9, 1.2 * mm)) ** 2))
            shade *= (1 - 0.13 * line)[..., None]
        ground[window][on] = 0
        for plane in basis.values():
            plane[window][on] = 0
        for uv in maps.values():
            uv[window][on] = np.nan
        shaded = shade * part.shade
        region = next((r for r in info.regions if part.print and r.panel == part.print[0]), None)
        if region is None:
            ground[window][on] = (shaded * cloth)[on]
            continue
        _lay_print(part, table, window, on, normal, shaded, cloth, ground, basis[region.id], maps[region.id])
    return reduced(ground, basis, maps, info)


def _cast(mask: NDArray[np.uint8], tall_mm: float, mm: float) -> Floats:
    """Return the share of light that the shadow of a raised part leaves around it, on its window."""
    fall = np.ones(mask.shape, np.float32)
    for lift, blur, dark in ((0.5, 0.45, SHADOW), (0.10, 0.16, 0.4)):
        sigma = max(1.0, blur * (tall_mm + 3) / mm)
        step = max(1, round(sigma / 4))
        small = cv2.resize(
            mask.astype(np.float32),
            (max(2, mask.shape[1] // step), max(2, mask.shape[0] // step)),
            interpolation=cv2.INTER_AREA,
        )
        shift = np.array([[1, 0, lift * tall_mm / mm / step], [0, 1, lift * 0.8 * tall_mm / mm / step]], np.float32)
        cast = cv2.GaussianBlur(cv2.warpAffine(small, shift, small.shape[::-1]), (0, 0), sigma / step)
        fall *= 1 - dark * np.clip(cv2.resize(cast, mask.shape[::-1]), 0, 1)
    return fall


def _cut_mask(part: Part, table: Table, window: tuple[slice, slice], cut: NDArray[np.bool_]) -> NDArray[np.uint8]:
    """Return a cut-out's shape on a part's window."""
    assert part.print is not None
    (bx, by, bw, bh), (rows, columns) = part.print[1], window
    corner = table.px(np.array([[bx, by]]))[0] - (columns.start, rows.start)
    scale = np.array([bw, bh]) / table.mm / (cut.shape[1], cut.shape[0])
    matrix = np.array([[scale[0], 0, corner[0]], [0, scale[1], corner[1]]], np.float32)
    size = (columns.stop - columns.start, rows.stop - rows.start)
    return np.asarray(cv2.warpAffine(cut.astype(np.float32), matrix, size, flags=cv2.INTER_LINEAR) > 0.5, np.uint8)


def _lay_print(
    part: Part,
    table: Table,
    window: tuple[slice, slice],
    on: NDArray[np.bool_],
    normal: Floats,
    shaded: Floats,
    cloth: Floats,
    ground: Floats,
    basis: Floats,
    uv: Floats,
) -> None:
    """Assign a part's printed points to their region, and the cloth's own colour to the rest."""
    assert part.print is not None
    bx, by, bw, bh = part.print[1]
    rows, columns = window
    xs = (np.arange(columns.start, columns.stop) + 0.5 - table.w / 2) * table.mm + table.middle[0]
    ys = (np.arange(rows.start, rows.stop) + 0.5 - table.h / 2) * table.mm + table.middle[1]
    pull = min(0.35 * part.puff_mm, 0.012 * min(bw, bh)) * part.folds
    u = (xs[None, :] - bx + normal[..., 0] * pull) / bw
    v = (ys[:, None] - by + normal[..., 1] * pull) / bh
    printed = on & (u > -1e-3) & (u < 1 + 1e-3) & (v > -1e-3) & (v < 1 + 1e-3)
    bare = on & ~printed
    ground[window][bare] = (shaded * cloth)[bare]
    basis[window][printed] = shaded[printed]
    place = np.stack([np.clip(u, 0, 1), np.clip(v, 0, 1)], -1).astype(np.float32)
    uv[window][printed] = place[printed]
