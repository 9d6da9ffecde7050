"""Soft furniture: padded boxes with rounded edges, bulges, dents and piping. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from studio import shapes
from studio.cloth.surface import normals
from studio.people import field as fields
from studio.stage import Stage

Points = NDArray[np.float64]
Indices = NDArray[np.int64]

CELLS = 48
"""Cells of each side of a padded box, per direction."""

PIPING = 0.38
"""Radius of piping."""


@dataclass(frozen=True)
class Dent:
    """Where a padded box was sat on or leaned against: middle and radii on its own axes, and how deep it gives way."""

    middle: tuple[float, float, float]
    radii: tuple[float, float, float]
    deep: float


@dataclass(frozen=True)
class Padded:
    """A padded box.

    Attributes:
        size: along its own x, y and z.
        at: where its middle stands.
        edge: radius of its edges.
        bulge: how far the middle of its sides stands out, along x, y and z.
        turned: its turns about x, y and z in degrees.
        dents: what is pressed into it.
        piped: coordinate (0 for x, 1 for y, 2 for z) across which a pair of pipings runs round it; None for none.
        seed: of its small unevenness.
    """

    size: tuple[float, float, float]
    at: tuple[float, float, float]
    edge: float
    bulge: tuple[float, float, float] = (0.0, 0.0, 0.0)
    turned: tuple[float, float, float] = (0.0, 0.0, 0.0)
    dents: Sequence[Dent] = field(default=())
    piped: int | None = None
    seed: int = 0

    def placed(self, local: Points) -> Points:
        """Return where points of the plain box, (n, 3) about its middle, lie in the room: bulged, dented, uneven and turned."""
        share = np.clip(local / (np.array(self.size) / 2), -1, 1)
        round_ = 1 - share**2
        at = local.copy()
        for axis in range(3):
            one, other = (axis + 1) % 3, (axis + 2) % 3
            at[:, axis] += share[:, axis] * self.bulge[axis] * round_[:, one] * round_[:, other]
        rng = np.random.default_rng(self.seed)
        for _ in range(10):
            way, phase = rng.normal(size=3), rng.uniform(0, 2 * np.pi)
            way *= 2 * np.pi / rng.uniform(7, 26) / np.linalg.norm(way)
            at += 0.045 * np.sin(at @ way + phase)[:, None] * share
        for dent in self.dents:
            far = (((at - dent.middle) / dent.radii) ** 2).sum(axis=1)
            inward = -np.sign(dent.middle) * (np.abs(dent.middle) == np.abs(dent.middle).max())
            at += dent.deep * np.exp(-far)[:, None] * inward
        turn = Rotation.from_euler("xyz", self.turned, degrees=True).as_matrix()
        return np.asarray(at @ turn.T + self.at)

    def mesh(self, cells: int = CELLS) -> tuple[Points, Points, Indices]:
        """Return points (n, 3), u and v in cm (n, 2) and triangles (m, 3); points on two sides stand twice.

        Each side has so many cells between its round edges, and half as many on them.
        """
        half, inner = np.array(self.size) / 2, np.array(self.size) / 2 - self.edge
        local, places, corners, count = [], [], [], 0
        for axis in range(3):
            one, other = (axis + 1) % 3, (axis + 2) % 3
            a, b = (_denser(half[each], self.edge, cells) for each in (one, other))
            for sign in (-1.0, 1.0):
                grid = np.zeros((len(b), len(a), 3))
                grid[..., one], grid[..., other] = np.meshgrid(a, b)
                grid[..., axis] = sign * half[axis]
                core = np.clip(grid, -inner, inner)
                out = grid - core
                at = core + self.edge * out / np.maximum(np.linalg.norm(out, axis=2, keepdims=True), 1e-9)
                _, faces = shapes.sheet(grid)
                corners.append((faces if sign < 0 else faces[:, ::-1]) + count)
                local.append(at.reshape(-1, 3))
                count += len(local[-1])
                places.append(np.stack([grid[..., one], grid[..., other]], -1).reshape(-1, 2))
        return self.placed(np.concatenate(local)), np.concatenate(places), np.concatenate(corners)

    def pipings(self) -> list[Points]:
        """Return the middle lines of its piping, (n, 3), closed."""
        if self.piped is None:
            return []
        axis, one, other = self.piped, (self.piped + 1) % 3, (self.piped + 2) % 3
        inset = (1 - np.sqrt(0.5)) * self.edge  # where the edge is half round
        half, r = np.array(self.size) / 2 - inset, self.edge - inset
        angle = np.radians(np.concatenate([np.linspace(a, a + 90, 12) for a in (0, 90, 180, 270)]))
        sx, sy = np.repeat([1, -1, -1, 1], 12), np.repeat([1, 1, -1, -1], 12)
        outline = np.column_stack([sx * (half[one] - r) + r * np.cos(angle), sy * (half[other] - r) + r * np.sin(angle)])
        closed = np.concatenate([outline, outline[:1]])
        steps = np.append(0, np.cumsum(np.linalg.norm(np.diff(closed, axis=0), axis=1)))
        even = np.linspace(0, steps[-1], 400)
        lines = []
        for sign in (-1.0, 1.0):
            line = np.zeros((400, 3))
            line[:, axis] = sign * half[axis]
            for column, each in enumerate((one, other)):
                line[:, each] = np.interp(even, steps, closed[:, column])
            lines.append(self.placed(line))
        return lines

    def distance(self, points: Points) -> NDArray[np.float32]:
        """Return the distance of points (…, 3) from its surface, negative inside."""
        at, _, triangles = self.mesh(CELLS // 4)
        return fields.distances(at, triangles, points)


def _denser(half: float, edge: float, cells: int) -> Points:
    """Places from one edge to the other: a third of them on the round edges."""
    inner = np.linspace(-(half - edge), half - edge, cells)
    turn = edge * np.tan(np.radians(np.linspace(0, 45, cells // 4)))[1:]
    return np.concatenate([inner[0] - turn[::-1], inner, inner[-1] + turn])


def put(
    stage: Stage, name: str, parts: Sequence[Padded], cloth: dict[str, object], weave_cm: float, piping: dict[str, object]
) -> None:
    """Put padded boxes on the stage.

    Args:
        stage: where they stand.
        name: of the shapes.
        parts: the boxes.
        cloth: what they are covered with.
        weave_cm: length of the weave before it repeats.
        piping: what their piping is covered with.
    """
    for number, part in enumerate(parts):
        at, uv, triangles = part.mesh()
        _, first, same = np.unique(np.round(at, 4), axis=0, return_index=True, return_inverse=True)
        normal = normals(at[first], same.ravel()[triangles])[same.ravel()]
        vertex = np.concatenate([at, normal, uv / weave_cm], axis=1).astype("<f4")
        stage.add(f"{name}@{number}", shapes.write_ply(stage.folder / f"{name}{number}.ply", vertex, triangles), cloth)
        for side, line in enumerate(part.pipings()):
            across = (0.31, 0.87, 0.38)
            path = stage.folder / f"{name}{number}piping{side}.ply"
            round_ = shapes.tube(line, np.full((len(line), 2), PIPING), path, across, 16, 2.0)
            stage.add(f"{name}@{number}piping{side}", round_, piping)


def nearest(parts: Sequence[Padded], points: Points) -> NDArray[np.float32]:
    """Return the distance of points (…, 3) from what several boxes fill, negative inside."""
    return np.asarray(np.minimum.reduce([part.distance(points) for part in parts]), np.float32)
