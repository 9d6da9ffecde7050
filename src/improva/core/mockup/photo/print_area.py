"""Locate a print on a photograph: a plane in perspective, or a cylinder or cone seen by a computed camera."""

from __future__ import annotations

from dataclasses import dataclass, field

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import distance_transform_edt

from ...colour import Floats
from ...errors import SceneError
from ...template import Panel
from ..scene import Measure
from .camera import Plane, body_of, fit_camera, on_body, outline_of
from .marks import FLAT, Marks, Point, goes_round

BEYOND_PX = 3
"""How far u and v are continued past the print's edge."""
REACH = 0.015
"""How far they are continued past a round blank's outline, in picture widths."""
OUTSIDE = "The print would lie outside the photograph: bring its points on to it."


@dataclass(frozen=True)
class Place:
    """Position and visibility of a print on a photograph.

    Attributes:
        uv: (h, w, 2), NaN where it is not near.
        share: the print's share of each pixel, (h, w) in 0…1; extended past a round blank's outline.
        seen: where the print itself is surely seen, (h, w).
        off: distance of the points from where the blank's figures put them, root mean square, in picture heights.
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
    """Return initial points in the middle of a picture."""
    if goes_round(panel):
        top, foot = (panel.cone.top_mm, panel.cone.bottom_mm) if panel.cone else (1.0, 1.0)
        low = 0.18 * foot / max(top, foot)
        high = 0.18 * top / max(top, foot)
        return (0.5 - high, 0.25), (0.5, 0.28), (0.5 + high, 0.25), (0.5 - low, 0.75), (0.5, 0.79), (0.5 + low, 0.75)
    return (0.3, 0.25), (0.7, 0.25), (0.7, 0.75), (0.3, 0.75)


def place_of(panel: Panel, marks: Marks, size: tuple[int, int]) -> Place:
    """Locate the panel on a photograph of a size in px. Raises :class:`SceneError` for impossible points."""
    marks.check(panel)
    points = np.array(marks.points, np.float64) * size
    return _round(panel, points, marks.facing_deg, size) if goes_round(panel) else _flat(panel, points, marks, size)


def _centres(size: tuple[int, int], window: tuple[slice, slice]) -> Plane:
    """Return the centres of the pixels in a window, (h, w, 2) px."""
    y, x = (np.arange(part.start, part.stop) + 0.5 for part in window)
    return np.stack(np.meshgrid(x, y), -1)


def _window(points: Plane, size: tuple[int, int]) -> tuple[slice, slice]:
    """Return the rows and columns around points, with a margin. Raises :class:`SceneError` for points outside the picture."""
    air = REACH * size[0] + 2
    low, high = np.clip(points.min(0) - air, 0, size).astype(int), np.clip(points.max(0) + air, 0, size).astype(int)
    if (high - low < 2).any():
        raise SceneError(OUTSIDE)
    return slice(int(low[1]), int(high[1])), slice(int(low[0]), int(high[0]))


def _placed(uv: Plane, window: tuple[slice, slice], size: tuple[int, int]) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Return texture coordinates, shares and visibility of a whole picture from u and v in a window, NaN where rays miss.

    A pixel's share follows from how near the print's edge is against how much u and v change from one pixel to the next.
    Past the outline, where the product's own edge pixels lie, both are carried on.
    """
    with np.errstate(invalid="ignore"):
        step = [np.maximum(np.hypot(*np.gradient(uv[..., i])), 1e-9) for i in (0, 1)]
        inside = np.min([np.minimum(uv[..., i], 1 - uv[..., i]) / step[i] for i in (0, 1)], axis=0)
    share = np.clip(inside + 0.5, 0, 1)
    known = np.isfinite(share)
    if not known.any():
        raise SceneError(OUTSIDE)
    away, (iy, ix) = distance_transform_edt(~known, return_indices=True)
    uv, share, inside = uv[iy, ix], share[iy, ix], inside[iy, ix]
    near = (away <= REACH * size[0]) & (inside >= -BEYOND_PX)
    place = np.full((size[1], size[0], 2), np.nan, np.float32)
    place[window] = np.where(near[..., None], np.clip(uv, 0, 1), np.nan)
    shares = np.zeros((size[1], size[0]), np.float32)
    shares[window] = np.where(near, share, 0)
    if not shares.any():
        raise SceneError(OUTSIDE)
    seen = np.zeros((size[1], size[0]), bool)
    seen[window] = known & (share >= 1)
    return place, shares, seen


def _flat(panel: Panel, points: Plane, marks: Marks, size: tuple[int, int]) -> Place:
    """Map a plane by its perspective; Hartley and Zisserman, "Multiple View Geometry", 2nd edition, algorithm 4.1."""
    edge = np.roll(points, -1, 0) - points
    after = np.roll(edge, -1, 0)
    if not (edge[:, 0] * after[:, 1] > edge[:, 1] * after[:, 0]).all():
        raise SceneError(f"The corners must go round once, in this order: {', '.join(FLAT)}.")
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
        raise SceneError("The print would reach past the horizon of the marked rectangle: mark it nearer to the print.")
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
    measures = [
        Measure("Print width", pw, at_mm(x, y + ph + air), at_mm(x + pw, y + ph + air)),
        Measure("Print height", ph, at_mm(x + pw + air, y + ph), at_mm(x + pw + air, y)),
    ]
    ring = [(float(x), float(y)) for x, y in ends[:, :2] / ends[:, 2:]]
    return Place(place, share, seen, 0.0, ring, measures)


def _round(panel: Panel, points: Plane, facing_deg: float, size: tuple[int, int]) -> Place:
    body = body_of(panel)
    camera, left_px = fit_camera(body, points, size)
    window = _window(points, size)
    uv = on_body(panel, body, camera, camera.rays(_centres(size, window)), facing_deg)
    place, share, seen = _placed(uv, window, size)
    r = max(body.top_r, body.foot_r) * 1.18
    lower, upper = camera.seen(np.array([[r, 0, 0], [r, 0, body.height]]))
    ends = camera.seen(np.array([[-body.foot_r, 0, -0.07 * body.height], [body.foot_r, 0, -0.07 * body.height]]))
    measures = [
        Measure(
            "Print height", panel.level().trim_mm[1], (float(lower[0]), float(lower[1])), (float(upper[0]), float(upper[1]))
        ),
        Measure("Diameter", 2 * body.foot_r, (float(ends[0][0]), float(ends[0][1])), (float(ends[1][0]), float(ends[1][1]))),
    ]
    return Place(place, share, seen, left_px / size[1], outline_of(body, camera), measures)
