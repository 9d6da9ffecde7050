"""Dress a body: a garment is laid flat round it while the body is shrunk to nothing, then the body grows into it and takes its pose."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

from studio.cloth.mesh import Cloth, finer
from studio.cloth.obstacles import Obstacle
from studio.cloth.simulation import Simulation
from studio.people import field as fields
from studio.people.body import Body, Pose, between, triangles

Points = NDArray[np.float64]
Indices = NDArray[np.int64]

RAISED = {
    "upperarm01.L": (0.0, -24.0, 0.0),
    "upperarm01.R": (0.0, 24.0, 0.0),
    "lowerarm01.L": (0.0, 0.0, 45.0),
    "lowerarm01.R": (0.0, 0.0, -45.0),
}
"""Arms as a flat garment's sleeves lie."""

GRID_CM = 1.0
AIR_CM = 0.22
"""Between skin and cloth: what a coarse mesh cuts off a round body."""

LEAST_CM = 1.0
"""Half of a part's thickness, at least, while the body is shrunk."""

THIN = 0.92
"""By how much the body is shrunk at first: each part is a blade between the layers."""

KEYS = 10
"""Poses between the first and the last whose distances are computed; those between them are blended."""

PULLED = 0.7
"""Share of the moving time in which a loose part is pulled."""

FASTEST = 40.0
"""Speed of the cloth, cm/s: dressing is slow."""

SMOOTH, ROUGH = 0.08, 0.35
"""Friction of cloth on skin while it moves, and when it has come to rest."""


@dataclass(frozen=True)
class Motion:
    """How long each part of dressing takes, in frames: growing, moving, settling, and resting with full friction."""

    growing: int = 50
    moving: int = 90
    settling: int = 70
    resting: int = 30


@dataclass
class Wearer:
    """A body that moves from one pose to another, as an obstacle.

    Attributes:
        body: whose skin it is.
        first: pose in which it is dressed.
        last: pose in which it stays.
        puffed: by how much cloth that is worn below keeps the garment from the skin, at heights in cm: pairs of height and distance.
        low, high: corners of the space that is watched.
        keys: poses between the first and the last whose distances are computed; those between them are blended, so that a limb
            must move by less than its thickness from one to the next.
        nape: y and z of a point on the neck's back. What lies above a plane through it, which falls by 45° towards the back, is left out:
            a hood slides off backwards.
        bridged: gaps of the body that are narrower than twice as many cm are filled, as in armpits: thick cloth does not go in there.
    """

    body: Body
    last: Pose
    low: Points
    high: Points
    first: Pose = field(default_factory=lambda: dict(RAISED))
    puffed: Sequence[tuple[float, float]] = ()
    nape: tuple[float, float] | None = None
    keys: int = KEYS
    bridged: float = 0.0
    _keys: list[NDArray[np.float32]] = field(init=False)
    obstacle: Obstacle = field(init=False)

    def __post_init__(self) -> None:
        grid = fields.grid(self.low, self.high, GRID_CM)
        faces = triangles(self.body.skin)
        self._keys = [
            fields.distances(self.body.handless(between(self.first, self.last, k / self.keys)), faces, grid)
            for k in range(self.keys + 1)
        ]
        if self.bridged:
            self._keys = [fields.bridged(key, self.bridged, GRID_CM) for key in self._keys]
        heights, more = np.array(self.puffed or ((0.0, 0.0),), float).T
        puff = AIR_CM + np.interp(grid[..., 2], heights, more).astype(np.float32)
        self._keys = [key - puff.astype(np.float32) for key in self._keys]
        if self.nape is not None:
            beyond = (np.sqrt(0.5) * (grid[..., 1] - self.nape[0] + grid[..., 2] - self.nape[1])).astype(np.float32)
            self._keys = [np.maximum(key, beyond) for key in self._keys]
        self.obstacle = Obstacle(self._keys[0].copy(), grid[0, 0, 0], GRID_CM, SMOOTH)

    def middle(self, x: Points, z: Points) -> Points:
        """Return the depth y at which the body is thickest seen from the front, for places x, z in the first pose."""
        grid, origin = self._keys[0], self.obstacle.origin
        deepest = ndimage.gaussian_filter(grid.argmin(axis=1).astype(float), 2.5, mode="nearest")
        at = np.stack([(x - origin[0]) / GRID_CM, (z - origin[2]) / GRID_CM])
        return np.asarray(origin[1] + GRID_CM * ndimage.map_coordinates(deepest, at, order=1, mode="nearest"))

    def shrink(self, share: float) -> None:
        """Make every part of the body thinner in its first pose: to nothing for a share of 1."""
        thick = ndimage.gaussian_filter(np.maximum(-self._keys[0].min(axis=1), LEAST_CM), 1.5, mode="nearest")
        self.obstacle.distances[:] = self._keys[0] + np.float32(share) * thick[:, None, :]

    def move(self, share: float) -> None:
        """Bring the body on its way from the first pose to the last."""
        at = min(max(share, 0.0), 1.0) * self.keys
        low = min(int(at), self.keys - 1)
        more = np.float32(at - low)
        self.obstacle.distances[:] = (1 - more) * self._keys[low] + more * self._keys[low + 1]


def dress(
    cloth: Cloth,
    wearer: Wearer,
    finished: Callable[[Cloth], None],
    motion: Motion | None = None,
    pull: Points | None = None,
    refined: bool = True,
) -> Cloth:
    """Put a garment on, and return it as it settles.

    Args:
        cloth: lies round the place of the wearer's limbs.
        wearer: who grows into it and moves.
        finished: gives a cloth its hems and seams.
        motion: how long that takes.
        pull: (3,) acceleration in cm/s² that helps a loose part to its place while the body moves.
        refined: whether each triangle becomes four before the garment settles. Thick cloth, which bends in wide folds, can do without.
    """
    motion = motion or Motion()
    finished(cloth)
    simulation = Simulation(cloth, [wearer.obstacle], damping=12.0, fastest=FASTEST)
    weight, simulation.gravity = simulation.gravity, np.zeros(3)  # nothing carries it yet
    for frame in range(motion.growing):
        wearer.shrink(THIN * (1 - frame / motion.growing))
        simulation.run(1)
    simulation.gravity = weight
    for frame in range(motion.moving):
        share = (frame + 1) / motion.moving
        simulation.gravity = weight + (pull if pull is not None and share < PULLED else 0)
        wearer.move(share * share * (3 - 2 * share))
        simulation.damping = 6.0
        simulation.run(1)
    simulation.gravity = weight
    if refined:
        cloth = finer(cloth)
        finished(cloth)
        simulation = Simulation(cloth, [wearer.obstacle], fastest=FASTEST)
    simulation.damping = 4.0
    simulation.run(motion.settling)
    still = Obstacle(wearer.obstacle.distances, wearer.obstacle.origin, wearer.obstacle.spacing, ROUGH)
    simulation.obstacles, simulation.damping = [still], 8.0
    simulation.run(motion.resting)
    return cloth


def lens(inside: Points, reach: float, thick: float) -> Points:
    """Return half the gap between two layers at distances ``inside`` from where they are joined: round, and flat beyond ``reach``."""
    share = np.clip(inside / reach, 0, 1)
    return np.asarray(thick * np.sqrt(np.maximum(1 - (1 - share) ** 2, 0)))


def on_seams(cloth: Cloth) -> NDArray[np.bool_]:
    """Return which hinges lie on a seam: both panels are turned in there, and meet at any angle."""
    owner: dict[tuple[int, int], set[int]] = {}
    for panel, corners in zip(cloth.panel.tolist(), cloth.triangles.tolist(), strict=True):
        for a, b in ((0, 1), (1, 2), (2, 0)):
            owner.setdefault((min(corners[a], corners[b]), max(corners[a], corners[b])), set()).add(panel)
    pairs = np.sort(cloth.hinges[:, :2], axis=1).tolist()
    return np.array([len(owner[a, b]) > 1 for a, b in pairs])
