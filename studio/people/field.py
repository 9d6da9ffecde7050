"""Signed distances from a closed mesh, as obstacles for cloth."""

from __future__ import annotations

import igl
import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import distance_transform_edt

from studio.cloth.obstacles import Obstacle

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


def distances(at: Points, faces: Indices, points: Points) -> NDArray[np.float32]:
    """Return the distance in cm of points (…, 3) from a closed mesh of triangles, negative inside.

    Inside is where the mesh winds round a point (Barill et al. 2018), so that small holes and folds do no harm.
    """
    found = igl.signed_distance(points.reshape(-1, 3), at, faces, sign_type=igl.SIGNED_DISTANCE_TYPE_FAST_WINDING_NUMBER)
    return np.asarray(found[0], np.float32).reshape(points.shape[:-1])


def bridged(distance: NDArray[np.float32], reach: float, spacing: float) -> NDArray[np.float32]:
    """Return distances from a solid whose gaps are filled where a ball of a radius of ``reach`` cm does not fit in.

    The ball's places are known to a cell of the grid; one cell is added, so that nothing else of the solid moves.
    """
    wide = distance_transform_edt(distance < reach) * spacing
    return np.minimum(distance, np.where(wide > 0, reach - wide + spacing, np.inf)).astype(np.float32)


def grid(low: Points, high: Points, spacing: float) -> Points:
    """Return the points (nx, ny, nz, 3) of a grid from one corner to another."""
    axes = [np.arange(int(np.ceil((b - a) / spacing)) + 1) * spacing + a for a, b in zip(low, high, strict=True)]
    return np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1)


def obstacle(at: Points, faces: Indices, points: Points, friction: float = 0.35) -> Obstacle:
    """Return a mesh as an obstacle on a grid's points."""
    spacing = float(points[1, 0, 0, 0] - points[0, 0, 0, 0])
    return Obstacle(distances(at, faces, points), points[0, 0, 0].astype(float), spacing, friction)
