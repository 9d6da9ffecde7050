"""Flat panels of cloth: outlines with named sides, cut into triangles of about equal size."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import Delaunay
from shapely import Polygon, contains_xy

Points = NDArray[np.float64]
Indices = NDArray[np.int64]

JITTER = 0.12
"""Points inside a panel leave their lattice by up to this share of the spacing, so that no direction folds more easily."""

MARGIN = 0.6
"""Distance of inner points from the outline, as a share of the spacing: nearer ones would give thin triangles."""


@dataclass(frozen=True)
class Panel:
    """A flat panel as triangles.

    Attributes:
        name: of the panel.
        flat: (n, 2) points in cm; the first ones run round the outline.
        triangles: (m, 3) indices of points, counter-clockwise in the flat.
        sides: indices of the points of each named side, in the direction of the outline, both ends included.
    """

    name: str
    flat: Points
    triangles: Indices
    sides: Mapping[str, Indices]


def resampled(line: Points, count: int) -> Points:
    """Return ``count`` points at equal distances along a line (n, 2), both ends included."""
    along = np.append(0, np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1)))
    places = np.linspace(0, along[-1], count)
    return np.stack([np.interp(places, along, line[:, axis]) for axis in (0, 1)], axis=1)


def cut(
    name: str, sides: Mapping[str, Points], spacing: float, counts: Mapping[str, int] | None = None, seed: int = 0
) -> Panel:
    """Cut a panel into triangles.

    Args:
        name: of the panel.
        sides: its outline as named lines (n, 2) in cm, one after another, counter-clockwise; each begins where the last one ends.
        spacing: length of a triangle's side in cm, about.
        counts: number of points of some sides: sides that are sewn together need the same.
        seed: of the irregular places inside.
    """
    outline: list[Points] = []
    indices: dict[str, Indices] = {}
    start = 0
    for side, line in sides.items():
        length = float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())
        count = (counts or {}).get(side, max(2, round(length / spacing) + 1))
        outline.append(resampled(line, count)[:-1])
        indices[side] = np.arange(start, start + count)
        start += count - 1
    for side in indices:
        indices[side] %= start
    border = np.concatenate(outline)
    shape = Polygon(border)
    flat = np.concatenate([border, _inner(shape, spacing, np.random.default_rng(seed))])
    triangles = Delaunay(flat).simplices.astype(np.int64)
    corners = flat[triangles]
    middle = corners.mean(axis=1)
    area = _cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]) / 2
    inside = contains_xy(shape, middle[:, 0], middle[:, 1]) & (np.abs(area) > 1e-6 * spacing**2)
    triangles, area = triangles[inside], area[inside]
    triangles[area < 0] = triangles[area < 0][:, ::-1]
    return Panel(name, flat, triangles, indices)


def _inner(shape: Polygon, spacing: float, rng: np.random.Generator) -> Points:
    """Return the points of an irregular hexagonal lattice inside a shape."""
    x0, y0, x1, y1 = shape.bounds
    rise = spacing * np.sqrt(3) / 2
    rows, columns = np.mgrid[0 : int((y1 - y0) / rise) + 2, 0 : int((x1 - x0) / spacing) + 2]
    lattice = np.stack([x0 + (columns + rows % 2 / 2) * spacing, y0 + rows * rise], axis=-1).reshape(-1, 2)
    lattice = lattice + rng.uniform(-JITTER, JITTER, lattice.shape) * spacing
    return np.asarray(lattice[contains_xy(shape.buffer(-MARGIN * spacing), lattice[:, 0], lattice[:, 1])])


def _cross(a: Points, b: Points) -> Points:
    return np.asarray(a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0])


def rectangle(name: str, width: float, height: float, spacing: float, seed: int = 0) -> Panel:
    """Return a panel of ``width`` × ``height`` cm from (0, 0), with the sides ``foot``, ``right``, ``head`` and ``left``."""
    a, b, c, d = np.array([0.0, 0.0]), np.array([width, 0.0]), np.array([width, height]), np.array([0.0, height])
    sides = {"foot": [a, b], "right": [b, c], "head": [c, d], "left": [d, a]}
    return cut(name, {side: np.array(line) for side, line in sides.items()}, spacing, seed=seed)
