"""Skin: uneven in tone, with pores, a soft gloss, and light that spreads beneath it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

import cv2
import mitsuba as mi
import numpy as np
from numpy.typing import NDArray
from scipy.spatial import KDTree

from studio import shapes
from studio.cloth.surface import Surface, normals
from studio.people.body import Body, Pose, triangles
from studio.people.smooth import finer, finer_places
from studio.stage import Stage, bitmap, relief_of

Points = NDArray[np.float64]

MAP_PX = 2048
LEVELS = 2
COVERED_CM, TUCKED_CM = 3.5, 0.5
"""Skin that is nearer to cloth is covered by it; by how much it is drawn in."""


@dataclass(frozen=True)
class Tone:
    """Reflectance of a person's skin, linear R, G, B, and how red it gets where blood is near."""

    base: tuple[float, float, float]
    flush: float = 0.10


TONES = {
    "ash": Tone((0.50, 0.305, 0.21), 0.12),
    "birch": Tone((0.155, 0.075, 0.042), 0.05),
    "cedar": Tone((0.46, 0.27, 0.175), 0.13),
    "damson": Tone((0.36, 0.205, 0.125), 0.09),
    "elm": Tone((0.085, 0.042, 0.025), 0.04),
}


def noise(rng: np.random.Generator, size: int, spread: float) -> NDArray[np.float32]:
    field = cv2.GaussianBlur(rng.standard_normal((size, size)).astype(np.float32), (0, 0), spread)
    return np.asarray((field - field.mean()) / field.std(), np.float32)


@cache
def tone_map(name: str, size: int = MAP_PX) -> NDArray[np.float32]:
    """Return a person's skin, (size, size, 3) linear: patches, freckles and a flush."""
    tone = TONES[name]
    rng = np.random.default_rng(sum(name.encode()))
    patches = 0.6 * noise(rng, size, 40) + 0.5 * noise(rng, size, 11) + 0.35 * noise(rng, size, 3.0)
    red = 0.7 * noise(rng, size, 60) + 0.5 * noise(rng, size, 16)
    spots = np.zeros((size, size), np.float32)
    at = rng.integers(0, size, (900, 2))
    for (x, y), wide in zip(at, rng.exponential(0.5, 900), strict=True):
        cv2.circle(spots, (int(x), int(y)), round(1 + wide), 1.0, -1, cv2.LINE_AA)
    freckles = np.asarray(cv2.GaussianBlur(spots, (0, 0), 1.1))
    light = np.exp(0.035 * patches - 0.35 * freckles)[..., None]
    hue = np.stack([1 + 0.25 * tone.flush * red, 1 - 0.6 * tone.flush * red, 1 - 0.5 * tone.flush * red], axis=-1)
    return np.asarray(np.clip(np.array(tone.base) * light * hue, 0.01, 0.9), np.float32)


@cache
def pores() -> NDArray[np.float32]:
    """Return the height of fine lines and pores, in 0…1."""
    rng = np.random.default_rng(3)
    cells = -np.abs(noise(rng, 1024, 2.2)) - 0.6 * np.abs(noise(rng, 1024, 4.5))
    return relief_of(cells)


def tucked(at: Points, normal: Points, cloth: Surface, depth: float, edge: float = 2.5, beyond: float = -0.1) -> Points:
    """Return points drawn in by ``depth`` cm where cloth covers them: a coarse cloth cuts through what bulges under it.

    Over a width of ``edge`` cm from the cloth's own edge less and less; the last of it lies ``beyond`` that edge.
    """
    near, _ = KDTree(cloth.sewn()[0]).query(at)
    rim, _ = KDTree(cloth.rims()).query(at)  # as near as the cloth itself for what lies beyond its edge
    share = np.clip(COVERED_CM - near, 0, 1) * np.clip((rim - near + beyond) / edge, 0, 1)
    return np.asarray(at - depth * share[:, None] * normal)


def put_body(stage: Stage, body: Body, pose: Pose, cloths: Sequence[tuple[Surface, float]]) -> None:
    """Put a person on the stage, smooth, with skin on that is drawn in by some cm under each cloth."""
    at, faces = body.posed(pose), body.skin
    places, mapped = body.mapped
    corners = places[mapped]
    for _ in range(LEVELS):
        at, faces = finer(at, faces)
        corners = finer_places(corners)
    triangle = triangles(faces)
    uv = np.concatenate([corners[:, [0, 1, 2]], corners[:, [0, 2, 3]]]).reshape(-1, 2)
    uv[:, 1] = 1 - uv[:, 1]
    for cloth, depth in cloths:
        at = tucked(at, normals(at, triangle), cloth, depth)
    normal = normals(at, triangle)
    vertex = np.concatenate([at[triangle.ravel()], normal[triangle.ravel()], uv], axis=1).astype("<f4")
    mesh = shapes.write_ply(stage.folder / "skin.ply", vertex, np.arange(len(vertex)).reshape(-1, 3))
    stage.add("skin", mesh, material(stage, body.name))


def material(stage: Stage, name: str) -> dict[str, Any]:
    """Return how a person's skin reflects light."""
    colour = {"type": "bitmap", "bitmap": mi.Bitmap(tone_map(name)), "raw": True}
    skin = {"type": "principled", "base_color": colour, "roughness": 0.47, "specular": 0.42, "flatness": 0.0}
    relief = bitmap(pores(), to_uv=stage.to.scale([9, 9, 1]))
    return {"type": "twosided", "bsdf": {"type": "bumpmap", "arbitrary": relief, "scale": 0.03, "bsdf": skin}}
