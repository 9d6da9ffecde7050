"""Make ``bodies.npz`` from the open body data that ``studio/ASSETS.md`` names: ``python -m studio.people.unpack FOLDER``.

The data has one mesh, called the base, and many targets: displacements of its points towards an age, a build or a size. A body is the
base and a weighted sum of targets. Its unit is 10 cm, x runs to the left hand, y up and z to the front.
"""

from __future__ import annotations

import argparse
import gzip
import json
from dataclasses import dataclass
from itertools import product
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]

UNIT_CM = 10.0
BODY, TIGHTS = 13380, (15328, 18002)
"""Points of the skin come first; those of closed tights over it lie between these two numbers."""

STRONGEST = 4
"""Bones that move a point."""

LANDMARKS = ("head", "jaw")
"""Bones whose children belong to the face: they move with the head."""


@dataclass(frozen=True)
class Build:
    """Shares from 0 to 1: old is 0.5 at 25 years and 1 at 90; 0.5 is average for muscle, weight and height."""

    male: float
    old: float
    muscle: float
    weight: float
    height: float
    origin: dict[str, float]


BUILDS = {
    "ash": Build(1.0, 0.52, 0.58, 0.50, 0.54, {"caucasian": 0.8, "asian": 0.2}),
    "birch": Build(0.0, 0.53, 0.52, 0.46, 0.55, {"african": 0.9, "caucasian": 0.1}),
    "cedar": Build(1.0, 0.70, 0.50, 0.72, 0.52, {"asian": 0.3, "caucasian": 0.7}),
    "damson": Build(0.0, 0.66, 0.48, 0.66, 0.60, {"caucasian": 0.6, "asian": 0.4}),
    "elm": Build(1.0, 0.50, 0.66, 0.46, 0.53, {"african": 1.0}),
}
"""Five invented people, named after trees."""


def between(share: float, low: str, middle: str, high: str) -> dict[str, float]:
    """Return the weights of three steps at 0, 0.5 and 1."""
    if share <= 0.5:
        return {low: 1 - 2 * share, middle: 2 * share}
    return {middle: 2 - 2 * share, high: 2 * share - 1}


def targets_of(build: Build) -> dict[str, float]:
    """Return the weight of every target file, without its ending, that makes a build."""
    sex = {"male": build.male, "female": 1 - build.male}
    age = between(build.old, "child", "young", "old")
    muscle = between(build.muscle, "minmuscle", "averagemuscle", "maxmuscle")
    weight = between(build.weight, "minweight", "averageweight", "maxweight")
    height = between(build.height, "minheight", "", "maxheight")
    found: dict[str, float] = {}
    for (s, a), (b, c), (d, e), (f, g) in product(sex.items(), age.items(), muscle.items(), weight.items()):
        found[f"macrodetails/universal-{s}-{b}-{d}-{f}"] = a * c * e * g
        for size, share in height.items():
            if size:
                found[f"macrodetails/height/{s}-{b}-{d}-{f}-{size}"] = a * c * e * g * share
    for (s, a), (b, c), (origin, part) in product(sex.items(), age.items(), build.origin.items()):
        found[f"macrodetails/{origin}-{s}-{b}"] = a * c * part
    return {name: share for name, share in found.items() if share > 1e-6}


def shaped(base: Points, folder: Path, build: Build) -> Points:
    """Return all points (n, 3) of a build, in the data's unit."""
    at = base.copy()
    for name, share in targets_of(build).items():
        path = folder / "targets" / f"{name}.target.gz"
        if not path.exists():  # an average needs no target of its own
            continue
        rows = [line.split() for line in gzip.decompress(path.read_bytes()).decode().splitlines() if line[:1].isdigit()]
        moved = np.array([[float(v) for v in row[1:4]] for row in rows]).reshape(-1, 3)
        at[[int(row[0]) for row in rows]] += share * moved
    return at


def read_base(folder: Path) -> tuple[Points, NDArray[np.int64], Points, NDArray[np.int64], NDArray[np.int64]]:
    """Return points, the skin's faces (m, 4), places on its map (k, 2), the faces' indices of those, and the tights' faces."""
    points: list[list[float]] = []
    places: list[list[float]] = []
    groups: dict[str, list[list[list[int]]]] = {}
    group = ""
    for line in (folder / "3dobjs" / "base.obj").read_text().splitlines():
        kind, *rest = line.split() or [""]
        if kind == "v":
            points.append([float(v) for v in rest])
        elif kind == "vt":
            places.append([float(v) for v in rest[:2]])
        elif kind == "g":
            group = rest[0]
        elif kind == "f":
            groups.setdefault(group, []).append([[int(v) - 1 for v in corner.split("/")] for corner in rest])
    skin = np.array(groups["body"])
    return np.array(points), skin[..., 0], np.array(places), skin[..., 1], np.array(groups["helper-tights"])[..., 0]


def _joints(bones: dict[str, Any], groups: dict[str, Any], at: Points) -> Points:
    """Return where each bone begins, (bones, 3)."""
    found = []
    for bone in bones.values():
        head = bone["head"]
        if head["strategy"] == "CUBE":
            first, last = groups[head["cube_name"]][0]
            found.append(at[first : last + 1].mean(axis=0))
        else:
            points = head.get("vertex_indices", [head.get("vertex_index")])
            found.append(at[points].mean(axis=0))
    return np.array(found)


def main() -> None:
    parser = argparse.ArgumentParser(prog="studio.people.unpack", description=__doc__)
    parser.add_argument("folder", type=Path)
    folder: Path = parser.parse_args().folder
    base, faces, places, mapped, tights = read_base(folder)
    rigs = folder / "rigs" / "standard"
    bones: dict[str, Any] = json.loads((rigs / "rig.default.json").read_text())
    weights = json.loads((rigs / "weights.default.json").read_text())["weights"]
    groups = json.loads((folder / "mesh_metadata" / "basemesh_vertex_groups.json").read_text())

    def carrier(bone: str) -> str:
        """The bone that moves what a bone of the face would move."""
        up = bone
        while up:
            if up == "head":
                return "head"
            up = bones[up]["parent"]
        return bone

    names = [bone for bone in bones if carrier(bone) == bone]
    share = np.zeros((len(base), len(names)))
    for bone, pairs in weights.items():
        for point, value in pairs:
            share[int(point), names.index(carrier(bone))] += value
    chosen = np.r_[0:BODY, TIGHTS[0] : TIGHTS[1]]
    order = np.argsort(-share[chosen], axis=1)[:, :STRONGEST]
    strength = np.take_along_axis(share[chosen], order, axis=1)
    strength /= np.maximum(strength.sum(axis=1, keepdims=True), 1e-9)
    kept = {name: bones[name] for name in names}
    parents = [names.index(bone["parent"]) if bone["parent"] else -1 for bone in kept.values()]
    bodies: dict[str, Any] = {}
    for name, build in BUILDS.items():
        at = shaped(base, folder, build)
        joints = _joints(kept, groups, at)
        ground = at[:BODY, 1].min()
        for key, points in ((name, at[chosen]), (f"{name}.joints", joints)):
            # to x right of the picture when the person looks at the viewer, y away from the viewer, z up from the ground
            bodies[key] = (UNIT_CM * np.column_stack([points[:, 0], -points[:, 2], points[:, 1] - ground])).astype(np.float32)
        print(name, "is", round(float(bodies[name][:BODY, 2].max())), "cm tall")
    np.savez_compressed(
        Path(__file__).with_name("bodies.npz"),
        faces=faces.astype(np.int32),
        mapped=mapped.astype(np.int32),
        places=places.astype(np.float32),
        tights=(tights - TIGHTS[0] + BODY).astype(np.int32),
        bones=np.array(names),
        parents=np.array(parents, np.int32),
        moved_by=order.astype(np.uint8),
        strength=strength.astype(np.float32),
        **bodies,
    )


if __name__ == "__main__":
    main()
