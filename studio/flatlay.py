"""Garments lying flat: layers of cloth over one another, each a height field with folds, seams and rounded edges.

Lengths in mm on a canvas: x right from its middle, y down from the neck; heights in mm above the table.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray

from studio import shapes

Plane = NDArray[np.float64]
CELL = 1.25
ROUND = 9.0
"""Ridges are rounded over this many mm."""
DRAPE, APART = 7.0, 0.5
"""Cloth bridges what is narrower than about so many mm; and lies at least so far above what is under it."""
FINE = 3
"""Outlines are drawn this many times finer than heights."""


@dataclass(frozen=True)
class Crease:
    """A fold from one point to another: mm wide, mm high, steep on its one side."""

    start: tuple[float, float]
    end: tuple[float, float]
    wide: float
    high: float


@dataclass(frozen=True)
class Layer:
    """A piece of cloth.

    Attributes:
        name: of its shape; what comes before an ``@`` is its region.
        outline: closed, (n, 2) mm.
        thick: of its edge; ``puff`` more in its middle, risen over ``soft`` mm.
        folds: strength of broad folds and wrinkles.
        rib: ribbing runs along this direction (degrees), None for plain cloth.
        seams: lines, (n, 2) mm each, drawn in by a stitch.
        hem: a seam this far inside its whole edge; 0 for none.
        hole: an outline cut out of it, whose rim stays as high as the cloth round it.
        keep: 1 keeps only the mesh right of the middle, -1 only that left of it.
        uv: from canvas points (…, 2) in mm to texture places; by default those of the whole canvas.
    """

    name: str
    outline: Plane
    thick: float = 1.6
    puff: float = 7.0
    soft: float = 40.0
    folds: float = 1.0
    rib: float | None = None
    seams: tuple[Plane, ...] = ()
    hem: float = 0.0
    hole: Plane | None = None
    uv: Callable[[Plane], Plane] | None = None
    creases: tuple[Crease, ...] = ()
    keep: float = 0.0


@dataclass
class Lay:
    """The canvas: mm wide and high, the y of its top edge, and the heights so far."""

    size: tuple[float, float]
    top: float
    seed: int = 1
    z: Plane = field(init=False)

    def __post_init__(self) -> None:
        columns, rows = round(self.size[0] / CELL) + 1, round(self.size[1] / CELL) + 1
        self.x, self.y = np.meshgrid(
            np.linspace(-self.size[0] / 2, self.size[0] / 2, columns), np.linspace(self.top, self.top + self.size[1], rows)
        )
        self.z = np.zeros(self.x.shape)
        rng = np.random.default_rng(self.seed)
        self.broad = _soft(rng, self.z.shape, 70 / CELL, 46 / CELL)
        self.middle = _soft(rng, self.z.shape, 30 / CELL, 17 / CELL)
        self.small = _soft(rng, self.z.shape, 11 / CELL, 7 / CELL)
        self.warp = [9 * _soft(rng, self.z.shape, 40 / CELL, 40 / CELL) for _ in range(2)]

    def inside(self, outline: Plane) -> Plane:
        """Signed distance in mm to an outline, positive inside."""
        h, w = self.z.shape
        at = (outline - [-self.size[0] / 2, self.top]) / CELL * FINE + FINE / 2 - 0.5
        mask = np.zeros((h * FINE, w * FINE), np.uint8)
        cv2.fillPoly(mask, [np.round(at * 16).astype(np.int32)], 255, shift=4)
        mask = (mask > 127).astype(np.uint8)
        far = cv2.distanceTransform(mask, cv2.DIST_L2, 5) - cv2.distanceTransform(1 - mask, cv2.DIST_L2, 5)
        away = np.asarray(cv2.resize(far, (w, h), interpolation=cv2.INTER_AREA), np.float64) / FINE * CELL
        near = np.abs(away) < 3 * CELL  # a silhouette of drawn squares would show its steps
        points, shape = shapely.points(self.x[near], self.y[near]), shapely.Polygon(outline).buffer(0)
        shapely.prepare(shape)
        away[near] = np.where(shapely.contains(shape, points), 1, -1) * shapely.distance(points, shape.boundary)
        return away

    def line(self, points: Plane) -> Plane:
        """Distance in mm to an open line."""
        h, w = self.z.shape
        mask = np.ones((h * FINE, w * FINE), np.uint8)
        at = (np.asarray(points) - [-self.size[0] / 2, self.top]) / CELL * FINE + FINE / 2 - 0.5
        cv2.polylines(mask, [np.round(at * 16).astype(np.int32)], False, 0, 1, shift=4)
        far = cv2.distanceTransform(mask, cv2.DIST_L2, 5)
        return np.asarray(cv2.resize(far, (w, h), interpolation=cv2.INTER_AREA), np.float64) / FINE * CELL

    def _crease(self, crease: Crease) -> Plane:
        t, s = shapes.beside(self.x + 0.6 * self.warp[0], self.y + 0.6 * self.warp[1], crease.start, crease.end)
        taper = np.clip(t, 0, 1) * np.clip(1 - t, 0, 1) * 4
        side = np.where(s > 0, s / crease.wide, s / (2.1 * crease.wide))
        return np.asarray(
            crease.high
            * taper**0.6
            * (np.exp(-(side**2)) - 0.42 * np.exp(-(((s - 2.1 * crease.wide) / (1.6 * crease.wide)) ** 2)))
        )

    def lay(self, layer: Layer) -> tuple[NDArray[np.float32], NDArray[np.int64]]:
        """Lay a piece over what lies there, and give its mesh in cm with x right, y away, z up; uv over the canvas."""
        out = self.inside(layer.outline)
        d, there, rim = out, np.ones(out.shape), np.zeros(out.shape, bool)
        if layer.hole is not None:
            beyond = -self.inside(layer.hole)
            d, there, rim = np.minimum(out, beyond), (beyond > 0).astype(float), beyond < out
        near = np.clip(out, 0, None)
        # along the middle line of a narrow piece the nearest edge changes: without this it would lie there like a roof
        near += np.clip((near - 4) / 16, 0, 1) * (cv2.GaussianBlur(near, (0, 0), ROUND / CELL) - near)
        rise = layer.thick * np.sqrt(np.clip(np.clip(d, 0, None) / (2.2 * layer.thick), 0, 1)) + layer.puff * (
            1 - np.exp(-((near / layer.soft) ** 1.3))
        )
        fade = 1 - np.exp(-((near / 26) ** 1.5))
        wave = layer.folds * fade * (1.5 * self.broad + 0.75 * self.middle + 0.14 * self.small)
        for crease in layer.creases:
            wave = wave + self._crease(crease) * np.clip(near / 10, 0, 1)
        if layer.rib is not None:
            angle = np.radians(layer.rib)
            across = self.x * np.cos(angle) + self.y * np.sin(angle)
            wave = wave + 0.42 * np.sin(2 * np.pi * across / 3.4) * np.clip(near / 2, 0, 1)
        for seam in layer.seams:
            away = self.line(seam)
            wave = wave - 0.7 * np.exp(-((away / 1.1) ** 2)) + 0.30 * np.exp(-(((away - 3.4) / 2.2) ** 2))
        if layer.hem:
            for inset in (layer.hem, layer.hem + 4.5):
                wave = wave - 0.42 * np.exp(-(((d - inset) / 0.9) ** 2))
            pucker = 0.25 * np.sin(2 * np.pi * (self.x + 0.7 * self.y + 2 * self.small) / 9.0)
            wave = wave + pucker * np.exp(-(((d - layer.hem) / 7) ** 2)) * 0.8
        below, weight = (cv2.GaussianBlur(plane, (0, 0), DRAPE / CELL) for plane in (self.z * there, there))
        below = np.where(weight > 1e-3, below / np.maximum(weight, 1e-3), self.z)  # through a hole it does not sag
        top = np.maximum(below + rise + wave, np.maximum(self.z + APART * np.clip(d / 2.5, 0, 1), 0.25))
        inside = d > 0
        mesh = self._mesh(top, d, layer, rim)
        if layer.keep >= 0:
            self.z = np.where(inside, top, self.z)  # later layers rest on it
        return mesh

    def _mesh(self, z: Plane, d: Plane, layer: Layer, rim: NDArray[np.bool_]) -> tuple[NDArray[np.float32], NDArray[np.int64]]:
        gy, gx = np.gradient(d, CELL)
        long = np.maximum(np.hypot(gx, gy), 1e-6)
        edge = np.abs(d) < 0.75 * CELL
        x = self.x - np.where(edge, d * gx / long**2, 0)
        y = self.y - np.where(edge, d * gy / long**2, 0)
        down = np.where(edge & ~rim, np.minimum(self.z, z), z)  # the rim of a hole stands free
        at = np.stack([x / 10, -y / 10, down / 10], -1)
        uv = np.stack([(x + self.size[0] / 2) / self.size[0], (y - self.top) / self.size[1]], -1)
        if layer.uv is not None:
            uv = layer.uv(np.stack([x, y], -1))
        vertex, faces = shapes.sheet(at, uv)
        flat = (d > -0.76 * CELL).reshape(-1)
        middle = np.where(edge, 0, d).reshape(-1)[faces].sum(axis=1) > 0
        side = x.reshape(-1)[faces].sum(axis=1) * layer.keep >= 0
        faces = faces[middle & flat[faces].all(axis=1) & side]
        used, index = np.unique(faces, return_inverse=True)
        return vertex[used], index.reshape(-1, 3)


def _soft(rng: np.random.Generator, shape: tuple[int, int], along: float, across: float) -> Plane:
    """Unit-variance noise that is smooth over ``across`` px in x and ``along`` px in y."""
    pad = int(3 * max(along, across))
    field_ = rng.standard_normal((shape[0] + 2 * pad, shape[1] + 2 * pad))
    out = cv2.GaussianBlur(field_, (0, 0), sigmaX=across, sigmaY=along)[pad:-pad, pad:-pad]
    return np.asarray(out / out.std())


def curve(*points: tuple[float, float], count: int = 60) -> Plane:
    """A smooth curve through points."""
    return shapes.spline(list(points), count) if len(points) > 2 else np.linspace(points[0], points[1], count)


def arch(*points: tuple[float, float], count: int = 60) -> Plane:
    """The right half of a smooth curve that is symmetric about x = 0, from its middle on."""
    half = list(points)
    whole = shapes.spline([(-x, y) for x, y in reversed(half)] + half[1:], 2 * count + 1)  # type: ignore[arg-type]
    return whole[count:]


def joined(*parts: Plane | Sequence[tuple[float, float]]) -> Plane:
    """Parts of an outline, end to end."""
    return np.concatenate([np.asarray(p, float).reshape(-1, 2) for p in parts])


def mirrored(outline: Plane) -> Plane:
    """The other side, its points in reverse so that it runs on where this side ends."""
    return outline[::-1] * [-1, 1]


def both(right: Plane) -> Plane:
    """A closed outline from its right half, top middle to foot middle."""
    return joined(right, mirrored(right))
