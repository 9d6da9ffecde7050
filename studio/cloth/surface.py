"""A settled cloth as a smooth surface over its flat panels, as fine as a picture needs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CloughTocher2DInterpolator

from .mesh import Cloth
from .refine import loop

Points = NDArray[np.float64]
Indices = NDArray[np.int64]


@dataclass(frozen=True)
class Surface:
    """The points of a settled cloth, panel by panel.

    Attributes:
        panels: flat places (n, 2) and positions (n, 3) of each panel's points, in cm.
        triangles: (m, 3) indices of each panel's points.
    """

    panels: Mapping[str, tuple[Points, Points]]
    triangles: Mapping[str, Indices]

    @classmethod
    def of(cls, cloth: Cloth) -> Surface:
        """Return the surface of a cloth as it lies."""
        found, between = {}, {}
        for number, name in enumerate(cloth.names):
            chosen = cloth.panel == number
            corners, places = cloth.triangles[chosen].ravel(), cloth.flat[chosen].reshape(-1, 2)
            # a point where two sides of one panel are sewn together has two places on the flat
            apart = np.column_stack([corners, np.round(places, 6)])
            _, first, numbers = np.unique(apart, axis=0, return_index=True, return_inverse=True)
            found[name] = places[first], cloth.at[corners[first]]
            between[name] = numbers.reshape(-1, 3)
        return cls(found, between)

    def over(self, panel: str, flat: Points) -> Points:
        """Return the points (…, 3) over flat places (…, 2) in cm inside a panel's outline.

        The surface passes through the cloth's points with a continuous slope (Clough and Tocher); each panel has slopes of its own,
        so that a seam may be a crease.
        """
        places, at = self.panels[panel]
        low, high = places.min(axis=0), places.max(axis=0)
        margin = 1e-6 * (high - low)  # rounding must not put a place on the outline outside of it
        return np.asarray(CloughTocher2DInterpolator(places, at)(np.clip(flat, low + margin, high - margin)), np.float64)

    def sewn(self) -> tuple[Points, Indices]:
        """Return the points (n, 3) and triangles of all panels, panel after panel; points of a seam are the same."""
        starts = np.cumsum([0, *(len(at) for _, at in self.panels.values())]).tolist()
        every = np.concatenate([at for _, at in self.panels.values()])
        at, which = np.unique(every, axis=0, return_inverse=True)
        corners = [which.ravel()[self.triangles[name] + start] for name, start in zip(self.panels, starts, strict=False)]
        return at, np.concatenate(corners)

    def rims(self) -> Points:
        """Return the points (k, 3) on open edges."""
        at, triangles = self.sewn()
        sides = np.sort(np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]]), axis=1)
        edges, uses = np.unique(sides, axis=0, return_counts=True)
        return np.asarray(at[np.unique(edges[uses == 1])])

    def smoothed(self, times: int) -> dict[str, Piece]:
        """Return every panel as a mesh that is ``times`` times finer, smooth inside and across its seams.

        Flat places move by the same rule inside a panel, so that what is printed on it stays where it was.
        """
        at, sewn = self.sewn()
        names = list(self.panels)
        apart = {name: self.triangles[name] for name in names}
        flats = {name: self.panels[name][0] for name in names}
        counts = [len(apart[name]) for name in names]
        for _ in range(times):
            matrix, sewn = loop(sewn, len(at))
            at = matrix @ at
            for name in names:
                own, apart[name] = loop(apart[name], len(flats[name]))
                flats[name] = own @ flats[name]
        normal = normals(at, sewn)
        # triangle k of a mesh became k, k + m, k + 2m, …: a panel's are found again by what is left when divided by m
        origin = np.arange(len(sewn)) % sum(counts)
        found, first = {}, 0
        for name, count in zip(names, counts, strict=True):
            mine = sewn[(origin >= first) & (origin < first + count)]
            first += count
            place = np.zeros(len(flats[name]), np.int64)
            place[apart[name]] = mine
            found[name] = Piece(flats[name], at[place], normal[place], apart[name])
        return found


@dataclass(frozen=True)
class Piece:
    """A panel's fine mesh: flat places (n, 2), positions and normals (n, 3), triangles (m, 3)."""

    flat: Points
    at: Points
    normal: Points
    triangles: Indices

    def moved(self, at: Points) -> Piece:
        """Return the mesh with its points at other positions (n, 3)."""
        return Piece(self.flat, at, normals(at, self.triangles), self.triangles)


def normals(at: Points, triangles: Indices) -> Points:
    """Return the normals of points, (n, 3): means of those of the triangles around, by their areas."""
    a, b, c = (at[triangles[:, i]] for i in range(3))
    square = np.cross(b - a, c - a)
    total = np.stack([np.bincount(triangles.ravel(), np.repeat(square[:, k], 3), len(at)) for k in range(3)], axis=1)
    return np.asarray(total / np.maximum(np.linalg.norm(total, axis=1, keepdims=True), 1e-12))
