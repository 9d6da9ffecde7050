"""Photographs of known content."""

from __future__ import annotations

import math

import cv2
import numpy as np

from improva.core.mockup.photo import Marks

SIZE = (800, 600)
CORNERS = np.array([(0.30, 0.22), (0.72, 0.28), (0.70, 0.80), (0.26, 0.70)])
BALL = Marks(tuple(map(tuple, CORNERS)), box=(0.2, 0.1, 0.8, 0.9))


def pinhole(points: np.ndarray, eye: tuple[float, float, float], down_deg: float, roll_deg: float, focal: float) -> np.ndarray:
    """Project points (n, 3) with a camera that looks along +y, tilted down and rolled. Textbook formulas, independent of ours."""
    d, r = math.radians(down_deg), math.radians(roll_deg)
    right, ahead = np.array([1.0, 0, 0]), np.array([0, math.cos(d), -math.sin(d)])
    below = np.cross(ahead, right)
    right, below = math.cos(r) * right + math.sin(r) * below, math.cos(r) * below - math.sin(r) * right
    v = points - np.array(eye)
    return np.stack([v @ right, v @ below], 1) / (v @ ahead)[:, None] * focal + np.array(SIZE) / 2


def ball(ground: float = 90.0) -> tuple[np.ndarray, np.ndarray]:
    """A pale disc on a darker grainy background: the picture, and the disc's share of each pixel."""
    rng = np.random.default_rng(3)
    fine = np.zeros((SIZE[1] * 4, SIZE[0] * 4), np.float32)
    cv2.circle(fine, (1600, 1200), 720, 1.0, -1)
    share = cv2.resize(fine, SIZE, interpolation=cv2.INTER_AREA)
    picture = ground + (215 - ground) * share + rng.normal(0, 3, share.shape)
    return np.clip(np.dstack([picture, picture * 0.97, picture * 0.93]), 0, 255).astype(np.uint8), share


def middle_seen() -> np.ndarray:
    seen = np.zeros((SIZE[1], SIZE[0]), bool)
    seen[220:380, 320:480] = True
    return seen
