"""Drape a cloth: it falls, bends, slides and rests."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .contact import keep_apart, near_edges, near_triangles
from .material import GRAVITY
from .mesh import Cloth
from .obstacles import Obstacle, push_out
from .projection import project_hinges, project_lengths

Points = NDArray[np.float64]
Indices = NDArray[np.int64]

AIR = 1.2e-3
"""Density of air, g/cm³."""

FRAME_S = 1 / 60
"""Length of a frame."""

SLACK = 0.3
"""Pairs are watched that are nearer than the thickness and this share of an edge's length."""

PULLED = 1.5
"""Edges longer than so many usual ones are not watched along all of their length."""

CAUGHT = 3.0
"""Speed to which obstacles and neighbours may drive a point, against that which it reaches by itself."""

SOFT, SAG, LEAST_SUBSTEPS = 10.0, 0.03, 20

NO_PAIRS = (np.zeros((0, 4), np.int64), np.zeros((0, 3)))


@dataclass
class Simulation:
    """A cloth in motion.

    Attributes:
        cloth: whose positions are moved.
        obstacles: what it may not enter.
        substeps: of a frame; by default as many as its stiffness needs.
        damping: rate at which motion dies down, 1/s.
        wind: velocity of the air, (3,) in cm/s.
        gravity: (3,) in cm/s².
        pressure: returns what presses on the side from which triangles are seen clockwise, dyn/cm²: one value, or one a triangle. It is
            called in every substep.
        contact: whether the cloth is kept from passing through itself.
        fastest: speed in cm/s that no point exceeds by itself: slow cloth needs its neighbours looked for less often. Obstacles and
            neighbours drive it to :data:`CAUGHT` times as much, so that cloth that is caught between them stays whole.
        velocity: (n, 3) in cm/s.
    """

    cloth: Cloth
    obstacles: Sequence[Obstacle] = ()
    substeps: int = 0
    damping: float = 1.0
    wind: Points = field(default_factory=lambda: np.zeros(3))
    gravity: Points = field(default_factory=lambda: np.array([0.0, 0.0, -GRAVITY]))
    pressure: Callable[[], float | Points] = lambda: 0.0
    contact: bool = True
    fastest: float = math.inf
    velocity: Points = field(init=False)
    _pairs: tuple[tuple[Indices, Points], tuple[Indices, Points]] = field(init=False, default=(NO_PAIRS, NO_PAIRS))
    _travelled: float = field(init=False, default=math.inf)

    def __post_init__(self) -> None:
        self.velocity = np.zeros_like(self.cloth.at)
        self.substeps = self.substeps or needed_substeps(self.cloth)

    def run(self, frames: int) -> None:
        """Move the cloth on by a number of frames of 1/60 s."""
        for _ in range(frames):
            self._frame()

    def _frame(self) -> None:
        cloth, step = self.cloth, FRAME_S / self.substeps
        weight = 1 / cloth.mass
        order = np.argsort(-cloth.at[cloth.edges].mean(axis=1)[:, 2])  # from the top, so that what hangs is carried at once
        edges, rest = cloth.edges[order], cloth.rest[order]
        lengths = 1 / (cloth.material.stretch * step**2)
        hinges = 1 / (np.maximum(cloth.stiff, 1e-9) * step**2)
        slack = SLACK * float(np.median(rest))
        limit = min(slack / 2 / step, self.fastest) if self.contact else self.fastest
        for _ in range(self.substeps):
            if self.contact and self._travelled > slack / 2:
                self._search(edges, cloth.material.thickness + slack)
            before = cloth.at.copy()
            pressure = np.ascontiguousarray(np.broadcast_to(np.asarray(self.pressure(), np.float64), len(cloth.triangles)))
            _move(cloth.at, self.velocity, weight, cloth.triangles, pressure, self.gravity, self.wind, step, limit)
            project_lengths(cloth.at, weight, edges, rest, lengths)
            project_hinges(cloth.at, weight, cloth.hinges, cloth.angle, hinges)
            if self.contact:
                keep_apart(cloth.at, before, weight, *self._pairs, cloth.material.thickness, cloth.material.friction)
            for obstacle in self.obstacles:
                push_out(
                    cloth.at,
                    before,
                    weight,
                    obstacle.distances,
                    obstacle.origin,
                    obstacle.spacing,
                    cloth.material.thickness / 2,
                    obstacle.friction,
                )
            moved = cloth.at - before
            if math.isfinite(self.fastest):
                _slowed(moved, CAUGHT * self.fastest * step)
                cloth.at[:] = before + moved
            self._travelled += math.sqrt(float((moved**2).sum(axis=1).max()))
            self.velocity = moved * (math.exp(-self.damping * step) / step)

    def _search(self, edges: Indices, reach: float) -> None:
        """Find the pairs that can touch before anything has moved by half of what they are apart."""
        at = self.cloth.at
        lengths = np.linalg.norm(at[edges[:, 1]] - at[edges[:, 0]], axis=1)
        # cells as wide as a few edges that are pulled far out for a moment would hold most of the cloth
        longest = min(float(lengths.max()), PULLED * float(np.median(lengths)))
        self._pairs = near_triangles(at, self.cloth.triangles, reach, longest), near_edges(at, edges, reach, longest + reach)
        self._travelled = 0.0


def _slowed(moved: Points, most: float) -> None:
    """Shorten motions (n, 3) to a length."""
    long = np.sqrt((moved**2).sum(axis=1))
    fast = long > most
    moved[fast] *= (most / long[fast])[:, None]


def needed_substeps(cloth: Cloth) -> int:
    """Return the substeps of a frame in which one pass over lengths and hinges is nearly exact.

    A hinge is where its compliance outweighs :data:`SOFT` times the motion that its correction causes: on cantilevered strips the angle is
    4° too steep with 3 times, 1° with 10. What hangs from above is lengthened by about g·t²·H/h² for steps of t, a height of H and edges
    of h: by :data:`SAG` at most.
    """
    area, edge = float(np.median(cloth.flat_areas())), float(np.median(cloth.rest))
    height = 2 * area / edge
    motion = 6 / height**2 / (2 * area * cloth.material.density)  # four points of about 1/h each, of two triangles' mass
    bent = FRAME_S * math.sqrt(SOFT * motion * float(np.median(cloth.stiff)))
    tall = max(
        float(np.ptp(cloth.flat[cloth.panel == number].reshape(-1, 2), axis=0).max()) for number in range(len(cloth.names))
    )
    hung = FRAME_S * math.sqrt(GRAVITY * tall / SAG) / edge
    return max(LEAST_SUBSTEPS, math.ceil(bent), math.ceil(hung))


@njit(cache=True)
def _move(
    at: Points,
    velocity: Points,
    weight: Points,
    triangles: Indices,
    pressure: Points,
    gravity: Points,
    wind: Points,
    step: float,
    limit: float,
) -> None:
    """Move points by gravity, pressure and air, at most at a speed of ``limit``."""
    push = np.zeros_like(at)
    for t in range(len(triangles)):
        a, b, c = triangles[t]
        u, v = at[b] - at[a], at[c] - at[a]
        nx, ny, nz = u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]
        size = math.sqrt(nx * nx + ny * ny + nz * nz)
        if size < 1e-12:
            continue
        nx, ny, nz = nx / size, ny / size, nz / size
        flow = 0.0
        for axis, n in ((0, nx), (1, ny), (2, nz)):
            flow += (wind[axis] - (velocity[a, axis] + velocity[b, axis] + velocity[c, axis]) / 3) * n
        # air that a plate stops presses with ρ·v²; each corner carries a third of the area
        force = (pressure[t] + AIR * abs(flow) * flow) * size / 6
        for corner in (a, b, c):
            push[corner, 0] += force * nx
            push[corner, 1] += force * ny
            push[corner, 2] += force * nz
    for i in range(len(at)):
        if weight[i] == 0.0:
            continue
        square = 0.0
        for axis in range(3):
            velocity[i, axis] += step * (gravity[axis] + weight[i] * push[i, axis])
            square += velocity[i, axis] ** 2
        slower = min(1.0, limit / math.sqrt(square)) if square > 0 else 1.0
        for axis in range(3):
            at[i, axis] += step * slower * velocity[i, axis]
