"""Light of drawn scenes: a warm soft box from the left, a cool tall one from the right, and light from above and all around.

Diffuse light is a sum of wide cosine lobes; a gloss is the soft boxes seen in the mirror, their edges blurred.
x runs right, y away from the camera, z up.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ...colour import Floats


@dataclass(frozen=True)
class Lamp:
    """A soft box: its direction, its colour, its wrap-around, and half its size as seen from the blank."""

    towards: tuple[float, float, float]
    rgb: tuple[float, float, float]
    wrap: float
    half: tuple[float, float]

    @property
    def axis(self) -> Floats:
        """Return the unit vector (3,) to the lamp."""
        v = np.array(self.towards, np.float32)
        return np.asarray(v / np.linalg.norm(v), np.float32)


LAMPS = (
    Lamp((-0.78, -0.55, 0.55), (0.80, 0.76, 0.70), 0.30, (0.34, 0.72)),
    Lamp((0.95, -0.10, 0.30), (0.28, 0.30, 0.33), 0.35, (0.13, 0.85)),
    Lamp((-0.1, 0.35, 1.0), (0.26, 0.26, 0.26), 0.45, (0.5, 0.4)),
)
AROUND = (0.20, 0.205, 0.215)
GLOSS_TIMES = 5.0
F0 = 0.04
"""Reflectance of a clear coat seen straight on, refractive index 1.5 (Fresnel)."""


def diffuse(normal: Floats) -> Floats:
    """Return the light that a white matt surface reflects: (…, 3) unit normals to (…, 3) linear light."""
    total = np.empty_like(normal)
    up = 0.8 + 0.2 * normal[..., 2:3]
    np.multiply(up, np.array(AROUND, np.float32), out=total)
    for lamp in LAMPS:
        shaded = np.clip((normal @ lamp.axis + lamp.wrap) / (1 + lamp.wrap), 0, None)
        total += (shaded**1.4)[..., None] * np.array(lamp.rgb, np.float32)
    return total


def _box(value: Floats, half: float, soft: float) -> Any:
    return 1 / (1 + np.exp(np.clip((np.abs(value) - half) / soft, -30, 30)))


def mirrored(ray: Floats, soft: float) -> Floats:
    """Return the lamps as seen along reflected rays (…, 3), blurred by ``soft``: (…, 3) linear light."""
    total = np.zeros_like(ray)
    for lamp in LAMPS:
        axis = lamp.axis
        side = np.cross([0, 0, 1], axis).astype(np.float32)
        side /= np.linalg.norm(side)
        top = np.cross(axis, side)
        along = ray @ axis
        ahead = np.maximum(along, 1e-3)
        seen = _box((ray @ side) / ahead, lamp.half[0], soft) * _box((ray @ top) / ahead, lamp.half[1], soft)
        total += (np.where(along > 0.02, seen, 0) * GLOSS_TIMES)[..., None] * np.array(lamp.rgb, np.float32)
    return total


def reflected(normal: Floats, view: Floats) -> tuple[Floats, Floats]:
    """Reflect unit view rays at unit normals: return the rays (…, 3) and Schlick's reflectance of a clear coat (…, 1)."""
    facing = np.clip(-(normal * view).sum(axis=-1, keepdims=True), 0, 1)
    share = F0 + (1 - F0) * (1 - facing) ** 5
    return view + 2 * facing * normal, share


def gloss(normal: Floats, view: Floats, soft: float = 0.05) -> Floats:
    """Highlights of a clear coat: (…, 3) linear light."""
    ray, share = reflected(normal, view)
    return np.asarray((mirrored(ray, soft) + np.array(AROUND, np.float32) * 0.5) * share, np.float32)


def steel(normal: Floats, view: Floats) -> Floats:
    """Brushed steel: (…, 3) linear light."""
    ray, _ = reflected(normal, view)
    sky = 0.22 + 0.25 * np.clip(ray[..., 2:3] + 0.2, 0, 1)
    return np.asarray((mirrored(ray, 0.16) * 0.16 + sky) * np.array((0.93, 0.92, 0.90), np.float32), np.float32)
