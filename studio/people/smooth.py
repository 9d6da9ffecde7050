"""Smooth a mesh of quadrilaterals (Catmull and Clark, "Recursively generated B-spline surfaces on arbitrary topological meshes", 1978)."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


def finer(at: Points, faces: Indices) -> tuple[Points, Indices]:
    """Return points and faces (4m, 4) with four faces for each one; face ``k`` becomes ``k``, ``k + m``, ``k + 2m`` and ``k + 3m``,
    each around one of its corners in their order."""
    count, number = len(at), len(faces)
    following = np.roll(faces, -1, axis=1)
    sides = np.sort(np.stack([faces, following], axis=-1).reshape(-1, 2), axis=1)
    edges, which, uses = np.unique(sides, axis=0, return_inverse=True, return_counts=True)
    which = which.reshape(number, 4)
    middles = at[faces].mean(axis=1)
    halves = at[edges].mean(axis=1)
    beside = np.zeros_like(halves)
    np.add.at(beside, which.ravel(), np.repeat(middles, 4, axis=0))
    inner = uses == 2
    edge_points = np.where(inner[:, None], (halves + beside / np.maximum(uses, 1)[:, None]) / 2, halves)
    # a corner with n faces: (mean of faces + 2 mean of edges' middles + (n - 3) itself) / n
    valence = np.bincount(faces.ravel(), minlength=count).astype(float)
    around = np.zeros_like(at)
    np.add.at(around, faces.ravel(), np.repeat(middles, 4, axis=0))
    ends = np.bincount(edges.ravel(), minlength=count).astype(float)
    along = np.zeros_like(at)
    np.add.at(along, edges.ravel(), np.repeat(halves, 2, axis=0))
    n = np.maximum(valence, 1)[:, None]
    moved = (around / n + 2 * along / np.maximum(ends, 1)[:, None] + (n - 3) * at) / n
    rim = np.zeros(count, bool)
    rim[edges[~inner].ravel()] = True
    kept = rim | (valence == 0)
    points = np.concatenate([np.where(kept[:, None], at, moved), edge_points, middles])
    edge, middle = count + which, count + len(edges) + np.arange(number)
    before = np.roll(edge, 1, axis=1)
    parts = [np.column_stack([faces[:, k], edge[:, k], middle, before[:, k]]) for k in range(4)]
    return points, np.concatenate(parts)


def finer_places(corners: Points) -> Points:
    """Return places on a map (4m, 4, 2) of the corners of finer faces, for those (m, 4, 2) of the faces."""
    edge = (corners + np.roll(corners, -1, axis=1)) / 2
    middle = corners.mean(axis=1)
    before = np.roll(edge, 1, axis=1)
    return np.concatenate([np.stack([corners[:, k], edge[:, k], middle, before[:, k]], axis=1) for k in range(4)])
