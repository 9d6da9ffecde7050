"""Plain trousers, of which only the upper part is ever seen. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import Material
from studio.cloth.mesh import Cloth
from studio.cloth.simulation import Simulation
from studio.cloth.surface import normals
from studio.people import field
from studio.people.body import Body, Pose, triangles
from studio.people.smooth import finer

Points = NDArray[np.float64]

TWILL = Material(density=0.028, bending=300.0, thickness=0.08)
"""Cotton twill, 280 g/m². From memory."""

LOOSE = ((0.0, 3.2), (0.45, 2.4), (0.80, 1.2), (1.0, 0.5))
"""How far the cloth stands off the skin when it is cut, in cm, at heights in shares of the waist's."""

FRAMES = 60


RISE = 3.0
"""Of the trousers' waist over the hips' joints."""


def worn(body: Body, pose: Pose, low: float, rise: float = RISE) -> Cloth:
    """Return trousers on a body, from ``rise`` over the hips' joints down to a height."""
    at, faces = finer(body.posed({}), body.tights)
    waist = float(body.joint("spine05")[2]) + rise
    shape = triangles(faces)
    out = normals(at, shape)
    stand = np.interp(at[:, 2] / waist, *np.array(LOOSE).T)
    cut = at + out * stand[:, None]
    posed, _ = finer(body.posed(pose), body.tights)
    start = posed + normals(posed, shape) * stand[:, None]
    inside = (at[shape][..., 2] > low - 12).all(axis=1) & (at[shape][..., 2] < waist).all(axis=1)
    shape = shape[inside]
    kept, shape = np.unique(shape, return_inverse=True)
    shape = shape.reshape(-1, 3)
    cloth = Cloth(start[kept], shape, flattened(cut[kept][shape]), np.zeros(len(shape), np.int64), ("trousers",), TWILL)
    cloth.hold(at[kept][:, 2] > waist - 2.5)
    skin = triangles(body.skin)
    margin = np.array([4.0, 4.0, 3.0])
    grid = field.grid(start[kept].min(axis=0) - margin, start[kept].max(axis=0) + margin, 1.0)
    obstacle = field.obstacle(body.posed(pose), skin, grid, 0.3)
    Simulation(cloth, [obstacle], damping=4.0, fastest=60.0).run(FRAMES)
    return cloth


def flattened(corners: Points) -> Points:
    """Return triangles (m, 3, 3) each laid flat by itself, (m, 3, 2)."""
    u, v = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    long = np.linalg.norm(u, axis=1)
    along = np.einsum("ij,ij->i", u, v) / long
    high = np.sqrt(np.maximum(np.einsum("ij,ij->i", v, v) - along**2, 1e-12))
    zero = np.zeros_like(long)
    return np.stack([np.column_stack([zero, zero]), np.column_stack([long, zero]), np.column_stack([along, high])], axis=1)
