"""A cloth as one mesh: panels placed in space and sewn together, with the lengths and hinges that its flat panels give it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from .material import Material
from .panels import Indices, Panel, Points
from .projection import hinge_angle
from .refine import split

Seam = tuple[tuple[str, str], tuple[str, str]]
"""Two sides that are sewn together, each as panel and side; the second runs against the first, as on two panels that lie beside each
other."""

STRIP = 9 / 8
"""Stiffness of a plate against that of a free strip of it."""


@dataclass
class Cloth:
    """A mesh of cloth.

    Attributes:
        at: (n, 3) positions in cm.
        triangles: (m, 3) indices of points.
        flat: (m, 3, 2) place in cm of each corner on its own panel.
        panel: (m,) number of each triangle's panel, in the order of ``names``.
        names: of the panels.
        material: of all of it.
        edges: (e, 2) indices of points; ``rest`` (e,) their lengths at rest.
        hinges: (k, 4) indices: both ends of an inner edge, then the points opposite; ``angle`` (k,) at rest in radians and ``stiff`` (k,)
            the stiffness in dyn·cm.
        mass: (n,) of each point in g; infinite where it is held.
    """

    at: Points
    triangles: Indices
    flat: Points
    panel: Indices
    names: tuple[str, ...]
    material: Material
    edges: Indices = field(init=False)
    rest: Points = field(init=False)
    hinges: Indices = field(init=False)
    angle: Points = field(init=False)
    stiff: Points = field(init=False)
    mass: Points = field(init=False)

    def __post_init__(self) -> None:
        self.edges, self.rest, self.hinges, length, beside = _edges_and_hinges(self.triangles, self.flat)
        area = self.flat_areas()
        third = np.repeat(area / 3 * self.material.density, 3)
        self.mass = np.asarray(np.bincount(self.triangles.ravel(), third, len(self.at)), np.float64)
        # Seung and Nelson, Phys. Rev. A 38 (1988) 1005: a lattice of equilateral hinges bends like a plate of √3/2 of their stiffness.
        # Such a plate has a Poisson ratio of 1/3, so a strip of it, as rigidity is measured on, is softer by 1 - 1/9.
        self.stiff = STRIP * self.material.bending * length**2 / area[beside].sum(axis=1)
        self.angle = np.zeros(len(self.hinges))

    def flat_areas(self) -> Points:
        """Return the area of each triangle at rest, (m,) in cm²."""
        a, b = self.flat[:, 1] - self.flat[:, 0], self.flat[:, 2] - self.flat[:, 0]
        return np.asarray(np.abs(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]) / 2)

    def areas(self) -> Points:
        """Return the area of each triangle in space, (m,) in cm²."""
        a, b, c = (self.at[self.triangles[:, i]] for i in range(3))
        return np.asarray(np.linalg.norm(np.cross(b - a, c - a), axis=1) / 2)

    def volume(self) -> float:
        """Return the volume in cm³ that a closed cloth holds, positive where triangles are seen counter-clockwise from outside."""
        a, b, c = (self.at[self.triangles[:, i]] for i in range(3))
        return float(np.einsum("ij,ij->", a, np.cross(b, c)) / 6)

    def stretch(self) -> Points:
        """Return how long each edge is against its length at rest, (e,)."""
        return np.asarray(np.linalg.norm(self.at[self.edges[:, 1]] - self.at[self.edges[:, 0]], axis=1) / self.rest)

    def double(self, points: NDArray[np.bool_], layers: float = 3.0) -> None:
        """Make the cloth at some points as heavy as so many layers, and stiffer by their square: hems and seams are sewn together."""
        self.mass[points] *= layers
        self.stiff[points[self.hinges[:, 0]] & points[self.hinges[:, 1]]] *= layers**2

    def press(self, share: float) -> None:
        """Make the cloth keep the bends in which it lies, by a share of their angles: folds that were pressed in."""
        gradient = np.zeros((4, 3))
        self.angle = share * np.array([hinge_angle(self.at, *hinge, gradient) for hinge in self.hinges.tolist()])  # type: ignore[call-arg]

    def hold(self, points: NDArray[np.int64] | NDArray[np.bool_]) -> None:
        """Hold points in their places."""
        self.mass[points] = np.inf


def _edges_and_hinges(triangles: Indices, flat: Points) -> tuple[Indices, Points, Indices, Points, Indices]:
    """Return edges with their mean lengths on the flat panels, and hinges with the lengths of their edges and both triangles (k, 2)."""
    corners = [(0, 1, 2), (1, 2, 0), (2, 0, 1)]
    ends = np.concatenate([triangles[:, [a, b]] for a, b, _ in corners])
    opposite = np.concatenate([triangles[:, c] for _, _, c in corners])
    lengths = np.concatenate([np.linalg.norm(flat[:, a] - flat[:, b], axis=1) for a, b, _ in corners])
    ordered = np.sort(ends, axis=1)
    edges, which, count = np.unique(ordered, axis=0, return_inverse=True, return_counts=True)
    which = which.ravel()
    rest = np.bincount(which, lengths, len(edges)) / count
    first = np.argsort(which, kind="stable")
    starts = np.append(0, np.cumsum(count))[:-1]
    inner = np.flatnonzero(count == 2)
    one, other = first[starts[inner]], first[starts[inner] + 1]
    hinges = np.column_stack([ends[one], opposite[one], opposite[other]])
    return edges, rest, hinges, rest[inner], np.column_stack([one, other]) % len(triangles)


def sew(panels: Sequence[Panel], placed: Mapping[str, Points], seams: Sequence[Seam], material: Material) -> Cloth:
    """Join panels to one cloth.

    Args:
        panels: cut flat.
        placed: (n, 3) position in space of every point of each panel; points that are sewn together meet at their mean.
        seams: pairs of sides with equally many points.
        material: of all panels.

    Raises:
        ValueError: two sides of a seam have different numbers of points.
    """
    starts = dict(zip((p.name for p in panels), np.cumsum([0, *(len(p.flat) for p in panels)])[:-1].tolist(), strict=True))
    by_name = {panel.name: panel for panel in panels}
    total = sum(len(panel.flat) for panel in panels)
    leader = np.arange(total)

    def root(point: int) -> int:
        while leader[point] != point:
            leader[point] = leader[leader[point]]
            point = int(leader[point])
        return point

    for (one, side), (other, opposite) in seams:
        a = by_name[one].sides[side] + starts[one]
        b = (by_name[other].sides[opposite] + starts[other])[::-1]
        if len(a) != len(b):
            raise ValueError(f"{one}.{side} has {len(a)} points and {other}.{opposite} {len(b)}: give both the same count")
        for first, second in zip(a.tolist(), b.tolist(), strict=True):
            leader[root(second)] = root(first)
    roots = np.array([root(point) for point in range(total)])
    kept, merged = np.unique(roots, return_inverse=True)
    at = np.concatenate([placed[panel.name] for panel in panels])
    count = np.bincount(merged, minlength=len(kept))
    joined = np.stack([np.bincount(merged, at[:, axis], len(kept)) / count for axis in range(3)], axis=1)
    triangles = np.concatenate([merged[panel.triangles + starts[panel.name]] for panel in panels])
    flat = np.concatenate([panel.flat[panel.triangles] for panel in panels])
    number = np.repeat(np.arange(len(panels)), [len(panel.triangles) for panel in panels])
    return Cloth(joined, triangles, flat, number, tuple(p.name for p in panels), material)


def unsewn(panel: Panel, placed: Points, material: Material) -> Cloth:
    """Return one panel as a cloth."""
    return sew([panel], {panel.name: placed}, [], material)


def finer(cloth: Cloth) -> Cloth:
    """Return a cloth with four triangles for each one, as it lies; its material is the same everywhere."""
    edges, _, _, triangles = split(cloth.triangles, len(cloth.at))
    at = np.concatenate([cloth.at, cloth.at[edges].mean(axis=1)])
    fa, fb, fc = (cloth.flat[:, i] for i in range(3))
    fab, fbc, fca = (fa + fb) / 2, (fb + fc) / 2, (fc + fa) / 2
    flat = np.concatenate([np.stack(t, axis=1) for t in ((fa, fab, fca), (fab, fb, fbc), (fca, fbc, fc), (fab, fbc, fca))])
    return Cloth(at, triangles, flat, np.tile(cloth.panel, 4), cloth.names, cloth.material)
