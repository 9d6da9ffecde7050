"""Contact of a cloth with itself: points with triangles and edges with edges, found on a grid and kept apart by its thickness.

Pairs are found while they are apart, with the direction from one to the other. Until they are found anew, that direction says on which
side each belongs, so that a pair that has passed through is brought back to its side.
"""

from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

Points = NDArray[np.float64]
Indices = NDArray[np.int64]

BESIDE = 0.3
"""Pairs are watched where the nearest places lie up to this share of a side beside an edge or a triangle: they may slide onto it."""


@njit(cache=True)
def hashed(x: int, y: int, z: int, cells: int) -> int:
    """Return the place of a cell of space in a table whose length is a power of two."""
    # large primes as in Teschner et al., "Optimized Spatial Hashing for Collision Detection of Deformable Objects" (2003)
    return ((x * 73856093) ^ (y * 19349663) ^ (z * 83492791)) & (cells - 1)


@njit(cache=True)
def cell_table(places: Points, size: float) -> tuple[Indices, Indices]:
    """Sort points into cells of a size: return the start of each cell's list, and the lists one after another."""
    count = 64
    while count < 2 * len(places):
        count *= 2
    starts = np.zeros(count + 1, np.int64)
    cells = np.empty(len(places), np.int64)
    for i in range(len(places)):
        cells[i] = hashed(
            math.floor(places[i, 0] / size),
            math.floor(places[i, 1] / size),
            math.floor(places[i, 2] / size),
            count,
        )
        starts[cells[i] + 1] += 1
    for c in range(count):
        starts[c + 1] += starts[c]
    filled = starts[:-1].copy()
    members = np.empty(len(places), np.int64)
    for i in range(len(places)):
        members[filled[cells[i]]] = i
        filled[cells[i]] += 1
    return starts, members


@njit(cache=True)
def between(at: Points, a: int, b: int) -> tuple[float, float, float]:
    return at[b, 0] - at[a, 0], at[b, 1] - at[a, 1], at[b, 2] - at[a, 2]


@njit(cache=True)
def dot(u: tuple[float, float, float], v: tuple[float, float, float]) -> float:
    return u[0] * v[0] + u[1] * v[1] + u[2] * v[2]


@njit(cache=True)
def cross(u: tuple[float, float, float], v: tuple[float, float, float]) -> tuple[float, float, float]:
    return u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]


@njit(cache=True)
def barycentric(at: Points, p: int, a: int, b: int, c: int) -> tuple[float, float, float]:
    """Return the shares of a triangle's corners in the point of its plane that is nearest to ``p``; far outside where degenerate."""
    e0, e1, f = between(at, a, b), between(at, a, c), between(at, a, p)
    d00, d01, d11 = dot(e0, e0), dot(e0, e1), dot(e1, e1)
    d20, d21 = dot(f, e0), dot(f, e1)
    size = d00 * d11 - d01 * d01
    if size < 1e-16:
        return -9.0, -9.0, -9.0
    v, w = (d11 * d20 - d01 * d21) / size, (d00 * d21 - d01 * d20) / size
    return 1 - v - w, v, w


@njit(cache=True)
def nearest_on_edges(at: Points, a: int, b: int, c: int, d: int) -> tuple[float, float]:
    """Return how far along two lines through edges their nearest points lie, 0…1 on the edge; far outside for parallel ones."""
    u, v, w = between(at, a, b), between(at, c, d), between(at, c, a)
    uu, uv, vv, uw, vw = dot(u, u), dot(u, v), dot(v, v), dot(u, w), dot(v, w)
    size = uu * vv - uv * uv
    if size < 1e-6 * uu * vv:
        return -9.0, -9.0
    return (uv * vw - vv * uw) / size, (uu * vw - uv * uw) / size


@njit(cache=True)
def middles_of(at: Points, edges: Indices) -> Points:
    """Return the middles of edges, (e, 3)."""
    middles = np.empty((len(edges), 3))
    for e in range(len(edges)):
        middles[e] = (at[edges[e, 0]] + at[edges[e, 1]]) / 2
    return middles


@njit(cache=True)
def is_in_cell(places: Points, i: int, size: float, x: int, y: int, z: int) -> bool:
    """Return whether a place lies in a cell; others may share the cell's list."""
    here = math.floor(places[i, 0] / size), math.floor(places[i, 1] / size), math.floor(places[i, 2] / size)
    return bool(here == (x, y, z))


@njit(cache=True)
def _with_room(pairs: Indices, ways: Points, count: int) -> tuple[Indices, Points]:
    """Return the lists of pairs, twice as long where they are full."""
    if count < len(pairs):
        return pairs, ways
    return np.concatenate((pairs, np.empty_like(pairs))), np.concatenate((ways, np.empty_like(ways)))


@njit(cache=True)
def near_triangles(at: Points, triangles: Indices, reach: float, size: float) -> tuple[Indices, Points]:
    """Return the pairs (k, 4) of a point and a triangle's corners nearer than ``reach``, and the way (k, 3) to the point."""
    starts, members = cell_table(at, size)
    pairs = np.empty((4 * len(triangles) + 64, 4), np.int64)
    ways = np.empty((len(pairs), 3))
    count, low, high = 0, np.empty(3), np.empty(3)
    for t in range(len(triangles)):
        a, b, c = triangles[t]
        for axis in range(3):
            low[axis] = min(at[a, axis], at[b, axis], at[c, axis]) - reach
            high[axis] = max(at[a, axis], at[b, axis], at[c, axis]) + reach
        for x in range(math.floor(low[0] / size), math.floor(high[0] / size) + 1):
            for y in range(math.floor(low[1] / size), math.floor(high[1] / size) + 1):
                for z in range(math.floor(low[2] / size), math.floor(high[2] / size) + 1):
                    cell = hashed(x, y, z, len(starts) - 1)
                    for at_member in range(starts[cell], starts[cell + 1]):
                        p = members[at_member]
                        if p == a or p == b or p == c:
                            continue
                        if not (
                            low[0] <= at[p, 0] <= high[0] and low[1] <= at[p, 1] <= high[1] and low[2] <= at[p, 2] <= high[2]
                        ):
                            continue
                        if not is_in_cell(at, p, size, x, y, z):
                            continue
                        u, v, w = barycentric(at, p, a, b, c)
                        if min(u, v, w) < -BESIDE:
                            continue
                        dx = at[p, 0] - u * at[a, 0] - v * at[b, 0] - w * at[c, 0]
                        dy = at[p, 1] - u * at[a, 1] - v * at[b, 1] - w * at[c, 1]
                        dz = at[p, 2] - u * at[a, 2] - v * at[b, 2] - w * at[c, 2]
                        square = dx * dx + dy * dy + dz * dz
                        if square > reach * reach or square < 1e-18:
                            continue
                        pairs, ways = _with_room(pairs, ways, count)
                        pairs[count, 0], pairs[count, 1], pairs[count, 2], pairs[count, 3] = p, a, b, c
                        ways[count, 0], ways[count, 1], ways[count, 2] = dx, dy, dz
                        count += 1
    return pairs[:count].copy(), ways[:count].copy()


@njit(cache=True)
def near_edges(at: Points, edges: Indices, reach: float, size: float) -> tuple[Indices, Points]:
    """Return the pairs (k, 4) of two edges' ends nearer than ``reach``, and the way (k, 3) from the second to the first.

    ``size`` is at least the longest edge and ``reach`` together.
    """
    middles = middles_of(at, edges)
    starts, members = cell_table(middles, size)
    pairs = np.empty((4 * len(edges) + 64, 4), np.int64)
    ways = np.empty((len(pairs), 3))
    count = 0
    for e in range(len(edges)):
        a, b = edges[e]
        i, j, k = (
            math.floor(middles[e, 0] / size),
            math.floor(middles[e, 1] / size),
            math.floor(middles[e, 2] / size),
        )
        for x in range(i, i + 2):  # half of the cells around: each pair is met once
            for y in range(j - 1 if x > i else j, j + 2):
                for z in range(k - 1 if x > i or y > j else k, k + 2):
                    own = x == i and y == j and z == k
                    cell = hashed(x, y, z, len(starts) - 1)
                    for at_member in range(starts[cell], starts[cell + 1]):
                        f = members[at_member]
                        if f == e or (own and f < e):
                            continue
                        c, d = edges[f]
                        if a == c or a == d or b == c or b == d:
                            continue
                        mx, my, mz = middles[f, 0] - middles[e, 0], middles[f, 1] - middles[e, 1], middles[f, 2] - middles[e, 2]
                        if mx * mx + my * my + mz * mz > size * size:
                            continue
                        if not is_in_cell(middles, f, size, x, y, z):
                            continue
                        s, t = nearest_on_edges(at, a, b, c, d)
                        if not (-BESIDE <= s <= 1 + BESIDE and -BESIDE <= t <= 1 + BESIDE):
                            continue
                        dx = (1 - s) * at[a, 0] + s * at[b, 0] - (1 - t) * at[c, 0] - t * at[d, 0]
                        dy = (1 - s) * at[a, 1] + s * at[b, 1] - (1 - t) * at[c, 1] - t * at[d, 1]
                        dz = (1 - s) * at[a, 2] + s * at[b, 2] - (1 - t) * at[c, 2] - t * at[d, 2]
                        square = dx * dx + dy * dy + dz * dz
                        if square > reach * reach or square < 1e-18:
                            continue
                        pairs, ways = _with_room(pairs, ways, count)
                        pairs[count, 0], pairs[count, 1], pairs[count, 2], pairs[count, 3] = a, b, c, d
                        ways[count, 0], ways[count, 1], ways[count, 2] = dx, dy, dz
                        count += 1
    return pairs[:count].copy(), ways[:count].copy()


@njit(cache=True)
def _separate(
    at: Points,
    before: Points,
    weight: Points,
    who: Indices,
    share: tuple[float, float, float, float],
    normal: tuple[float, float, float],
    side: Points,
    thickness: float,
    friction: float,
) -> None:
    """Move four points so that their sum, with shares that add up to zero, is ``thickness`` along a normal that points to ``side``."""
    size = math.sqrt(dot(normal, normal))
    if size < 1e-12:
        return
    if normal[0] * side[0] + normal[1] * side[1] + normal[2] * side[2] < 0:
        size = -size
    x, y, z = normal[0] / size, normal[1] / size, normal[2] / size
    apart = 0.0
    for corner in range(4):
        point = who[corner]
        apart += share[corner] * (at[point, 0] * x + at[point, 1] * y + at[point, 2] * z)
    if apart >= thickness:
        return
    w = sx = sy = sz = 0.0
    for corner in range(4):
        point = who[corner]
        w += weight[point] * share[corner] ** 2
        sx += share[corner] * (at[point, 0] - before[point, 0])
        sy += share[corner] * (at[point, 1] - before[point, 1])
        sz += share[corner] * (at[point, 2] - before[point, 2])
    if w == 0.0:
        return
    along = sx * x + sy * y + sz * z
    sx, sy, sz = sx - along * x, sy - along * y, sz - along * z
    slid = math.sqrt(sx * sx + sy * sy + sz * sz)
    push = (thickness - apart) / w
    hold = min(1.0, friction * (thickness - apart) / slid) / w if slid > 1e-12 else 0.0
    for corner in range(4):
        point = who[corner]
        part = weight[point] * share[corner]
        at[point, 0] += part * (push * x - hold * sx)
        at[point, 1] += part * (push * y - hold * sy)
        at[point, 2] += part * (push * z - hold * sz)


@njit(cache=True)
def keep_apart(
    at: Points,
    before: Points,
    weight: Points,
    points: tuple[Indices, Points],
    edges: tuple[Indices, Points],
    thickness: float,
    friction: float,
) -> None:
    """Keep points and triangles, and edges and edges, at a distance of ``thickness``, with friction between them."""
    pairs, sides = points
    for k in range(len(pairs)):
        p, a, b, c = pairs[k]
        u, v, w = barycentric(at, p, a, b, c)
        if min(u, v, w) < 0:
            continue
        normal = cross(between(at, a, b), between(at, a, c))
        _separate(at, before, weight, pairs[k], (1.0, -u, -v, -w), normal, sides[k], thickness, friction)
    pairs, sides = edges
    for k in range(len(pairs)):
        a, b, c, d = pairs[k]
        s, t = nearest_on_edges(at, a, b, c, d)
        if not (0 <= s <= 1 and 0 <= t <= 1):
            continue
        normal = cross(between(at, a, b), between(at, c, d))
        _separate(at, before, weight, pairs[k], (1 - s, s, t - 1, -t), normal, sides[k], thickness, friction)
