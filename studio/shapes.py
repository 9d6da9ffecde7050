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
    return joined[keep]


def revolve(outline: Profile, path: Path, segments: int = 384, crease_deg: float = 40.0) -> Path:
    """Turn an outline of (r, z), read upwards with the outside to its right, about the z axis.

    u runs once round from the back (+y) through the front (-y), so that a wrap seen from outside
    reads left to right and its seam is hidden; v runs from the top (0) to the bottom (1).
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
    theta = np.pi / 2 + 2 * np.pi * u
    cos, sin = np.cos(theta), np.sin(theta)
    ones = np.ones_like(u)
    vertex = np.stack(
        [
            np.outer(ring[:, 0], cos), np.outer(ring[:, 0], sin), np.outer(ring[:, 1], ones),
            np.outer(ring[:, 2], cos), np.outer(ring[:, 2], sin), np.outer(ring[:, 3], ones),
            np.outer(np.ones(len(ring)), u), np.outer((top - ring[:, 1]) / max(top - bottom, 1e-9), ones),
        ],
        axis=-1,
    ).reshape(-1, 8).astype("<f4")  # fmt: skip
    faces = []
    across = segments + 1
    column = np.arange(segments)
    for low, high in bands:
        a, b = low * across + column, low * across + column + 1
        c, d = high * across + column, high * across + column + 1
        faces += [np.stack([a, b, d], 1), np.stack([a, d, c], 1)]
    write_ply(path, vertex, np.concatenate(faces))
    return path


def write_ply(path: Path, vertex: NDArray[np.float32], faces: NDArray[np.int64]) -> None:
    """Write x y z nx ny nz u v vertices (n, 8) and triangles (m, 3) as a binary PLY file."""
    head = ["ply", "format binary_little_endian 1.0", f"element vertex {len(vertex)}"]
    head += [f"property float {name}" for name in ("x", "y", "z", "nx", "ny", "nz", "u", "v")]
    head += [f"element face {len(faces)}", "property list uchar int vertex_indices", "end_header", ""]
    face = np.zeros(len(faces), dtype=[("n", "u1"), ("v", "<i4", 3)])
    face["n"], face["v"] = 3, faces
    path.write_bytes("\n".join(head).encode() + vertex.tobytes() + face.tobytes())
