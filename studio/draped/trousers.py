"""Plain trousers, of which only the upper part is ever seen. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from studio.cloth.material import Material
from studio.cloth.mesh import Cloth
from studio.cloth.simulation import Simulation
from studio.cloth.surface import normals
from studio.draped.laid import waves
from studio.people import field
from studio.people.body import Body, Pose, triangles
from studio.people.smooth import finer

Points = NDArray[np.float64]

TWILL = Material(density=0.028, bending=300.0, thickness=0.08)
"""Cotton twill, 280 g/m². From memory."""

LOOSE = ((0.0, 3.8), (0.45, 2.9), (0.62, 2.3), (0.75, 1.7), (0.84, 1.0), (0.92, 0.65), (1.0, 0.45))
"""How far the cloth stands off the skin when it is cut, in cm, at heights in shares of the waist's."""

APART = 0.6
"""How far each leg's cloth stays from the plane between both legs, cm."""

LONG = 1.04
"""Length of the legs against the way from the waist to where they are held: what is over becomes folds."""

FALLING, RESTING = 90, 30


RISE = 3.0
"""Of the trousers' waist over the hips' joints."""


def worn(body: Body, pose: Pose, low: float, rise: float = RISE) -> Cloth:
    """Return trousers on a body, from ``rise`` over the hips' joints down to a height."""
    at, faces = finer(body.posed({}), body.tights)
    waist = float(body.joint("spine05")[2]) + rise
    shape = triangles(faces)
    out = normals(at, shape)
    stand = np.interp(at[:, 2] / waist, *np.array(LOOSE).T)
    inwards = -out[:, 0] * np.sign(at[:, 0])
    stand = np.where(
        inwards > 0.2, np.minimum(stand, np.maximum((np.abs(at[:, 0]) - APART) / np.maximum(inwards, 0.2), 0.3)), stand
    )
    cut = at + out * stand[:, None]
    cut[:, 2] = waist - LONG * (waist - cut[:, 2])
    posed, _ = finer(body.posed(pose), body.tights)
    start = posed + normals(posed, shape) * stand[:, None]
    start[:, :2] += 0.25 * np.column_stack([waves(start[:, 0] + start[:, 1], start[:, 2], seed) for seed in (4, 5)])
    inside = (at[shape][..., 2] > low - 12).all(axis=1) & (at[shape][..., 2] < waist).all(axis=1)
    shape = shape[inside]
    kept, shape = np.unique(shape, return_inverse=True)
    shape = shape.reshape(-1, 3)
    cloth = Cloth(start[kept], shape, flattened(cut[kept][shape]), np.zeros(len(shape), np.int64), ("trousers",), TWILL)
    cloth.hold((at[kept][:, 2] > waist - 2.5) | (at[kept][:, 2] < low - 7))
    skin = triangles(body.skin)
    margin = np.array([4.0, 4.0, 3.0])
    grid = field.grid(start[kept].min(axis=0) - margin, start[kept].max(axis=0) + margin, 1.0)
    obstacle = field.obstacle(body.posed(pose), skin, grid, 0.3)
    simulation = Simulation(cloth, [obstacle], damping=4.0, fastest=60.0)
    simulation.run(FALLING)
    simulation.damping = 12.0
    simulation.run(RESTING)
    return cloth


def flattened(corners: Points) -> Points:
    """Return triangles (m, 3, 3) each laid flat by itself, (m, 3, 2)."""
    u, v = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    long = np.linalg.norm(u, axis=1)
    along = np.einsum("ij,ij->i", u, v) / long
    high = np.sqrt(np.maximum(np.einsum("ij,ij->i", v, v) - along**2, 1e-12))
    zero = np.zeros_like(long)
    return np.stack([np.column_stack([zero, zero]), np.column_stack([long, zero]), np.column_stack([along, high])], axis=1)
