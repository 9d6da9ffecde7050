"""A bag with a gusset, standing: its sheets, lining and handles. Lengths in cm; z up, the front towards -y."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

from improva.catalogue import template
from studio import shapes

Points = NDArray[np.float64]
BLANK = template("tote-gusset")
W, H = (mm / 10 for mm in BLANK.panel("front").trim_mm)
LONG, DEEP = (mm / 10 for mm in BLANK.panel("gusset").trim_mm)
THICK, FOOT, BELLY = 0.3, 1.6, 2.7
"""Of wall and lining together; the radius of its foot's edge; how far its middle stands out."""
STRAP = (0.12, 1.2)
"""Half of a handle's thickness and width."""
ROWS = 330
IN_SIDE, IN_GUSSET, IN_HEM = (np.array([1 - 2 * x / W, 1 - 2 * y / DEEP, 1]) for x, y in ((0.96, 0), (0, 0.36), (0.18, 0.18)))
"""How far linings end inside the seams, and the hem lies inside the opening's edge: else they would show through."""
Sheets = dict[str, tuple[Points, Points]]


def _fold(z: Points) -> Points:
    """How far a gusset's middle is drawn in: more towards the opening."""
    return np.asarray(0.25 + 2.5 * np.clip(z / H, 0, 1) ** 1.7)


def _slack(at: Points) -> Points:
    """What soft cloth adds to a box, standing as it happens to: more towards the opening, whose corners droop."""
    x, y, z = np.moveaxis(at, -1, 0)
    high = np.clip(z / H, 0, 1.2)
    dx = high * (0.55 * np.sin(z / 8.5 + 0.3 * y + 0.6) + 0.25 * np.sin(z / 3.9 + 1.7))
    dy = high * (0.9 * np.sin(x / 8.1 + z / 15 + 0.4) + 0.3 * np.sin(x / 3.7 + z / 6))
    dz = high**3 * (0.45 * np.sin(x / 5.2 + y / 4 + 0.9) - 1.3 * np.clip(np.abs(x) / (W / 2), 0, 1) ** 4)
    return np.asarray(at + np.stack([dx, dy, dz], -1))


def _crease(x: Points, z: Points, start: tuple[float, float], end: tuple[float, float], wide: float) -> Points:
    """A fold of height 1 between two points of a side, faded out at its ends."""
    t, s = shapes.beside(x, z, start, end)
    s = (s + 0.8 * np.sin(3 * t)) / wide
    return np.asarray(4 * np.clip(t, 0, 1) * np.clip(1 - t, 0, 1) * (np.exp(-(s**2)) - 0.5 * np.exp(-((s - 1.8) ** 2) / 2)))


def _down() -> tuple[Points, Points]:
    """Height of the seams between sides and gussets, and half the depth there, from the opening down and round the foot's edge."""
    s = np.linspace(0, H, ROWS)
    turn = np.clip(s - (H - FOOT * np.pi / 2), 0, None) / FOOT
    z = np.where(turn > 0, FOOT * (1 - np.sin(turn)), H - s * (H - FOOT) / (H - FOOT * np.pi / 2))
    return z, np.sqrt((DEEP / 2) ** 2 - _fold(z) ** 2) - FOOT * (1 - np.cos(turn))


def _side(seed: int) -> tuple[Points, Points, Points]:
    """x, how far it stands out from the middle, and z of a side."""
    x, s = np.meshgrid(np.linspace(-W / 2, W / 2, 300), np.linspace(0, H, ROWS))
    z, half = (np.broadcast_to(v[:, None], x.shape) for v in _down())
    rng = np.random.default_rng(seed)
    high = np.clip(z / H, 0, 1)
    belly = BELLY * np.cos(np.pi * x / W) ** 0.9 * (0.30 + 0.70 * np.sin(np.pi * high**0.75))
    folds = 0.0 * x
    for i in range(7):
        sign = 1 if i % 2 else -1
        low = (sign * rng.uniform(4, 17), rng.uniform(1, 12))
        top = (sign * rng.uniform(6, 11), rng.uniform(20, 35))
        folds = folds + rng.uniform(0.35, 0.75) * _crease(x, z, low, top, rng.uniform(1.8, 3.6))
    for sign in (-1, 1):  # what hangs from a strap draws down from it
        folds = folds + 0.55 * _crease(x, z, (sign * 8.5, 36), (sign * (14 + 2 * rng.normal()), 12), 2.6)
        folds = folds + 0.5 * _crease(x, z, (sign * 18.5, 1), (sign * 8, 10), 2.0)
    rim = np.minimum.reduce([W / 2 - np.abs(x), H - s + 0 * x, 3 + s])
    stitched = np.exp(-(((W / 2 - np.abs(x)) - 0.5) ** 2) / 0.03) + np.exp(-((s - 2.5) ** 2) / 0.03) * (np.abs(x) < W / 2 - 0.5)
    out = (belly + folds) * (1 - np.exp(-((rim / 2.2) ** 2))) - 0.07 * stitched
    return x, half + out, z


def _end(sign: float) -> tuple[Points, Points]:
    """A gusset's part beside the bag and its places on the strip; from the front's edge to the back's."""
    s, row = np.meshgrid(np.linspace(0, 1, 90), np.arange(ROWS))
    z, half = _down()
    middle = 1 - np.abs(2 * s - 1)
    high = z[row]
    inward = _fold(high) * (middle - 0.12 * np.exp(-(((s - 0.5) / 0.08) ** 2)))
    at = np.stack([sign * (W / 2 - inward), (2 * s - 1) * half[row], high], -1)
    down = row / (ROWS - 1) * H
    run = (LONG - down if sign > 0 else down) / LONG
    return at, np.clip(np.stack([run, s], -1), 0.0005, 0.9995)


@cache
def sheets() -> Sheets:
    """Points and places of each printed part: ``front``, ``back``, ``gusset@left`` and ``gusset@right``."""
    sheets_by_name: Sheets = {}
    for name, seed, sign in (("front", 3, -1.0), ("back", 8, 1.0)):
        x, out, z = _side(seed)
        at = np.stack([x, sign * out, z], -1)
        u = np.linspace(0, 1, x.shape[1]) if sign < 0 else np.linspace(1, 0, x.shape[1])
        sheets_by_name[name] = _slack(at), np.stack(np.meshgrid(u, np.linspace(0, 1, x.shape[0])), -1)
    for name, side in (("left", -1.0), ("right", 1.0)):
        points, places = _end(side)
        sheets_by_name[f"gusset@{name}"] = _slack(points), places
    return sheets_by_name


def normals(at: Points) -> Points:
    """Return the normals of a grid of points (rows, columns, 3), towards the viewer if rows run down; not of unit length."""
    return np.asarray(np.cross(np.gradient(at, axis=0), np.gradient(at, axis=1)))


def lining(name: str) -> Points:
    """A part's sheet moved inwards by the wall's thickness, and kept clear of the seams."""
    at = sheets()[name][0]
    outward = at - np.array([0, 0, H / 2])
    normal = normals(at)
    normal /= np.maximum(np.linalg.norm(normal, axis=2, keepdims=True), 1e-9)
    normal *= np.sign((normal * outward).sum(axis=2).mean())
    return np.asarray((at - THICK * normal) * (IN_GUSSET if name.startswith("gusset") else IN_SIDE))


def hem() -> Points:
    """The middle line of the binding round the opening, closed."""
    front, back, left, right = (sheets()[name][0][0] for name in ("front", "back", "gusset@left", "gusset@right"))
    loop = np.concatenate([front[:-1], right[:-1], back[::-1][:-1], left[::-1]])
    return np.asarray(loop * IN_HEM - [0, 0, 0.02])


def strap(sign: float, lean: float) -> Points:
    """A handle's middle line: up a side from where it is sewn on, over, and down again."""
    at, _ = sheets()["front" if sign < 0 else "back"]

    def on(x: float, z: float) -> tuple[float, float, float]:
        row, column = np.unravel_index(np.argmin(np.hypot(at[..., 0] - x, at[..., 2] - z)), at.shape[:2])
        return x, float(at[row, column, 1]) + sign * (STRAP[0] + 0.05), z

    left, right = [[on(x, z) for z in (H - 7, H - 4, H - 1.5)] for x in (-8.5, 8.5)]
    y, far = (left[-1][1] + right[-1][1]) / 2, sign * 0.8
    over = [
        (-8.5, left[-1][1] + 0.2 * lean, H + 3),
        (-8.2 - far, y + 0.55 * lean, H + 10),
        (-5.2 - far, y + 0.85 * lean, H + 16.8),
        (0.6 - far, y + lean, H + 18.9),
        (5.9, y + 0.95 * lean, H + 15.6),
        (8.3, y + 0.6 * lean, H + 9.2),
        (8.6, right[-1][1] + 0.2 * lean, H + 3),
    ]
    return shapes.spline([*left, *over, *right[::-1]], 200)
