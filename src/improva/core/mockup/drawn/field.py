"""Rays against the two faces of a stuffed shape, whose heights are known over its middle plane."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ...colour import Floats

STEPS, FINE_STEPS, HALVINGS = 30, 7, 5
COARSE, ROW = 4, 8192
AROUND = np.ones((3, 3), np.uint8)
SEAM_MM = 0.9
"""Half the thickness of the two cloths where they are sewn."""

Way = tuple[Floats, Floats, Floats]
"""x, y, z of rays, a plane each."""


class Field:
    """Heights over the pillow's middle plane, looked up in mm; below nought outside the contour."""

    def __init__(self, height: Floats, mask: NDArray[np.bool_], mm: float) -> None:
        outside = cv2.distanceTransform(1 - mask.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5) * mm
        self.height = np.where(mask, height + SEAM_MM, SEAM_MM - 3 * outside).astype(np.float32)
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

    def hit(self, start: Floats, rays: Floats, most: float) -> tuple[Floats, NDArray[np.bool_]]:
        """Along rays (h, w, 3) from a point: how far to the nearer face, (n,), and which rays meet it, (h, w), n of them.

        Every fourth ray each way is followed through the pillow's whole thickness, all others only where it met something.
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
        met = far > near
        picked = rays[met]
        t, found = self.march(start, axes_of(rows_of(picked)), rows_of(near[met]), rows_of(far[met]), FINE_STEPS)
        t, found = t.ravel()[: len(picked)], found.ravel()[: len(picked)]
        met[met] = found
        return t[found], met


def axes_of(rays: Floats) -> Way:
    """Vectors (…, 3) as three planes."""
    return np.ascontiguousarray(rays[..., 0]), np.ascontiguousarray(rays[..., 1]), np.ascontiguousarray(rays[..., 2])


def rows_of(values: Floats) -> Floats:
    """Values (n, …) in rows, the last one filled up: OpenCV's remap takes no more than 32 767 side by side."""
    pad = [(0, -len(values) % ROW), *[(0, 0)] * (values.ndim - 1)]
    return np.pad(values, pad, mode="edge").reshape(-1, ROW, *values.shape[1:])
