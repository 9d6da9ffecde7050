"""A pinhole camera that frames a round blank, and the intersections of its rays with bands and rods."""

from __future__ import annotations

import math

import numpy as np

from ...cached_property import cached_property
from ...colour import Floats
from .body import Band, Body

FILLS_HEIGHT, FILLS_WIDTH = 0.74, 0.60
FAR = 11.0
"""Camera distance in heights of the blank; it gives the look of a long lens."""


class Camera:
    """A pinhole that frames the body."""

    def __init__(self, body: Body, size: tuple[int, int], handle_reach: float = 0.0) -> None:
        """``handle_reach`` is how far a handle extends beyond the body, positive to the right."""
        tall = body.full * 1.06 + (6 if body.top != "open" else 0)
        wide = 2 * body.widest + abs(handle_reach)
        w, h = size
        self.far = FAR * max(tall, 0.7 * wide)
        self.high = self.far * (0.145 if body.top == "open" else 0.115)
        self.aim = tall * 0.485
        mm = max(tall / FILLS_HEIGHT / h, wide / FILLS_WIDTH / w)  # of a sample, at the axis
        tilt = math.atan2(self.high - self.aim, self.far)
        self.eye = np.array([0.0, -self.far, self.high], np.float32)
        self.size = size
        self.pan = handle_reach / 2
        self.mm, self.reach = mm, math.hypot(self.far, self.high - self.aim)
        self.forward = np.array([0, math.cos(tilt), -math.sin(tilt)], np.float32)
        self.up = np.array([0, math.sin(tilt), math.cos(tilt)], np.float32)

    @cached_property
    def ray(self) -> Floats:
        """Return unit directions (h, w, 3) through all samples."""
        w, h = self.size
        x = (np.arange(w, dtype=np.float32) + 0.5 - w / 2) * self.mm + self.pan
        y = (h / 2 - np.arange(h, dtype=np.float32) - 0.5) * self.mm
        forward = self.forward * self.reach
        ray = np.empty((h, w, 3), np.float32)
        ray[..., 0] = x[None, :] + forward[0]
        ray[..., 1] = (forward[1] + y * self.up[1])[:, None]
        ray[..., 2] = (forward[2] + y * self.up[2])[:, None]
        ray /= np.linalg.norm(ray, axis=2, keepdims=True)
        return ray

    def seen(self, points: Floats) -> Floats:
        """Project points (n, 3) to (n, 2) in samples."""
        v = np.asarray(points, np.float32) - self.eye
        scale = self.reach / (v @ self.forward) / self.mm
        w, h = self.size
        return np.stack([w / 2 + v[:, 0] * scale - self.pan / self.mm, h / 2 - (v @ self.up) * scale], -1)

    def window(self, points: Floats) -> tuple[slice, slice]:
        """Return the rows and columns that contain points (n, 3), with a small margin."""
        (x, y), (w, h) = self.seen(points).T, self.size
        rows = slice(max(0, int(y.min()) - 3), max(0, min(h, int(y.max()) + 4)))
        return rows, slice(max(0, int(x.min()) - 3), max(0, min(w, int(x.max()) + 4)))


def corners(r: float, z: tuple[float, float]) -> Floats:
    """Return the corners (8, 3) of the bounding box of a ring between two heights."""
    return np.array([(x, y, h) for x in (-r, r) for y in (-r, r) for h in z], np.float32)


def hit_band(band: Band, eye: Floats, ray: Floats) -> tuple[Floats, Floats]:
    """Return the distance along rays (n, 3) to a band, inf for misses, and the height fraction there."""
    (z0, z1), (r0, r1) = band.z, band.r
    span = z1 - z0 if abs(z1 - z0) > 1e-4 else 1e-4
    k = (r1 - r0) / span
    ox, oy, oz = (float(v) for v in eye)
    dx, dy, dz = ray[..., 0], ray[..., 1], ray[..., 2]
    r_eye = r0 + k * (oz - z0)
    a = dx * dx + dy * dy - (k * dz) ** 2
    b = ox * dx + oy * dy - r_eye * k * dz
    c = ox * ox + oy * oy - r_eye * r_eye
    disc = b * b - a * c
    good = disc > 0
    root = np.sqrt(np.where(good, disc, 0))
    best = np.full(dx.shape, np.inf, np.float32)
    where = np.zeros(dx.shape, np.float32)
    safe = np.where(np.abs(a) < 1e-9, 1e-9, a)
    for sign in (-1, 1):
        t = (-b + sign * root) / safe
        f = (oz + t * dz - z0) / span
        ok = good & (t > 0) & (f >= 0) & (f <= 1) & (t < best) & (r0 + (r1 - r0) * f > 0)
        best = np.where(ok, t, best)
        where = np.where(ok, f, where)
    return best.astype(np.float32), where.astype(np.float32)


def hit_rod(a: Floats, b: Floats, radius: float, eye: Floats, ray: Floats) -> tuple[Floats, Floats]:
    """Return the distance along rays (n, 3) to a round-ended rod, inf for misses, and the normal there (n, 3)."""
    ba, oa = b - a, eye - a
    baba, baoa = float(ba @ ba), float(ba @ oa)
    bard, rdoa = ray @ ba, ray @ oa
    qa = baba - bard * bard
    qb = baba * rdoa - baoa * bard
    qc = baba * float(oa @ oa) - baoa * baoa - radius * radius * baba
    h = qb * qb - qa * qc
    t = (-qb - np.sqrt(np.maximum(h, 0))) / np.maximum(qa, 1e-9)
    y = baoa + t * bard
    inside = (h >= 0) & (y > 0) & (y < baba)
    end = np.where((y <= 0)[..., None], a, b)
    oc = eye - end
    sb = (ray * oc).sum(-1)
    sh = sb * sb - ((oc * oc).sum(-1) - radius * radius)
    t = np.where(inside, t, np.where((h >= 0) & (sh > 0), -sb - np.sqrt(np.maximum(sh, 0)), np.inf)).astype(np.float32)
    hit = eye + np.where(np.isfinite(t), t, 0)[..., None] * ray
    along = np.clip(((hit - a) @ ba) / baba, 0, 1)[..., None]
    return np.asarray(t, np.float32), np.asarray((hit - (a + along * ba)) / radius, np.float32)
