"""Reconstruct the camera of a photograph of a round blank from the visible rims of its print."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation

from ...errors import SceneError
from ...template import Panel
from ..drawn.body import band_of
from .marks import ROUND

USUAL_LENS = 1.5
"""Focal length in picture widths if the points do not determine it: a phone's short telephoto. From memory."""
UNSURE = 0.004
"""Weight of this assumption, in picture widths for a lens e times as long."""

Plane = NDArray[np.float64]


@dataclass(frozen=True)
class Body:
    """The band of a print: radii in mm at foot and top, and its height along the axis."""

    foot_r: float
    top_r: float
    height: float

    def rim(self, top: bool) -> tuple[float, float]:
        """Return height and radius of the upper or the lower rim."""
        return (self.height, self.top_r) if top else (0.0, self.foot_r)


def body_of(panel: Panel) -> Body:
    """Return the band of a panel."""
    return Body(*band_of(panel))


@dataclass(frozen=True)
class Camera:
    """A pinhole camera before a body whose axis is z: on the -y side, ``away`` mm off and ``high`` mm up.

    ``turn`` is a rotation vector that takes it from looking straight ahead; ``focal`` and ``middle`` are in px.
    """

    away: float
    high: float
    turn: tuple[float, float, float]
    focal: float
    middle: tuple[float, float]

    @property
    def axes(self) -> Plane:
        """Return the camera's axes as rows: right, down, forward, in the body's space."""
        straight = np.array([[1.0, 0, 0], [0, 0, -1.0], [0, 1.0, 0]])
        return np.asarray(Rotation.from_rotvec(self.turn).as_matrix() @ straight)

    def seen(self, points: Plane) -> Plane:
        """Project points (n, 3) to (n, 2) px."""
        at = (points - [0, -self.away, self.high]) @ self.axes.T
        return np.asarray(at[:, :2] / np.maximum(at[:, 2:], 1e-6) * self.focal + self.middle)

    def rays(self, grid: Plane) -> Plane:
        """Return the directions (…, 3) through points of the picture."""
        flat = np.concatenate([(grid - self.middle) / self.focal, np.ones((*grid.shape[:-1], 1))], -1)
        return np.asarray(flat @ self.axes)


def rims(body: Body, camera: Camera) -> Plane:
    """Return the left and right ends of the visible rims, top then foot, (4, 2) px: where the outline touches them."""
    ellipses = []
    for top in (True, False):
        z, r = body.rim(top)
        side = _to_outline(body, camera, top)
        ellipses += [(r * math.cos(a), r * math.sin(a), z) for a in (-math.pi / 2 - side, -math.pi / 2 + side)]
    return camera.seen(np.array(ellipses))


def _to_outline(body: Body, camera: Camera, top: bool) -> float:
    """Return the angle from a rim's front to the point where it leaves sight, in radians.

    There the wall's outward normal (cos a, sin a, -slope) is square to the way from the eye.
    """
    z, r = body.rim(top)
    slope = (body.top_r - body.foot_r) / body.height
    return math.acos(float(np.clip((r + slope * (camera.high - z)) / camera.away, -1, 1)))


def outline_of(body: Body, camera: Camera) -> list[tuple[float, float]]:
    """Return the visible outline of the band, a closed ring of points in px: the upper rim's near side, then the lower one's."""
    ring = []
    for top in (True, False):
        z, r = body.rim(top)
        side = _to_outline(body, camera, top)
        a = -math.pi / 2 + np.linspace(-side, side, 25) * (1 if top else -1)
        ring.append(camera.seen(np.stack([r * np.cos(a), r * np.sin(a), np.full(25, z)], 1)))
    return [(float(x), float(y)) for x, y in np.concatenate(ring)]


def _rim_off(body: Body, camera: Camera, top: bool, point: Plane) -> float:
    """Return how far a point lies below the near side of a rim, in px."""
    z, r = body.rim(top)
    a = np.radians(np.linspace(-175, -5, 60))
    seen = camera.seen(np.stack([r * np.cos(a), r * np.sin(a), np.full(60, z)], 1))
    return float(point[1] - np.interp(point[0], seen[:, 0], seen[:, 1]))


def fit_camera(body: Body, points: Plane, size: tuple[int, int]) -> tuple[Camera, float]:
    """Fit a camera to the marked rims; return it with the root mean square residual in px. Raises :class:`SceneError`.

    The lens is found by how the rims differ in openness and width; where they tell little, a usual one is taken.
    """
    left, front, right = points[0], points[1], points[2]
    if not (
        left[0] < front[0] < right[0]
        and points[3][0] < points[4][0] < points[5][0]
        and points[:3, 1].max() < points[3:, 1].min()
    ):
        raise SceneError(f"The points must lie in this order: {', '.join(ROUND)}.")
    middle = (size[0] / 2, size[1] / 2)
    scale = float(np.hypot(*(right - left))) / 2 / body.top_r
    usual = USUAL_LENS * size[0]
    open_ = float(np.clip((front[1] - (left[1] + right[1]) / 2) / max(scale * body.top_r, 1e-6), -0.9, 0.9))
    away = usual / scale

    def camera(v: Plane) -> Camera:
        return Camera(
            float(np.exp(v[0])),
            float(v[1] * away),
            (float(v[2]), float(v[3]), float(v[4])),
            usual * float(np.exp(v[5])),
            middle,
        )

    def off(v: Plane) -> Plane:
        fitted = camera(v)
        ends = (rims(body, fitted) - points[[0, 2, 3, 5]]).ravel()
        fronts = [_rim_off(body, fitted, top, points[1 if top else 4]) for top in (True, False)]
        return np.concatenate([ends, fronts, [UNSURE * size[0] * v[5]]])

    centre, axis = points.mean(0), points[:3].mean(0) - points[3:].mean(0)
    roll = math.atan2(axis[0], -axis[1])
    best = None
    for tilt, lean in ((math.asin(open_), roll), (math.asin(open_), -roll), (0.1, 0.0)):
        down = math.atan2(math.sin(tilt), 1) - (centre[1] - middle[1]) / usual
        high = math.tan(tilt) + body.height / 2 / away
        start = np.array([math.log(away), high, -down, (middle[0] - centre[0]) / usual, lean, 0.0])
        solution = least_squares(off, start, method="lm", max_nfev=400)
        best = solution if best is None or solution.cost < best.cost else best
    assert best is not None
    fitted, left_px = camera(best.x), float(np.sqrt(np.mean(best.fun[:-1] ** 2)))
    if not np.isfinite(left_px) or fitted.away <= max(body.top_r, body.foot_r):
        raise SceneError("No camera sees a blank of these figures so: move the points on to the edges of the print.")
    return fitted, left_px


def on_body(panel: Panel, body: Body, camera: Camera, ray: Plane, facing_deg: float) -> Plane:
    """Return u and v of the first intersection of rays (…, 3) with the band, NaN for misses."""
    k = (body.top_r - body.foot_r) / body.height
    dx, dy, dz = ray[..., 0], ray[..., 1], ray[..., 2]
    r_eye = body.foot_r + k * camera.high
    a = dx * dx + dy * dy - (k * dz) ** 2
    b = -camera.away * dy - r_eye * k * dz
    c = camera.away**2 - r_eye**2
    with np.errstate(invalid="ignore"):
        t = (-b - np.sqrt(b * b - a * c)) / a
    x, y, z = t * dx, t * dy - camera.away, camera.high + t * dz
    turns = (np.arctan2(x, -y) / (2 * math.pi) + facing_deg / 360 + 0.5) % 1 - 0.5
    print_mm = panel.level().trim_mm[0]
    return np.stack([0.5 + turns * (print_mm + panel.gap_mm) / print_mm, 1 - z / body.height], -1)
