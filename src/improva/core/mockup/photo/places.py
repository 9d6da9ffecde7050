"""Where a print lies on a photograph: a plane in perspective, or a cylinder or cone seen by a camera that is worked out."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import distance_transform_edt
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation

from ...colour import Floats
from ...errors import BadScene
from ...template import Panel
from ..scene import Measure
from .marks import FLAT, ROUND, Marks, Point, goes_round

USUAL_LENS = 1.5
"""Focal length in picture widths that is taken where the points do not tell: a phone's short telephoto. From memory."""
BEYOND_PX = 3
"""How far u and v are carried past the print's edge."""
UNSURE = 0.004
"""How strongly it is held to, in picture widths for a lens e times as long."""
REACH = 0.015
"""How far they are carried past a round blank's outline, in picture widths."""
OUTSIDE = "The print would lie outside the photograph: bring its points on to it."

Plane = NDArray[np.float64]


@dataclass(frozen=True)
class Place:
    """Where a print is seen.

    Attributes:
        uv: (h, w, 2), NaN where it is not near.
        share: how much of each pixel is print, (h, w) in 0…1; carried past a round blank's outline.
        seen: where the print itself is surely seen, (h, w).
        off: how far the points lie from where the blank's figures would put them, root mean square, in picture heights.
        outline: the print's edge as a closed ring of points in px.
        measures: lines for size pictures, in px.
    """

    uv: Floats
    share: Floats
    seen: NDArray[np.bool_]
    off: float
    outline: list[tuple[float, float]]
    measures: list[Measure] = field(default_factory=list)


def suggested(panel: Panel) -> tuple[Point, ...]:
    """Points to begin with, in the middle of a picture."""
    if goes_round(panel):
        top, foot = (panel.cone.top_mm, panel.cone.bottom_mm) if panel.cone else (1.0, 1.0)
        low = 0.18 * foot / max(top, foot)
        high = 0.18 * top / max(top, foot)
        return (0.5 - high, 0.25), (0.5, 0.28), (0.5 + high, 0.25), (0.5 - low, 0.75), (0.5, 0.79), (0.5 + low, 0.75)
    return (0.3, 0.25), (0.7, 0.25), (0.7, 0.75), (0.3, 0.75)


def place_of(panel: Panel, marks: Marks, size: tuple[int, int]) -> Place:
    """Where the panel is seen on a photograph of that size in px. Raises :class:`BadScene` for points that cannot be."""
    marks.check(panel)
    points = np.array(marks.points, np.float64) * size
    return _round(panel, points, marks.facing_deg, size) if goes_round(panel) else _flat(panel, points, marks, size)


def _centres(size: tuple[int, int], window: tuple[slice, slice]) -> Plane:
    """The middles of pixels in a window, (h, w, 2) px."""
    y, x = (np.arange(part.start, part.stop) + 0.5 for part in window)
    return np.stack(np.meshgrid(x, y), -1)


def _window(points: Plane, size: tuple[int, int]) -> tuple[slice, slice]:
    """Rows and columns round some points, with a little air. Raises :class:`BadScene` where none are in the picture."""
    air = REACH * size[0] + 2
    low, high = np.clip(points.min(0) - air, 0, size).astype(int), np.clip(points.max(0) + air, 0, size).astype(int)
    if (high - low < 2).any():
        raise BadScene(OUTSIDE)
    return slice(int(low[1]), int(high[1])), slice(int(low[0]), int(high[0]))


def _placed(uv: Plane, window: tuple[slice, slice], size: tuple[int, int]) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Places, shares and sight of a whole picture from u and v in a window, NaN where the surface is missed.

    A pixel's share follows from how near the print's edge is against how much u and v change from one pixel to the next.
    Past the outline, where the product's own edge pixels lie, both are carried on.
    """
    with np.errstate(invalid="ignore"):
        step = [np.maximum(np.hypot(*np.gradient(uv[..., i])), 1e-9) for i in (0, 1)]
        inside = np.min([np.minimum(uv[..., i], 1 - uv[..., i]) / step[i] for i in (0, 1)], axis=0)
    share = np.clip(inside + 0.5, 0, 1)
    known = np.isfinite(share)
    if not known.any():
        raise BadScene(OUTSIDE)
    away, (iy, ix) = distance_transform_edt(~known, return_indices=True)
    uv, share, inside = uv[iy, ix], share[iy, ix], inside[iy, ix]
    near = (away <= REACH * size[0]) & (inside >= -BEYOND_PX)
    place = np.full((size[1], size[0], 2), np.nan, np.float32)
    place[window] = np.where(near[..., None], np.clip(uv, 0, 1), np.nan)
    shares = np.zeros((size[1], size[0]), np.float32)
    shares[window] = np.where(near, share, 0)
    if not shares.any():
        raise BadScene(OUTSIDE)
    seen = np.zeros((size[1], size[0]), bool)
    seen[window] = known & (share >= 1)
    return place, shares, seen


def _flat(panel: Panel, points: Plane, marks: Marks, size: tuple[int, int]) -> Place:
    """By the plane's perspective; Hartley and Zisserman, "Multiple View Geometry", 2nd edition, algorithm 4.1."""
    edge = np.roll(points, -1, 0) - points
    after = np.roll(edge, -1, 0)
    if not (edge[:, 0] * after[:, 1] > edge[:, 1] * after[:, 0]).all():
        raise BadScene(f"The corners must go round once, in this order: {', '.join(FLAT)}.")
    w, h = marks.size_mm or panel.trim_mm
    real = np.array([(0, 0), (w, 0), (w, h), (0, h)], np.float32)
    to_photo = cv2.getPerspectiveTransform(real, points.astype(np.float32)).astype(np.float64)
    middle = np.array([w / 2 + marks.offset_mm[0], h / 2 + marks.offset_mm[1]])
    corner = middle - np.array(panel.trim_mm) / 2
    back = np.linalg.inv(to_photo)
    side = np.sign(back[2] @ [*points.mean(0), 1])
    (x, y), (pw, ph) = corner, panel.trim_mm
    ends = np.array([(x, y, 1), (x + pw, y, 1), (x + pw, y + ph, 1), (x, y + ph, 1)]) @ to_photo.T
    if (ends[:, 2] <= 1e-9).any():
        raise BadScene("The print would reach past the horizon of the marked rectangle: mark it nearer to the print.")
    window = _window(ends[:, :2] / ends[:, 2:], size)
    flat = _centres(size, window) @ back[:, :2].T + back[:, 2]
    with np.errstate(divide="ignore", invalid="ignore"):
        uv = (flat[..., :2] / flat[..., 2:] - corner) / np.array(panel.trim_mm)
    uv[flat[..., 2] * side <= 1e-9] = np.nan  # behind the plane's horizon
    place, share, seen = _placed(uv, window, size)

    def at_mm(x: float, y: float) -> tuple[float, float]:
        at = to_photo @ [x, y, 1]
        return float(at[0] / at[2]), float(at[1] / at[2])

    air = 0.05 * max(pw, ph)
    measures = [Measure("Print width", pw, at_mm(x, y + ph + air), at_mm(x + pw, y + ph + air)),
                Measure("Print height", ph, at_mm(x + pw + air, y + ph), at_mm(x + pw + air, y))]  # fmt: skip
    ring = [(float(x), float(y)) for x, y in ends[:, :2] / ends[:, 2:]]
    return Place(place, share, seen, 0.0, ring, measures)


@dataclass(frozen=True)
class _Body:
    """A print's band: radii in mm at its foot and its top, and its height along the axis."""

    foot_r: float
    top_r: float
    height: float

    def rim(self, top: bool) -> tuple[float, float]:
        return (self.height, self.top_r) if top else (0.0, self.foot_r)


def body_of(panel: Panel) -> _Body:
    """A panel's band from its figures."""
    if panel.cone is not None:
        return _Body(panel.cone.bottom_mm / 2 / math.pi, panel.cone.top_mm / 2 / math.pi, panel.cone.height_mm)
    r = (panel.trim_mm[0] + panel.gap_mm) / 2 / math.pi
    return _Body(r, r, panel.trim_mm[1])


@dataclass(frozen=True)
class Camera:
    """A pinhole before a body whose axis is z: it stands on the -y side, ``away`` mm off and ``high`` mm up.

    ``turn`` is a rotation vector that takes it from looking straight ahead; ``focal`` and ``middle`` are in px.
    """

    away: float
    high: float
    turn: tuple[float, float, float]
    focal: float
    middle: tuple[float, float]

    @property
    def axes(self) -> Plane:
        """Rows: right, down, ahead, in the body's own space."""
        straight = np.array([[1.0, 0, 0], [0, 0, -1.0], [0, 1.0, 0]])
        return np.asarray(Rotation.from_rotvec(self.turn).as_matrix() @ straight)

    def seen(self, points: Plane) -> Plane:
        """Where points (n, 3) fall, (n, 2) px."""
        at = (points - [0, -self.away, self.high]) @ self.axes.T
        return np.asarray(at[:, :2] / np.maximum(at[:, 2:], 1e-6) * self.focal + self.middle)

    def rays(self, grid: Plane) -> Plane:
        """Directions (…, 3) of what is seen at points of the picture."""
        flat = np.concatenate([(grid - self.middle) / self.focal, np.ones((*grid.shape[:-1], 1))], -1)
        return np.asarray(flat @ self.axes)


def rims(body: _Body, camera: Camera) -> Plane:
    """Where the left and right ends of the visible rims are seen, top then foot, (4, 2) px: where the outline touches them."""
    found = []
    for top in (True, False):
        z, r = body.rim(top)
        side = _to_outline(body, camera, top)
        found += [(r * math.cos(a), r * math.sin(a), z) for a in (-math.pi / 2 - side, -math.pi / 2 + side)]
    return camera.seen(np.array(found))


def _to_outline(body: _Body, camera: Camera, top: bool) -> float:
    """From a rim's front to where it passes out of sight, in radians.

    There the wall's outward normal (cos a, sin a, -slope) is square to the way from the eye.
    """
    z, r = body.rim(top)
    slope = (body.top_r - body.foot_r) / body.height
    return math.acos(float(np.clip((r + slope * (camera.high - z)) / camera.away, -1, 1)))


def outline_of(body: _Body, camera: Camera) -> list[tuple[float, float]]:
    """The seen edge of the band, a closed ring of points in px: along the upper rim's near side, and back along the lower."""
    ring = []
    for top in (True, False):
        z, r = body.rim(top)
        side = _to_outline(body, camera, top)
        a = -math.pi / 2 + np.linspace(-side, side, 25) * (1 if top else -1)
        ring.append(camera.seen(np.stack([r * np.cos(a), r * np.sin(a), np.full(25, z)], 1)))
    return [(float(x), float(y)) for x, y in np.concatenate(ring)]


def _rim_off(body: _Body, camera: Camera, top: bool, point: Plane) -> float:
    """How far a point lies below the near side of a rim, in px, straight down the picture."""
    z, r = body.rim(top)
    a = np.radians(np.linspace(-175, -5, 60))
    seen = camera.seen(np.stack([r * np.cos(a), r * np.sin(a), np.full(60, z)], 1))
    return float(point[1] - np.interp(point[0], seen[:, 0], seen[:, 1]))


def fit_camera(body: _Body, points: Plane, size: tuple[int, int]) -> tuple[Camera, float]:
    """The camera that sees a body so, and the root mean square of what is left, in px. Raises :class:`BadScene`.

    The lens is found by how the rims differ in openness and width; where they tell little, a usual one is taken.
    """
    left, front, right = points[0], points[1], points[2]
    if not (
        left[0] < front[0] < right[0]
        and points[3][0] < points[4][0] < points[5][0]
        and points[:3, 1].max() < points[3:, 1].min()
    ):
        raise BadScene(f"The points must lie in this order: {', '.join(ROUND)}.")  # fmt: skip
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
        held = camera(v)
        ends = (rims(body, held) - points[[0, 2, 3, 5]]).ravel()
        fronts = [_rim_off(body, held, top, points[1 if top else 4]) for top in (True, False)]
        return np.concatenate([ends, fronts, [UNSURE * size[0] * v[5]]])

    centre = points.mean(0)
    best = None
    for tilt in (math.asin(open_), 0.1):
        down = math.atan2(math.sin(tilt), 1) + (centre[1] - middle[1]) / usual * -1
        start = np.array(
            [math.log(away), math.tan(tilt) + body.height / 2 / away, -down, (centre[0] - middle[0]) / usual * -1, 0.0, 0.0]
        )
        found = least_squares(off, start, method="lm", max_nfev=400)
        best = found if best is None or found.cost < best.cost else best
    assert best is not None
    held, left_px = camera(best.x), float(np.sqrt(np.mean(best.fun[:-1] ** 2)))
    if not np.isfinite(left_px) or held.away <= max(body.top_r, body.foot_r):
        raise BadScene("No camera sees a blank of these figures so: move the points on to the edges of the print.")
    return held, left_px


def _round(panel: Panel, points: Plane, facing_deg: float, size: tuple[int, int]) -> Place:
    body = body_of(panel)
    camera, left_px = fit_camera(body, points, size)
    window = _window(points, size)
    uv = _on_body(panel, body, camera, camera.rays(_centres(size, window)), facing_deg)
    place, share, seen = _placed(uv, window, size)
    r = max(body.top_r, body.foot_r) * 1.18
    lower, upper = camera.seen(np.array([[r, 0, 0], [r, 0, body.height]]))
    ends = camera.seen(np.array([[-body.foot_r, 0, -0.07 * body.height], [body.foot_r, 0, -0.07 * body.height]]))
    measures = [Measure("Print height", panel.worn().trim_mm[1], (float(lower[0]), float(lower[1])), (float(upper[0]), float(upper[1]))),
                Measure("Diameter", 2 * body.foot_r, (float(ends[0][0]), float(ends[0][1])), (float(ends[1][0]), float(ends[1][1])))]  # fmt: skip
    return Place(place, share, seen, left_px / size[1], outline_of(body, camera), measures)


def _on_body(panel: Panel, body: _Body, camera: Camera, ray: Plane, facing_deg: float) -> Plane:
    """u and v where rays (…, 3) first meet the band, NaN where they miss."""
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
    worn = panel.worn().trim_mm[0]
    return np.stack([0.5 + turns * (worn + panel.gap_mm) / worn, 1 - z / body.height], -1)
