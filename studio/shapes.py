"""Solids of revolution as triangle meshes with texture coordinates. Lengths are in centimetres."""

from __future__ import annotations

from itertools import pairwise
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

Profile = NDArray[np.float64]


def arc(centre: tuple[float, float], radius: float, start_deg: float, end_deg: float, points: int = 9) -> Profile:
    """Points (r, z) on a circular arc, for rounding a profile's corner."""
    angle = np.radians(np.linspace(start_deg, end_deg, points))
    return np.stack([centre[0] + radius * np.cos(angle), centre[1] + radius * np.sin(angle)], axis=1)


def profile(*parts: Profile | list[tuple[float, float]]) -> Profile:
    """Join parts of a profile, dropping points that repeat."""
    joined = np.concatenate([np.asarray(part, dtype=float).reshape(-1, 2) for part in parts])
    keep = np.append(True, np.linalg.norm(np.diff(joined, axis=0), axis=1) > 1e-6)
    return joined[keep]  # type: ignore[no-any-return]


def spline(points: list[tuple[float, ...]], count: int) -> NDArray[np.float64]:
    """A smooth curve (count, d) through points: cubic, with chord-length knots."""
    from scipy.interpolate import CubicSpline

    at = np.asarray(points, float)
    knots = np.append(0, np.cumsum(np.linalg.norm(np.diff(at, axis=0), axis=1) ** 0.75))
    return np.asarray(CubicSpline(knots, at)(np.linspace(0, knots[-1], count)))


def beside(
    x: NDArray[np.float64], y: NDArray[np.float64], start: tuple[float, float], end: tuple[float, float]
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """How far along the way between two points each place lies, 0…1 on it, and how far beside it in its own unit."""
    a, b = np.array(start), np.array(end)
    run = float(np.linalg.norm(b - a))
    d, x, y = (b - a) / run, x - a[0], y - a[1]
    return (x * d[0] + y * d[1]) / run, -x * d[1] + y * d[0]


def tube(
    line: NDArray[np.float64],
    half: NDArray[np.float64],
    path: Path,
    side: tuple[float, float, float] | NDArray[np.float64] = (0, 1, 0),
    around: int = 48,
    squareness: float = 2.5,
) -> Path:
    """A bar swept along a line (n, 3) with half widths (n, 2) towards ``side`` and square to it: rounded, not round.

    ``side`` is one direction, or one for each point (n, 3): the bar is twisted. ``squareness`` is the exponent of its cross-section, a superellipse: 2 is an ellipse.
    """
    tangent = np.gradient(line, axis=0)
    tangent /= np.linalg.norm(tangent, axis=1, keepdims=True)
    towards = np.broadcast_to(np.asarray(side, float), line.shape)
    a = towards - tangent * (tangent * towards).sum(axis=1, keepdims=True)
    a /= np.linalg.norm(a, axis=1, keepdims=True)
    b = np.cross(tangent, a)
    theta = np.linspace(0, 2 * np.pi, around + 1)
    c, s = np.cos(theta), np.sin(theta)
    x, y = np.sign(c) * np.abs(c) ** (2 / squareness), np.sign(s) * np.abs(s) ** (2 / squareness)
    at = line[:, None] + half[:, None, :1] * x[None, :, None] * a[:, None] + half[:, None, 1:] * y[None, :, None] * b[:, None]
    return write_ply(path, *sheet(at))


def rounded(count: int, r: float, steps: int = 5) -> NDArray[np.float64]:
    """Return half widths (count, 2) of a round bar whose first end is closed and rounded over ``steps`` points."""
    half = np.full(count, r)
    half[:steps] = r * np.sqrt(1 - (1 - np.linspace(0, 1, steps)) ** 2)
    return np.column_stack([half, half])


def sheet(at: NDArray[np.float64], uv: NDArray[np.float64] | None = None) -> tuple[NDArray[np.float32], NDArray[np.int64]]:
    """Vertices and triangles of a grid of points (rows, columns, 3), smooth; u runs along columns, v along rows."""
    rows, columns = at.shape[:2]
    across, down = np.gradient(at, axis=1), np.gradient(at, axis=0)
    if np.allclose(at[:, 0], at[:, -1]):  # closed: both ends share their slope
        across[:, 0] = across[:, -1] = (at[:, 1] - at[:, -2]) / 2
    normal = np.cross(down, across)
    long = np.linalg.norm(normal, axis=2, keepdims=True)
    normal /= np.maximum(long, 1e-12)
    for _ in range(max(rows, columns)):  # points drawn together have no slope of their own: they take their neighbours'
        none = long[..., 0] < 1e-9
        if not none.any() or none.all():
            break
        padded = np.pad(np.where(none[..., None], 0, normal), ((1, 1), (1, 1), (0, 0)))
        around = sum(padded[y : y + rows, x : x + columns] for y in range(3) for x in range(3))
        size = np.linalg.norm(around, axis=2, keepdims=True)
        normal = np.where(none[..., None], around / np.maximum(size, 1e-12), normal)
        long = np.where(none[..., None], size, long)
    if uv is None:
        uv = np.stack(np.meshgrid(np.linspace(0, 1, columns), np.linspace(0, 1, rows)), -1)
    vertex = np.concatenate([at, normal, uv], axis=2).reshape(-1, 8).astype("<f4")
    i = (np.arange(rows - 1)[:, None] * columns + np.arange(columns - 1)).reshape(-1)
    faces = np.concatenate([np.stack([i, i + columns, i + columns + 1], 1), np.stack([i, i + columns + 1, i + 1], 1)])
    return vertex, faces


def block(w: float, d: float, low: float, high: float, edge: float, path: Path) -> Path:
    """An upright box of w × d cm about the z axis from ``low`` to ``high``, its edges rounded by ``edge``."""
    outline = profile(arc((0.0, low + edge), edge, -90, 0, 5), arc((0.0, high - edge), edge, 0, 90, 5))
    theta = np.radians(np.concatenate([np.linspace(a, a + 90, 7) for a in (0, 90, 180, 270)] + [np.array([360.0])]))
    corner = np.stack(
        [
            np.repeat([1, -1, -1, 1, 1], [7, 7, 7, 7, 1]) * (w / 2 - edge),
            np.repeat([1, 1, -1, -1, 1], [7, 7, 7, 7, 1]) * (d / 2 - edge),
        ],
        1,
    )
    rings = [
        np.column_stack([corner[:, 0] + r * np.cos(theta), corner[:, 1] + r * np.sin(theta), np.full(len(theta), z)])
        for r, z in outline
    ]
    caps = [[np.column_stack([corner * share, np.full(len(theta), z)]) for share in (0.0, 0.5, 0.95)] for z in (low, high)]
    return write_ply(path, *sheet(np.array([*caps[0], *rings, *caps[1][::-1]])[::-1]))


def revolve(
    outline: Profile, path: Path, segments: int = 384, crease_deg: float = 40.0, arc_deg: tuple[float, float] = (90, 450)
) -> Path:
    """Turn an outline of (r, z), read upwards with the outside to its right, about the z axis.

    u runs once round from the back (+y) through the front (-y), so that a wrap seen from outside
    reads left to right and its seam is hidden; v runs from the top (0) to the bottom (1). ``arc_deg`` turns only part
    of the way, from one angle of the x, y plane to another.
    Corners sharper than ``crease_deg`` keep a hard edge. Writes a binary PLY and returns its path.
    """
    step = np.diff(outline, axis=0)
    slope = np.stack([step[:, 1], -step[:, 0]], axis=1)
    slope /= np.linalg.norm(slope, axis=1, keepdims=True)
    rows: list[tuple[float, float, float, float]] = []
    bands: list[tuple[int, int]] = []
    for i, (normal, (a, b)) in enumerate(zip(slope, pairwise(outline), strict=True)):
        before = slope[i - 1] if i else normal
        after = slope[i + 1] if i + 1 < len(slope) else normal
        ends = []
        for point, neighbour in ((a, before), (b, after)):
            smooth = np.dot(normal, neighbour) > np.cos(np.radians(crease_deg))
            n = normal + neighbour if smooth else normal
            n = n / np.linalg.norm(n)
            rows.append((point[0], point[1], n[0], n[1]))
            ends.append(len(rows) - 1)
        bands.append((ends[0], ends[1]))
    ring = np.array(rows)
    top, bottom = outline[:, 1].max(), outline[:, 1].min()
    u = np.linspace(0.0, 1.0, segments + 1)
    theta = np.radians(arc_deg[0] + (arc_deg[1] - arc_deg[0]) * u)
    cos, sin = np.cos(theta), np.sin(theta)
    ones = np.ones_like(u)
    vertex = (
        np.stack(
            [
                np.outer(ring[:, 0], cos),
                np.outer(ring[:, 0], sin),
                np.outer(ring[:, 1], ones),
                np.outer(ring[:, 2], cos),
                np.outer(ring[:, 2], sin),
                np.outer(ring[:, 3], ones),
                np.outer(np.ones(len(ring)), u),
                np.outer((top - ring[:, 1]) / max(top - bottom, 1e-9), ones),
            ],
            axis=-1,
        )
        .reshape(-1, 8)
        .astype("<f4")
    )
    faces = []
    across = segments + 1
    column = np.arange(segments)
    for low, high in bands:
        a, b = low * across + column, low * across + column + 1
        c, d = high * across + column, high * across + column + 1
        faces += [np.stack([a, b, d], 1), np.stack([a, d, c], 1)]
    return write_ply(path, vertex, np.concatenate(faces))


def write_ply(path: Path, vertex: NDArray[np.float32], faces: NDArray[np.int64]) -> Path:
    """Write x y z nx ny nz u v vertices (n, 8) and triangles (m, 3) as a binary PLY file, and return its path."""
    head = ["ply", "format binary_little_endian 1.0", f"element vertex {len(vertex)}"]
    head += [f"property float {name}" for name in ("x", "y", "z", "nx", "ny", "nz", "u", "v")]
    head += [f"element face {len(faces)}", "property list uchar int vertex_indices", "end_header", ""]
    face = np.zeros(len(faces), dtype=[("n", "u1"), ("v", "<i4", 3)])
    face["n"], face["v"] = 3, faces
    path.write_bytes("\n".join(head).encode() + vertex.tobytes() + face.tobytes())
    return path
