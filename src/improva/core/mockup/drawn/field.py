"""Rays against the two faces of a stuffed shape, whose heights are known over its middle plane."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats

STEPS, FINE_STEPS, HALVINGS = 30, 7, 5
COARSE, ROW = 2, 8192
AROUND = np.ones((3, 3), np.uint8)
STEPPED_PX = 1.6
SEAM_MM = 0.9
"""Half the thickness of the two cloths where they are sewn."""

Way = tuple[Floats, Floats, Floats]
"""x, y, z of rays, a plane each."""


@dataclass(frozen=True)
class Hits:
    """What rays meet: a point of the pillow, (h, w, 3) mm; how much of a pixel is pillow, and how much is its front, (h, w)."""

    places: Floats
    cover: Floats
    printed: Floats


class Field:
    """Heights over the pillow's middle plane, looked up in mm; below nought outside the contour."""

    def __init__(self, height: Floats, mask: NDArray[np.bool_], mm: float) -> None:
        solid = mask.astype(np.uint8)
        away = [cv2.distanceTransform(m, cv2.DIST_L2, cv2.DIST_MASK_5) for m in (solid, 1 - solid)]
        within = cv2.GaussianBlur(away[0] - away[1], (0, 0), STEPPED_PX) * mm  # a mask's steps would be seen on the contour
        self.height = np.where(within > 0, height + SEAM_MM, SEAM_MM + 3 * within).astype(np.float32)
        self.mm, (self.h, self.w) = mm, mask.shape

    def at(self, plane: Floats, x: Floats, y: Floats) -> Floats:
        """A plane of the mask's size at points in mm."""
        return np.asarray(cv2.remap(plane, x / self.mm + (self.w / 2 - 0.5), (self.h / 2 - 0.5) - y / self.mm, cv2.INTER_LINEAR,
                                    borderMode=cv2.BORDER_CONSTANT, borderValue=-1e3))  # fmt: skip

    def above(self, start: Floats, ray: Way, t: Floats) -> Floats:
        """How far outside the pillow points along rays are, in mm along its thickness."""
        x, y, z = (start[i] + t * ray[i] for i in range(3))
        return np.asarray(np.abs(z) - self.at(self.height, x, y), np.float32)

    def march(self, start: Floats, ray: Way, near: Floats, far: Floats, steps: int
              ) -> tuple[Floats, NDArray[np.bool_]]:  # fmt: skip
        """Along rays from a point, between two distances: how far to the pillow, and whether they meet it."""
        step = np.asarray((far - near) / steps, np.float32)
        before, found = near.copy(), np.zeros(near.shape, bool)
        for i in range(1, steps + 1):
            meets = ~found & (self.above(start, ray, near + np.float32(i) * step) < 0)
            np.copyto(before, near + np.float32(i - 1) * step, where=meets)
            found |= meets
        low, high = before, before + step
        for _ in range(HALVINGS):
            middle = np.asarray((low + high) / 2, np.float32)
            under = self.above(start, ray, middle) < 0
            low, high = np.where(under, low, middle), np.where(under, middle, high)
        return np.asarray(high, np.float32), found

    def hit(self, start: Floats, rays: Floats, most: float) -> Hits:
        """Where rays (h, w, 3) from a point meet the pillow.

        Every other ray each way is followed through the whole thickness, all of them only where those met something, and
        where some met and some did not, four more about each.
        """
        way = axes_of(rays[::COARSE, ::COARSE])
        back = np.minimum(way[2], np.float32(-1e-3))
        first, last = (most - start[2]) / back, (-most - start[2]) / back
        t, found = self.march(start, way, first, last, STEPS)
        air = (last - first) / STEPS
        near = cv2.erode(np.where(found, t - air, np.float32(1e9)), AROUND)
        far = cv2.dilate(np.where(found, t + air, np.float32(-1e9)), AROUND)
        size = rays.shape[1::-1]
        near, far = (np.asarray(cv2.resize(p, size, interpolation=cv2.INTER_NEAREST), np.float32) for p in (near, far))
        maybe = far > near
        places, met = np.zeros(rays.shape, np.float32), np.zeros(maybe.shape, bool)
        places[maybe], met[maybe] = self._meet(start, rays[maybe], near[maybe], far[maybe])
        front = met & (places[..., 2] >= 0)
        cover, printed = met.astype(np.float32), front.astype(np.float32)
        mixed = [cv2.morphologyEx(p, cv2.MORPH_GRADIENT, AROUND) > 0 for p in (cover, printed)]
        edge = (mixed[0] | mixed[1]) & maybe
        right, down = rays[0, 1] - rays[0, 0], rays[1, 0] - rays[0, 0]
        counts = np.zeros((2, int(edge.sum())), np.float32)
        for a, b in ((-1, -1), (1, -1), (-1, 1), (1, 1)):
            about = rays[edge] + (0.25 * a * right + 0.25 * b * down).astype(np.float32)
            place, found = self._meet(start, about, near[edge], far[edge])
            counts += found, found & (place[:, 2] >= 0)
            whole = places[edge]
            whole[found & ~met[edge]] = place[found & ~met[edge]]
            places[edge] = whole
        cover[edge], printed[edge] = counts / 4
        return Hits(places, cover, printed)

    def _meet(self, start: Floats, rays: Floats, near: Floats, far: Floats) -> tuple[Floats, NDArray[np.bool_]]:
        """Where rays (n, 3) meet the pillow, (n, 3), and which do."""
        t, found = self.march(start, axes_of(rows_of(rays)), rows_of(near), rows_of(far), FINE_STEPS)
        count = len(rays)
        return start + t.ravel()[:count, None] * rays, found.ravel()[:count]


def axes_of(rays: Floats) -> Way:
    """Vectors (…, 3) as three planes."""
    return np.ascontiguousarray(rays[..., 0]), np.ascontiguousarray(rays[..., 1]), np.ascontiguousarray(rays[..., 2])


def rows_of(values: Floats) -> Floats:
    """Values (n, …) in rows, the last one filled up: OpenCV's remap takes no more than 32 767 side by side."""
    pad = [(0, -len(values) % ROW), *[(0, 0)] * (values.ndim - 1)]
    return np.pad(values, pad, mode="edge").reshape(-1, ROW, *values.shape[1:])
