"""How well a design continues over a seam: its offset in mm and its colour difference."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import Floats, delta_e_2000
from ..template import Panel, Template
from .edges import pairs
from .linked_panels import Corrections, Link
from .motion import Motion, Points
from .seams import LaidOn, Seam

POINTS = 48
INSIDE_MM = 1.0
"""Distance inside either edge at which colours are read, in mm: at the edge itself a pixel is half bleed."""


def offset_along(
    seam: Seam, template: Template, ways: tuple[Link | None, Link | None], corrections: Corrections
) -> Floats | None:
    """Return the offset (n,) in mm between both sides of a seam, in the design; None where they show different designs or are
    two edges of one panel.

    ``ways`` are the links of both panels to their first panels, None for a panel with its own design.
    """
    roots = [link.leader if link else panel for link, panel in zip(ways, (seam.leader, seam.follower), strict=True)]
    if roots[0] != roots[1] or seam.leader == seam.follower:
        return None
    on, off = pairs(seam, template.panel(seam.leader), template.panel(seam.follower), POINTS)
    on = on + corrections.get(seam.id, (0.0, 0.0))  # where samples have shown that it is sewn
    first, second = ((link.motion if link else Motion())(points) for link, points in zip(ways, (on, off), strict=True))
    return np.asarray(np.hypot(*(first - second).T), np.float32)


def _inwards(points: Points, panel: Panel) -> Points:
    """Return points moved from the edge into the panel."""
    along = np.gradient(points, axis=0)
    across = np.stack([along[:, 1], -along[:, 0]], -1) / np.maximum(np.hypot(*along.T), 1e-9)[:, None]
    middle = np.mean(panel.line(), axis=0)
    side = np.sign(((middle - points) * across).sum(axis=1).mean()) or 1.0
    return np.asarray(points + side * INSIDE_MM * across)


def _colours(file_lab: Floats, panel: Panel, points: Points) -> Floats:
    """Sample a reduced print file at points of its panel, (n, 3)."""
    x, y, w, h = panel.file_box
    at = ((points - (x, y)) * (file_lab.shape[1] / w, file_lab.shape[0] / h) - 0.5).astype(np.float32)
    samples = cv2.remap(file_lab, at[None, :, 0], at[None, :, 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(samples[0], np.float32)


def colour_difference_along(
    seam: Seam, template: Template, corrections: Corrections, file_labs: tuple[Floats, Floats]
) -> Floats:
    """Return ΔE2000 (n,) between both sides of a seam. ``file_labs`` are the leader's and the follower's print files, reduced,
    (h, w, 3) Lab."""
    leader, follower = template.panel(seam.leader), template.panel(seam.follower)
    on, off = pairs(seam, leader, follower, POINTS)
    inner, moved = _inwards(off, follower), np.array(corrections.get(seam.id, (0.0, 0.0)))
    # beside a pocket the first panel continues, so its colours are read there; past a sewn edge there is nothing
    beneath = inner + seam.offset_mm + moved if isinstance(seam, LaidOn) else _inwards(on, leader)
    seen = _colours(file_labs[0], leader, beneath), _colours(file_labs[1], follower, inner)
    return np.asarray(delta_e_2000(*seen), np.float32)
