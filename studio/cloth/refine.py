"""Smooth a mesh of triangles (Loop, "Smooth subdivision surfaces based on triangles", 1987; Warren's weights)."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array, csr_array

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


def split(triangles: Indices, count: int) -> tuple[Indices, Indices, Indices, Indices]:
    """Return a mesh's edges (e, 2), the edge of each side (3m,), how many triangles use each edge, and four triangles for each one.

    Edge ``k`` has the new point ``count + k`` in its middle. A triangle ``k`` becomes ``k`` at its first corner, ``k + m`` and
    ``k + 2m`` at the others, and ``k + 3m`` in its middle.
    """
    ends = np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    edges, which, uses = np.unique(np.sort(ends, axis=1), axis=0, return_inverse=True, return_counts=True)
    which = which.ravel()
    ab, bc, ca = count + which.reshape(3, -1)
    a, b, c = triangles.T
    finer = np.concatenate([np.column_stack(t) for t in ((a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca))])
    return edges, which, uses, finer


def loop(triangles: Indices, count: int) -> tuple[csr_array, Indices]:
    """Return the matrix (new, count) that makes a finer mesh's points, and its triangles (4m, 3), as :func:`split` orders them.

    Borders are smooth lines of their own.
    """
    edges, which, uses, finer = split(triangles, count)
    opposite = np.concatenate([triangles[:, 2], triangles[:, 0], triangles[:, 1]])
    inner = uses == 2
    rows, columns, values = [], [], []

    def put(row: Indices, column: Indices, value: NDArray[np.float64] | float) -> None:
        rows.append(row)
        columns.append(column)
        values.append(np.broadcast_to(np.asarray(value, float), row.shape))

    new = count + np.arange(len(edges))
    for end in (0, 1):
        put(new, edges[:, end], np.where(inner, 3 / 8, 1 / 2))
    put(count + which[inner[which]], opposite[inner[which]], 1 / 8)
    neighbours = np.bincount(edges.ravel(), minlength=count)
    on_border = np.zeros(count, bool)
    on_border[edges[~inner].ravel()] = True
    share = np.where(neighbours == 3, 3 / 16, 3 / (8 * np.maximum(neighbours, 1)))
    used = neighbours > 0
    own = np.where(on_border, 3 / 4, 1 - neighbours * share)
    put(np.arange(count), np.arange(count), np.where(used, own, 1.0))
    for one, other in ((0, 1), (1, 0)):
        a, b = edges[:, one], edges[:, other]
        along = ~inner
        put(a[along], b[along], 1 / 8)
        free = ~on_border[a]
        put(a[free], b[free], share[a[free]])
    matrix = coo_array(
        (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=(count + len(edges), count)
    ).tocsr()
    return matrix, finer
