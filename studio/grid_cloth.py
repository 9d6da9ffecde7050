"""Cloth by position-based dynamics: a grid of points, lengths kept, pushed by gravity, pressure and what it lies on.

Follows Müller et al., "Position Based Dynamics" (2007): Verlet steps, then lengths projected in groups that share no point.
Lengths in centimetres, time in arbitrary steps.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
Push = Callable[[Points, Points], None]
"""Moves points (rows, columns, 3) in place out of what they have run into; told where they were before the step."""


@dataclass
class Grid:
    """A sheet of points (rows, columns, 3) with its lengths at rest taken from ``flat``, (rows, columns, 2).

    Attributes:
        bend: how strongly points two apart keep their distance, 0…1: soft fleece 0.02, canvas 0.3.
        held: weight of each point, 0 where it is pinned.
    """

    at: Points
    flat: Points
    bend: float = 0.1
    shear: float = 0.5
    held: Points = field(default_factory=lambda: np.zeros(0))

    def __post_init__(self) -> None:
        if not self.held.size:
            self.held = np.ones(self.at.shape[:2])
        self.before = self.at.copy()
        rows, columns = self.at.shape[:2]
        self.groups: list[tuple[tuple[slice, slice], tuple[slice, slice], Points, float]] = []
        for dy, dx, stiff in (
            (0, 1, 1.0),
            (1, 0, 1.0),
            (1, 1, self.shear),
            (1, -1, self.shear),
            (0, 2, self.bend),
            (2, 0, self.bend),
        ):
            for part in range(2 * max(abs(dx), dy)):
                step, start = 2 * max(abs(dx), dy), part
                if dy == 0:
                    a, b = (slice(None), slice(start, columns - dx, step)), (slice(None), slice(start + dx, columns, step))
                elif dx >= 0:
                    a, b = (
                        (slice(start, rows - dy, step), slice(0, columns - dx)),
                        (slice(start + dy, rows, step), slice(dx, columns)),
                    )
                else:
                    a, b = (
                        (slice(start, rows - dy, step), slice(-dx, columns)),
                        (slice(start + dy, rows, step), slice(0, columns + dx)),
                    )
                rest = np.linalg.norm(self.flat[b] - self.flat[a], axis=-1)
                self.groups.append((a, b, rest, stiff))

    def project(self) -> None:
        """Bring every pair of neighbours back to its length, once."""
        for a, b, rest, stiff in self.groups:
            away = self.at[b] - self.at[a]
            far = np.linalg.norm(away, axis=-1)
            wa, wb = self.held[a], self.held[b]
            pull = (stiff * (far - rest) / np.maximum(far, 1e-9) / np.maximum(wa + wb, 1e-9))[..., None] * away
            self.at[a] += pull * wa[..., None]
            self.at[b] -= pull * wb[..., None]

    def step(self, force: Points | float, drag: float, rounds: int, push: Push | None = None) -> None:
        """One step under a force a point, with ``rounds`` of projection; ``push`` keeps it out of things."""
        moved = (self.at - self.before) * (1 - drag) + force
        self.before = self.at.copy()
        self.at = self.at + moved * self.held[..., None]
        for _ in range(rounds):
            self.project()
            if push:
                push(self.at, self.before)


def normals(at: Points) -> Points:
    """Area-weighted normals of a grid, (rows, columns, 3): towards the viewer where rows run down and columns right."""
    down, across = np.gradient(at, axis=0), np.gradient(at, axis=1)
    return np.asarray(np.cross(down, across))


def finer(grid: Points, times: int) -> Points:
    """A grid with so many times the points, on a cubic surface through them."""
    from scipy.ndimage import zoom

    rows, columns = grid.shape[:2]
    factor = (((rows - 1) * times + 1) / rows, ((columns - 1) * times + 1) / columns)
    return np.stack([zoom(grid[..., i], factor, order=3, grid_mode=False, mode="nearest") for i in range(grid.shape[2])], -1)


def pillow(side: float, points: int = 97, half: float = 7.2, steps: int = 300, seed: int = 2) -> tuple[Points, Points]:
    """A stuffed square cushion: front and back, (points, points, 3) each, its border shared; x right, z up, y away.

    Two sheets are blown up between sewn edges; edges draw in and pucker, corners stay sharp, as with a real one.
    """
    rng = np.random.default_rng(seed)
    s = np.linspace(-side / 2, side / 2, points)
    x, z = np.meshgrid(s, s[::-1])
    flat = np.stack([x, z], -1)
    bulge = 1.2 * np.cos(np.pi * x / side) * np.cos(np.pi * z / side)
    dents = np.array([[rng.normal() for _ in range(7)] for _ in range(7)])
    from scipy.ndimage import zoom

    stuffing = 1 + 0.35 * zoom(dents, points / 7, order=3)[:points, :points]
    sheets = [Grid(np.stack([x, sign * bulge, z], -1), flat, bend=0.35, shear=0.2) for sign in (-1.0, 1.0)]
    border = np.zeros((points, points), bool)
    border[0] = border[-1] = border[:, 0] = border[:, -1] = True
    for i in range(steps):
        full = min(1.0, i / 60) * 0.05 * (1 - np.abs(sheets[0].at[..., 1]).max() / half)
        for sheet, sign in zip(sheets, (-1.0, 1.0), strict=True):
            n = normals(sheet.at) * sign
            n *= np.sign((n[..., 1:2] * sign).mean())
            cell = (side / (points - 1)) ** 2
            sheet.step(full * n / cell * stuffing[..., None], 0.12, 10)
        mean = (sheets[0].at[border] + sheets[1].at[border]) / 2
        mean -= mean.mean(axis=0)  # it stays where it is
        for sheet in sheets:
            sheet.at[border] = mean
            sheet.before[border] = (sheets[0].before[border] + sheets[1].before[border]) / 2
    return _eased(sheets[0].at), _eased(sheets[1].at)


def _eased(at: Points, sigma: float = 2.0) -> Points:
    """Canvas does not crease as finely as an ideal sheet: the finest wrinkles are smoothed, the sewn border is kept."""
    from scipy.ndimage import gaussian_filter

    rows, columns = at.shape[:2]
    y, x = np.mgrid[0:rows, 0:columns]
    inward = np.minimum.reduce([x, y, columns - 1 - x, rows - 1 - y]) / 4.0
    share = np.clip(inward, 0, 1)[..., None]
    soft = np.stack([gaussian_filter(at[..., i], sigma, mode="nearest") for i in range(3)], -1)
    return np.asarray(at * (1 - share) + soft * share)
