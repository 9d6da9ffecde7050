"""A hoodie that lies flat, its sleeves pointing down and its hood spread above. Lengths in cm; x right, y up in the picture, z towards the viewer."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from studio.cloth.mesh import Cloth, sew
from studio.cloth.panels import Panel
from studio.draped import hoodie
from studio.draped.hoodie import LEANING, SLOPE
from studio.draped.laid import lay

Points = NDArray[np.float64]

SPACING = 2.2
DOWN = 62.0
"""How far sleeves point down at their ends, degrees."""

BENT = (12.0, 50.0)
"""From where to where a sleeve bends down, in cm from the shoulder."""

HIGH = 35.4
"""Of a hood's panel, cm."""

DEEP, FLATTENS = 0.35, 8.0
WIDE, RISES = 1.75, 14.0
"""Depth and width of the hood, against those when it stands, and how far above the neck it comes to them, cm."""


def flat(back: bool, seed: int) -> Cloth:
    """Return a hoodie that lies on a table, with its front or its back up; its neck is at the origin."""
    made, seams = hoodie.panels(SPACING)
    at = hoodie.placed(made, np.zeros(3), lambda x, z: 0.0 * x)
    panels = {panel.name: panel for panel in made}
    tip = np.abs(at["sleeve-left"][:, 0]).min(), at["sleeve-left"][:, 2].max()
    for name in at:
        if name.startswith(("sleeve", "cuff")):
            at[name] = _bent_down(at[name], tip)
        elif name.startswith("hood"):
            at[name] = _upright(panels[name], at[name])
        if back:
            at[name] = at[name] * [-1, -1, 1]
    return lay(sew(made, at, seams, hoodie.CLOTH), hoodie.finished, seed)


def _bent_down(at: Points, tip: tuple[float, float]) -> Points:
    """Bend a sleeve that points aside: its upper edge keeps its length, and what is over at its lower edge becomes folds."""
    sign = np.sign(at[:, 0].mean())
    slope = np.radians(SLOPE)
    x, z = sign * at[:, 0] - tip[0], at[:, 2] - tip[1]
    along, below = x * np.cos(slope) - z * np.sin(slope), -x * np.sin(slope) - z * np.cos(slope)
    steps = np.linspace(0, 90, 361)
    turn = slope + np.radians(DOWN - SLOPE) * np.clip((steps - BENT[0]) / (BENT[1] - BENT[0]), 0, 1)
    edge_x, edge_z = (np.append(0, np.cumsum(v[:-1]) * (steps[1] - steps[0])) for v in (np.cos(turn), -np.sin(turn)))
    here = np.interp(along, steps, turn)
    before = np.minimum(along, 0)
    bent_x = np.interp(along, steps, edge_x) + before * np.cos(slope) - below * np.sin(here)
    bent_z = np.interp(along, steps, edge_z) - before * np.sin(slope) - below * np.cos(here)
    return np.column_stack([sign * (tip[0] + bent_x), at[:, 1], tip[1] + bent_z])


def _upright(panel: Panel, at: Points) -> Points:
    """Bring a half of the leaning hood upright, and press it half flat."""
    lean, high = np.radians(LEANING), panel.flat[:, 1] + HIGH
    deep, up = at[:, 1] - np.sin(lean) * high, at[:, 2] + (1 - np.cos(lean)) * high
    wide, flat_by = (1 + (most - 1) * np.clip(high / over, 0, 1) for most, over in ((WIDE, RISES), (DEEP, FLATTENS)))
    return np.column_stack([wide * at[:, 0], flat_by * deep, up])
