"""The light that a print throws round it: of the colour of its near parts, told on a coarse grid."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour import Floats
from .cores import by_rows, scratch
from .near import Near

SOFT_PX, SOFT_REACH = (48, 32), (0.08, 0.15)
"""A print as it is seen from round it: its texture made so small, and blurred over such shares of its width and height."""


def _shrunk(texture: Floats) -> Floats:
    """A texture made small, (32, 48, 3): what little is seen of it by its light."""
    w, h = SOFT_PX
    out = np.empty((h, w, 3), np.float32)

    def work(rows: slice) -> None:
        first, last = (round(row / h * len(texture)) for row in (rows.start, rows.stop))
        out[rows] = cv2.resize(texture[first:last], (w, rows.stop - rows.start), interpolation=cv2.INTER_AREA)[..., :3]

    by_rows(h, h, work)
    return out


def thrown(texture: Floats, near: Near, turn: float = 0.0) -> Floats:
    """The colour of the light that a print throws round it, (gh, gw, 3): mostly that of its parts near by.

    ``turn`` is as in :func:`.grazing.sample`.
    """
    w, h = SOFT_PX
    small = _shrunk(texture)
    if turn:
        whole, part = divmod(turn * w, 1)
        small, next_ = (np.roll(small, -int(whole) - i, axis=1) for i in (0, 1))
        small = np.asarray(small + np.float32(part) * (next_ - small))
    mean = np.array(cv2.mean(small)[:3], np.float32)
    soft = cv2.GaussianBlur(small, (0, 0), sigmaX=SOFT_REACH[0] * w, sigmaY=SOFT_REACH[1] * h, borderType=cv2.BORDER_REPLICATE)
    there = cv2.remap(soft, near.u * w - 0.5, near.v * h - 0.5, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(mean + near.share[..., None] * (there - mean), np.float32)


def widened(coarse: Floats, near: Near, width: int) -> Floats:
    """A coarse plane's rows as long as the picture's: (gh, width, 3)."""
    whole = cv2.copyMakeBorder(coarse, 0, 1, 0, 1, cv2.BORDER_REPLICATE)  # the last cell can end before the picture does
    gh, gw = whole.shape[:2]
    return np.ascontiguousarray(cv2.resize(whole, (gw * near.step, gh), interpolation=cv2.INTER_LINEAR)[:, :width])


def spread(coarse: Floats, step: int, rows: slice, memory: str) -> Floats:
    """Some rows of the picture, between a widened plane's rows, of which each lies in the middle of ``step`` of them.

    In working memory of that name.
    """
    above = max(0, (rows.start - (step + 1) // 2) // step)
    below = (rows.stop + step // 2) // step + 1
    part = coarse[above:below]
    tall = scratch(memory, (len(part) * step, *part.shape[1:]), np.float32)
    cv2.resize(part, tall.shape[1::-1], dst=tall, interpolation=cv2.INTER_LINEAR)
    return np.asarray(tall[rows.start - above * step : rows.stop - above * step])
