"""Colour bleed: light that a print reflects onto its surroundings, computed on a coarse grid."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import Floats
from .nearby_colour import NearbyColour
from .parallel import ONE_CORE, Cores

SOFT_PX, SOFT_REACH = (48, 32), (0.08, 0.15)
"""Blur of a print as its surroundings see it: texture size, and blur as shares of width and height."""


def _shrunk(texture: Floats, cores: Cores) -> Floats:
    """Return a texture reduced to (32, 48, 3), enough for its reflected light."""
    w, h = SOFT_PX
    out = np.empty((h, w, 3), np.float32)

    def work(rows: slice) -> None:
        first, last = (round(row / h * len(texture)) for row in (rows.start, rows.stop))
        out[rows] = cv2.resize(texture[first:last], (w, rows.stop - rows.start), interpolation=cv2.INTER_AREA)[..., :3]

    cores.by_rows(h, h, work)
    return out


def bleed_colour(texture: Floats, near: NearbyColour, turn: float = 0.0, cores: Cores = ONE_CORE) -> Floats:
    """Return the colour of the light that a print (h, w, 3) reflects on to its surroundings, (gh, gw, 3), weighted by
    distance.

    ``turn`` is as in :func:`.anisotropic.sample`.
    """
    w, h = SOFT_PX
    small = _shrunk(texture, cores)
    if turn:
        whole, part = divmod(turn * w, 1)
        small, next_ = (np.roll(small, -int(whole) - i, axis=1) for i in (0, 1))
        small = np.asarray(small + np.float32(part) * (next_ - small))
    mean = np.array(cv2.mean(small)[:3], np.float32)
    soft = cv2.GaussianBlur(small, (0, 0), sigmaX=SOFT_REACH[0] * w, sigmaY=SOFT_REACH[1] * h, borderType=cv2.BORDER_REPLICATE)
    there = cv2.remap(soft, near.u * w - 0.5, near.v * h - 0.5, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(mean + near.share[..., None] * (there - mean), np.float32)


def widen_rows(coarse: Floats, near: NearbyColour, width: int) -> Floats:
    """Widen the rows of a coarse plane (gh, gw, 3) to the picture's width: (gh, width, 3)."""
    whole = cv2.copyMakeBorder(coarse, 0, 1, 0, 1, cv2.BORDER_REPLICATE)  # the last cell can end before the picture does
    gh, gw = whole.shape[:2]
    return np.ascontiguousarray(cv2.resize(whole, (gw * near.step, gh), interpolation=cv2.INTER_LINEAR)[:, :width])


def interpolate_rows(coarse: Floats, step: int, rows: slice, memory: str, cores: Cores = ONE_CORE) -> Floats:
    """Interpolate rows of the picture, (rows, width, 3), from a widened plane of one row in ``step``.

    The result lies in the working memory of that name and is overwritten by the next call.
    """
    above = max(0, (rows.start - (step + 1) // 2) // step)
    below = (rows.stop + step // 2) // step + 1
    part = coarse[above:below]
    tall = cores.scratch(memory, (len(part) * step, *part.shape[1:]), np.float32)
    cv2.resize(part, tall.shape[1::-1], dst=tall, interpolation=cv2.INTER_LINEAR)
    return np.asarray(tall[rows.start - above * step : rows.stop - above * step])
