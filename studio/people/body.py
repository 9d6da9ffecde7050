"""A posed body: skin and closed tights over it, moved by their bones. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

Points = NDArray[np.float64]
Indices = NDArray[np.int64]
Pose = Mapping[str, tuple[float, float, float]]
"""How bones are turned against the bone that carries them: a rotation vector in degrees, its axes those of the stage."""

DATA = Path(__file__).with_name("bodies.npz")


@cache
def _data() -> dict[str, Any]:
    with np.load(DATA) as stored:
        return {name: stored[name] for name in stored.files}


@dataclass(frozen=True)
class Body:
    """A person's body at rest: arms lowered by about 49°, looking at the viewer.

    Attributes:
        name: of the person, as in ``unpack.py``.
        size: length against that person's own: who wears a garment of a larger size is drawn larger.
    """

    name: str
    size: float = 1.0
    at: Points = field(init=False)
    joints: Points = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "at", self.size * _data()[self.name].astype(np.float64))
        object.__setattr__(self, "joints", self.size * _data()[f"{self.name}.joints"].astype(np.float64))

    @property
    def bones(self) -> list[str]:
        """Return the names of the bones."""
        return [str(name) for name in _data()["bones"]]

    @property
    def skin(self) -> Indices:
        """Return the skin's faces, (m, 4) indices of points."""
        return _data()["faces"].astype(np.int64)  # type: ignore[no-any-return]

    @property
    def tights(self) -> Indices:
        """Return the faces of tights from the waist to the ankles, (m, 4)."""
        return _data()["tights"].astype(np.int64)  # type: ignore[no-any-return]

    @property
    def mapped(self) -> tuple[Points, Indices]:
        """Return places on the skin's map (k, 2) in 0…1, and the place of each face's corner (m, 4)."""
        return _data()["places"].astype(np.float64), _data()["mapped"].astype(np.int64)

    def joint(self, bone: str) -> Points:
        """Return where a bone begins at rest, (3,)."""
        return np.asarray(self.joints[self.bones.index(bone)])

    def frames(self, pose: Pose) -> tuple[Points, Points]:
        """Return how each bone is turned (b, 3, 3) and where it begins (b, 3) in a pose."""
        bones, parents = self.bones, _data()["parents"]
        unknown = set(pose) - set(bones)
        if unknown:
            raise ValueError(f"no such bones: {', '.join(sorted(unknown))}")
        turned, begun = np.zeros((len(bones), 3, 3)), np.zeros((len(bones), 3))
        waiting = list(range(len(bones)))
        done: set[int] = {-1}
        while waiting:
            number = next(n for n in waiting if int(parents[n]) in done)
            waiting.remove(number)
            done.add(number)
            parent = int(parents[number])
            own = Rotation.from_rotvec(pose.get(bones[number], (0.0, 0.0, 0.0)), degrees=True).as_matrix()
            turned[number] = own if parent < 0 else turned[parent] @ own
            away = self.joints[number] - (0 if parent < 0 else self.joints[parent])
            begun[number] = away if parent < 0 else begun[parent] + turned[parent] @ away
        return turned, begun

    def posed(self, pose: Pose) -> Points:
        """Return all points (n, 3) in a pose: each follows a weighted mean of its bones."""
        turned, begun = self.frames(pose)
        data = _data()
        at = np.zeros_like(self.at)
        for k in range(data["moved_by"].shape[1]):
            bone, share = data["moved_by"][:, k].astype(int), data["strength"][:, k].astype(np.float64)
            moved = np.einsum("nij,nj->ni", turned[bone], self.at - self.joints[bone]) + begun[bone]
            at += share[:, None] * moved
        return at

    def handless(self, pose: Pose) -> Points:
        """Return all points (n, 3) in a pose, those of fingers drawn together at their roots: a sleeve slides over palms only."""
        at, (_, begun) = self.posed(pose), self.frames(pose)
        names = self.bones
        for number, bone in enumerate(names):
            if bone.startswith("finger"):
                finger, side = bone.split("-")[0], bone[-1]
                at[_data()["moved_by"][:, 0] == number] = begun[names.index(f"{finger}-1.{side}")]
        return at


def triangles(faces: Indices) -> Indices:
    """Return quadrilaterals (m, 4) as triangles (2m, 3)."""
    return np.concatenate([faces[:, [0, 1, 2]], faces[:, [0, 2, 3]]])


def between(one: Pose, other: Pose, share: float) -> dict[str, tuple[float, float, float]]:
    """Return a pose between two."""
    rest = (0.0, 0.0, 0.0)
    found = {}
    for name in set(one) | set(other):
        (a, b, c), (d, e, f) = one.get(name, rest), other.get(name, rest)
        found[name] = (a + share * (d - a), b + share * (e - b), c + share * (f - c))
    return found
