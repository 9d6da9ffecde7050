"""Ray intersections with the two faces of a stuffed shape, given as heights over its middle plane."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats
from ..parallel import ONE_CORE, Cores

STEPS, FINE_STEPS, HALVINGS = 30, 7, 5
SURE = np.float32(0.2)
"""Search range around the guess of a surface hit, in steps of the thickness."""
STRIP = 64
OUTSIDE = -1e3
COARSE, ROW = 2, 8192
AROUND = np.ones((3, 3), np.uint8)
STEPPED_PX = 1.6
SEAM_MM = 0.9
"""Half the thickness of the two layers of cloth at their seam."""


@dataclass(frozen=True)
class Hits:
    """Results of ray intersections: points on the pillow, (h, w, 3) mm; the pillow's share of each pixel and its front's
    share, (h, w)."""

    places: Floats
    cover: Floats
    printed: Floats


@dataclass(frozen=True)
class _Way:
    """Rays in the coordinates of a height field: origin and direction per mm, in columns, rows and mm along z."""

    first: tuple[float, ...]
    columns: Floats
    rows: Floats
    z: Floats

    def part(self, rows: slice) -> _Way:
        """Select rows."""
        return _Way(self.first, self.columns[rows], self.rows[rows], self.z[rows])


class Field:
    """Heights over the pillow's middle plane, indexed in mm; below zero outside the contour."""

    def __init__(self, height: Floats, mask: NDArray[np.bool_], mm: float, cores: Cores = ONE_CORE) -> None:
        solid = mask.astype(np.uint8)
        away = [cv2.distanceTransform(m, cv2.DIST_L2, cv2.DIST_MASK_5) for m in (solid, 1 - solid)]
        within = (
            cv2.GaussianBlur(away[0] - away[1], (0, 0), STEPPED_PX) * mm
        )  # the steps of a mask would be visible on the contour
        self.height = np.where(within > 0, height + SEAM_MM, SEAM_MM + 3 * within).astype(np.float32)
        self.mm, (self.h, self.w), self.cores = mm, mask.shape, cores

    def at(self, plane: Floats, x: Floats, y: Floats) -> Floats:
        """Sample a plane (h, w) at points in mm; ``x`` and ``y`` share a shape (…), which the result has."""
        return np.asarray(
            cv2.remap(
                plane,
                x / self.mm + (self.w / 2 - 0.5),
                (self.h / 2 - 0.5) - y / self.mm,
                cv2.INTER_LINEAR,
                borderMode=cv2.BORDER_CONSTANT,
                borderValue=OUTSIDE,
            )
        )

    def way(self, start: Floats, rays: Floats) -> _Way:
        """Convert rays (…, 3) from a point (3,), both in mm, to the mask's pixels."""
        x, y, z = (np.ascontiguousarray(rays[..., i]) for i in range(3))
        first = (start[0] / self.mm + (self.w / 2 - 0.5), (self.h / 2 - 0.5) - start[1] / self.mm, start[2])
        return _Way(tuple(map(float, first)), x / np.float32(self.mm), y / np.float32(-self.mm), z)

    def above(self, way: _Way, t: Floats) -> Floats:
        """Return the height of points above the pillow in mm along its thickness, (…): the points at distance ``t`` along the rays."""
        column, row, z = way.columns * t, way.rows * t, way.z * t
        column += way.first[0]
        row += way.first[1]
        z += way.first[2]
        np.abs(z, out=z)
        z -= cv2.remap(self.height, column, row, cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=OUTSIDE)
        return z

    def march(self, way: _Way, near: Floats, far: Floats, steps: int) -> tuple[Floats, NDArray[np.bool_]]:
        """Intersect rays with the pillow between two distances (…): the distance of the hit, and whether there is one, both (…)."""
        step = np.asarray((far - near) / np.float32(steps), np.float32)
        high, hit = near.copy(), np.zeros(near.shape, bool)
        for i in range(1, steps + 1):
            t = near + np.float32(i) * step
            meets = self.above(way, t) < 0
            meets &= ~hit
            np.copyto(high, t, where=meets)
            hit |= meets
        low = high - step
        for _ in range(HALVINGS):
            middle = (low + high) * np.float32(0.5)
            under = self.above(way, middle) < 0
            np.copyto(high, middle, where=under)
            np.copyto(low, middle, where=~under)
        return high, hit

    def hit(self, start: Floats, rays: Floats, most: float) -> Hits:
        """Intersect rays (h, w, 3) from a point with the pillow.

        Every other ray each way is followed through the whole thickness, all of them only where those met something, and
        where some met and some did not, four more about each.
        """
        way = self.way(start, rays[::COARSE, ::COARSE])
        back = np.minimum(way.z, np.float32(-1e-3))
        first, last = (np.asarray((z - start[2]) / back, np.float32) for z in (most, -most))
        t, found = np.empty_like(first), np.empty(first.shape, bool)

        def follow(rows: slice) -> None:
            t[rows], found[rows] = self.march(way.part(rows), first[rows], last[rows], STEPS)

        self.cores.by_rows(len(t), STRIP, follow)
        air = (last - first) / np.float32(STEPS)
        near = cv2.erode(np.where(found, t - air, np.float32(1e9)), AROUND)
        far = cv2.dilate(np.where(found, t + air, np.float32(-1e9)), AROUND)
        size = rays.shape[1::-1]
        near, far = (np.asarray(cv2.resize(p, size, interpolation=cv2.INTER_NEAREST), np.float32) for p in (near, far))
        places, met = self._smooth(start, rays, t, found, air)
        maybe = far > near
        rough = np.nonzero(maybe & ~met)
        places[rough], met[rough] = self._meet(start, rays[rough], near[rough], far[rough])
        front = met & (places[..., 2] >= 0)
        mixed = [cv2.morphologyEx(p.view(np.uint8), cv2.MORPH_GRADIENT, AROUND) for p in (met, front)]
        edge = np.nonzero(np.logical_or(*mixed) & maybe)
        right, down = rays[0, 1] - rays[0, 0], rays[1, 0] - rays[0, 0]
        counts = np.zeros((2, len(edge[0])), np.float32)
        middle, whole, missed = rays[edge], places[edge], ~met[edge]
        for a, b in ((-1, -1), (1, -1), (-1, 1), (1, 1)):
            about = middle + (0.25 * a * right + 0.25 * b * down).astype(np.float32)
            place, found = self._meet(start, about, near[edge], far[edge])
            counts += found, found & (place[:, 2] >= 0)
            whole[found & missed] = place[found & missed]
        places[edge] = whole
        cover, printed = met.astype(np.float32), front.astype(np.float32)
        cover[edge], printed[edge] = counts / 4
        return Hits(places, cover, printed)

    def _smooth(
        self, start: Floats, rays: Floats, t: Floats, hit: NDArray[np.bool_], air: Floats
    ) -> tuple[Floats, NDArray[np.bool_]]:
        """Interpolate intersections of rays (h, w, 3) from the distances ``t`` of every second ray; also return which rays are
        settled.

        Where all about met something at about one distance, it is that one but for a little: the rule of false position between
        a point before it and one behind. Rays it does not hold for are left to `_meet`.
        """
        size = rays.shape[1::-1]
        spread = cv2.dilate(t, AROUND) - cv2.erode(t, AROUND)
        calm = cv2.erode(hit.astype(np.uint8), AROUND) * (spread < air).astype(np.uint8)
        settled = cv2.resize(calm, size, interpolation=cv2.INTER_NEAREST).astype(bool)
        to_full = np.array([[COARSE, 0, 0], [0, COARSE, 0]], np.float32)
        guess = cv2.warpAffine(t, to_full, size, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        reach = cv2.resize(SURE * air, size, interpolation=cv2.INTER_NEAREST)
        places = np.empty(rays.shape, np.float32)

        def better(rows: slice) -> None:
            way = self.way(start, rays[rows])
            low, high = (np.asarray(guess[rows] + side * reach[rows], np.float32) for side in (-1, 1))
            out, into = self.above(way, low), self.above(way, high)
            sure = settled[rows] & (out > 0) & (into < 0)

            def crossing() -> Floats:
                return np.asarray(low + (high - low) * (out / np.where(sure, out - into, 1)), np.float32)

            middle = crossing()
            off = self.above(way, middle)
            under = off < 0
            for where, ends in ((under, ((high, middle), (into, off))), (~under, ((low, middle), (out, off)))):
                for old, new in ends:
                    np.copyto(old, new, where=where)
            np.multiply(crossing()[..., None], rays[rows], out=places[rows])
            places[rows] += start
            settled[rows] = sure

        self.cores.by_rows(len(rays), STRIP, better)
        return places, settled

    def _meet(self, start: Floats, rays: Floats, near: Floats, far: Floats) -> tuple[Floats, NDArray[np.bool_]]:
        """Intersect rays (n, 3): return the points (n, 3) and which rays hit."""
        t, found = self.march(self.way(start, rows_of(rays)), rows_of(near), rows_of(far), FINE_STEPS)
        count = len(rays)
        return start + t.ravel()[:count, None] * rays, found.ravel()[:count]


def rows_of(values: Floats) -> Floats:
    """Arrange values (n, …) in rows, the last one padded: OpenCV's remap takes no more than 32 767 in a row."""
    pad = [(0, -len(values) % ROW), *[(0, 0)] * (values.ndim - 1)]
    return np.pad(values, pad, mode="edge").reshape(-1, ROW, *values.shape[1:])
