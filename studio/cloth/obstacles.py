"""What cloth lies on: distance fields, whose points are pushed out with friction."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

Points = NDArray[np.float64]
Distances = NDArray[np.float32]

FAR = 1e9


@dataclass(frozen=True)
class Obstacle:
    """A solid as signed distances on a grid, negative inside.

    Attributes:
        distances: (nx, ny, nz) in cm.
        origin: (3,) place of the first one, in cm.
        spacing: of the grid, in cm.
        friction: of cloth on it, a coefficient.
    """

    distances: Distances
    origin: Points
    spacing: float
    friction: float = 0.35

    @classmethod
    def of(
        cls,
        distance: Callable[[Points], Points],
        low: tuple[float, float, float],
        high: tuple[float, float, float],
        spacing: float,
        friction: float = 0.35,
    ) -> Obstacle:
        """Sample a distance function of points (…, 3) between two corners."""
        axes = [np.arange(math.floor((b - a) / spacing) + 2) * spacing + a for a, b in zip(low, high, strict=True)]
        points = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1)
        return cls(distance(points).astype(np.float32), np.array(low, float), spacing, friction)


def ball(centre: tuple[float, float, float], radius: float) -> Callable[[Points], Points]:
    """Return the distance function of a ball."""
    return lambda points: np.linalg.norm(points - np.array(centre), axis=-1) - radius


def box(
    centre: tuple[float, float, float], size: tuple[float, float, float], rounded: float = 0.0
) -> Callable[[Points], Points]:
    """Return the distance function of a box with rounded edges."""

    def distance(points: Points) -> Points:
        beyond = np.abs(points - np.array(centre)) - (np.array(size) / 2 - rounded)
        outside = np.linalg.norm(np.maximum(beyond, 0), axis=-1)
        return np.asarray(outside + np.minimum(beyond.max(axis=-1), 0) - rounded)

    return distance


def joined(*parts: Callable[[Points], Points], soft: float = 0.0) -> Callable[[Points], Points]:
    """Return the distance function of several solids, melted together over ``soft`` cm."""

    def distance(points: Points) -> Points:
        result = parts[0](points)
        for part in parts[1:]:
            other = part(points)
            nearer = np.minimum(result, other)
            if soft:
                nearer = nearer - np.maximum(soft - np.abs(result - other), 0) ** 2 / (4 * soft)
            result = nearer
        return result

    return distance


@njit(cache=True)
def _sampled(distances: Distances, x: float, y: float, z: float, gradient: Points) -> float:
    """Return the distance at a place in cells of the grid, and write its gradient (3,); far away outside the grid."""
    nx, ny, nz = distances.shape
    if not (0 <= x < nx - 1 and 0 <= y < ny - 1 and 0 <= z < nz - 1):
        return FAR
    i, j, k = int(x), int(y), int(z)
    a, b, c = x - i, y - j, z - k
    d000, d001 = distances[i, j, k], distances[i, j, k + 1]
    d010, d011 = distances[i, j + 1, k], distances[i, j + 1, k + 1]
    d100, d101 = distances[i + 1, j, k], distances[i + 1, j, k + 1]
    d110, d111 = distances[i + 1, j + 1, k], distances[i + 1, j + 1, k + 1]
    d00, d01 = d000 + (d001 - d000) * c, d010 + (d011 - d010) * c
    d10, d11 = d100 + (d101 - d100) * c, d110 + (d111 - d110) * c
    d0, d1 = d00 + (d01 - d00) * b, d10 + (d11 - d10) * b
    gradient[0] = d1 - d0
    gradient[1] = (d01 - d00) * (1 - a) + (d11 - d10) * a
    gradient[2] = ((d001 - d000) * (1 - b) + (d011 - d010) * b) * (1 - a) + ((d101 - d100) * (1 - b) + (d111 - d110) * b) * a
    return float(d0 + (d1 - d0) * a)


@njit(cache=True)
def push_out(
    at: Points,
    before: Points,
    weight: Points,
    distances: Distances,
    origin: Points,
    spacing: float,
    clearance: float,
    friction: float,
) -> None:
    """Push points out of an obstacle to a distance of ``clearance``, and hold back their sliding since ``before``."""
    normal = np.zeros(3)
    for i in range(len(at)):
        if weight[i] == 0.0:
            continue
        x, y, z = ((at[i, 0] - origin[0]) / spacing, (at[i, 1] - origin[1]) / spacing, (at[i, 2] - origin[2]) / spacing)
        depth = clearance - _sampled(distances, x, y, z, normal)
        if depth <= 0:
            continue
        size = math.sqrt(normal[0] ** 2 + normal[1] ** 2 + normal[2] ** 2)
        if size < 1e-9:
            continue
        slid = 0.0
        for axis in range(3):
            normal[axis] /= size
            at[i, axis] += depth * normal[axis]
            slid += (at[i, axis] - before[i, axis]) * normal[axis]
        length = 0.0
        for axis in range(3):
            length += (at[i, axis] - before[i, axis] - slid * normal[axis]) ** 2
        length = math.sqrt(length)
        if length < 1e-12:
            continue
        back = min(1.0, friction * depth / length)
        for axis in range(3):
            at[i, axis] -= back * (at[i, axis] - before[i, axis] - slid * normal[axis])
