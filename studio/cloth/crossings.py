"""Find edges of a cloth that pass through its triangles: a cloth at rest has none."""

from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .contact import between, cell_table, cross, dot, hashed, is_in_cell, middles_of

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


@njit(cache=True)
def _passes(at: Points, p: int, q: int, a: int, b: int, c: int) -> bool:
    """Whether an edge passes through a triangle: Möller and Trumbore, "Fast, Minimum Storage Ray/Triangle Intersection" (1997)."""
    ray, u, v, s = between(at, p, q), between(at, a, b), between(at, a, c), between(at, a, p)
    h = cross(ray, v)
    size = dot(u, h)
    if abs(size) < 1e-14:
        return False
    k = cross(s, u)
    x, y, z = dot(s, h) / size, dot(ray, k) / size, dot(v, k) / size
    return x >= 0 and y >= 0 and x + y <= 1 and 0 <= z <= 1


@njit(cache=True)
def crossings(at: Points, triangles: Indices, edges: Indices) -> Indices:
    """Return the pairs (k, 2) of an edge and a triangle that it passes through, by their numbers; neighbours are left out."""
    longest = 0.0
    middles = middles_of(at, edges)
    for e in range(len(edges)):
        longest = max(longest, math.sqrt(((at[edges[e, 0]] - at[edges[e, 1]]) ** 2).sum()))
    starts, members = cell_table(middles, longest)
    found = np.empty((len(triangles), 2), np.int64)
    count = 0
    for t in range(len(triangles)):
        a, b, c = triangles[t]
        first, last = np.empty(3, np.int64), np.empty(3, np.int64)
        for axis in range(3):
            first[axis] = math.floor((min(at[a, axis], at[b, axis], at[c, axis]) - longest / 2) / longest)
            last[axis] = math.floor((max(at[a, axis], at[b, axis], at[c, axis]) + longest / 2) / longest)
        for x in range(first[0], last[0] + 1):
            for y in range(first[1], last[1] + 1):
                for z in range(first[2], last[2] + 1):
                    cell = hashed(x, y, z, len(starts) - 1)
                    for place in range(starts[cell], starts[cell + 1]):
                        e = members[place]
                        p, q = edges[e]
                        if p == a or p == b or p == c or q == a or q == b or q == c:
                            continue
                        if not is_in_cell(middles, e, longest, x, y, z):
                            continue
                        if _passes(at, p, q, a, b, c) and count < len(found):
                            found[count, 0], found[count, 1] = e, t
                            count += 1
    return found[:count].copy()
