"""Find which part of a print lies near each point of a picture, for its colour bleed."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.ndimage import distance_transform_edt

from ..colour import Floats

NEAR_CELLS, NEAR_REACH = 160, 0.3
"""Cells of the grid for reflected light, and how quickly nearby parts outweigh distant ones, in widths."""


@dataclass(frozen=True)
class NearbyColour:
    """What each place of a picture has of a print near it, on a coarse grid: the light that the print throws there comes mostly
    from that part of it.

    Attributes:
        u, v: of the nearest point that sees the print, (gh, gw).
        share: how much of the light comes from about there, not from all of the print, (gh, gw) in 0…1.
        step: pixels of the picture in a cell of the grid.
    """

    u: Floats
    v: Floats
    share: Floats
    step: int


def find_near(uv: Floats) -> NearbyColour:
    """Find which part of a print, visible where a map (h, w, 2) is not NaN, lies near each point of the picture."""
    w = uv.shape[1]
    step = max(1, round(w / NEAR_CELLS))
    coarse = uv[step // 2 :: step, step // 2 :: step]
    unseen = np.isnan(coarse[..., 0])
    if unseen.all():  # thinner than the grid: use its middle
        middle = np.nanmean(uv, axis=(0, 1)).astype(np.float32)
        u, v = (np.full(unseen.shape, value, np.float32) for value in middle)
        return NearbyColour(u, v, np.ones(unseen.shape, np.float32), step)
    away, (iy, ix) = distance_transform_edt(unseen, return_indices=True)
    share = 1 / (1 + (away * step / (NEAR_REACH * w)) ** 2)
    u, v = (np.ascontiguousarray(coarse[iy, ix, i]) for i in (0, 1))
    return NearbyColour(u, v, share.astype(np.float32), step)
