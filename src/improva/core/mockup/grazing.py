"""Sampling a print where it turns away from the camera: there a pixel sees more of it across than one texel."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats

TAPS = 8
"""Samples taken along the long way of what a pixel sees."""

STEEP, MOST, JUMP = 1.4, 24.0, 96.0
"""Texels along a pixel's long way: from where more than one sample is taken, over how many at most, and from where the
neighbour is not the print running on but another part of it, as at a seam or in front of a fold."""


@dataclass(frozen=True)
class Grazing:
    """Pixels of a print's window whose long way spans several texels, in order of their rows.

    Attributes:
        rows, columns: of each in the window, (n,).
        du, dv: the long way in fractions of the texture, (n,).
    """

    rows: NDArray[np.intp]
    columns: NDArray[np.intp]
    du: Floats
    dv: Floats


def _along(plane: Floats, axis: int) -> Floats:
    """How much a plane changes from pixel to pixel, towards whichever neighbour is there; 0 where none is."""
    step = np.diff(plane, axis=axis)
    gap = np.full_like(np.take(plane, [0], axis), np.nan)
    ahead, behind = np.concatenate([step, gap], axis), np.concatenate([gap, step], axis)
    return np.asarray(np.nan_to_num(np.where(np.isnan(ahead), behind, ahead)), np.float32)


def find_grazing(uv: Floats, texture_px: tuple[int, int]) -> Grazing:
    """The grazing pixels of a map (h, w, 2) of fractions, NaN where the print is not seen."""
    w, h = texture_px
    ways = [(_along(uv[..., 0], axis), _along(uv[..., 1], axis)) for axis in (1, 0)]
    long = [np.hypot(du * w, dv * h) for du, dv in ways]
    for texels in long:
        texels[texels > JUMP] = 0
    down = long[1] > long[0]
    texels = np.where(down, long[1], long[0])
    rows, columns = np.nonzero((texels > STEEP) & ~np.isnan(uv[..., 0]))
    at = rows, columns
    fit = np.minimum(1, MOST / texels[at])
    du, dv = (np.where(down[at], ways[1][i][at], ways[0][i][at]) * fit for i in (0, 1))
    return Grazing(rows, columns, du.astype(np.float32), dv.astype(np.float32))


def sample(texture: Floats, u: Floats, v: Floats, grazing: Grazing | None, inside: slice) -> Floats:
    """The texture (h, w, c) at some rows of a map's fractions; of grazing pixels the mean along their long way."""
    h, w = texture.shape[:2]
    out = np.asarray(_at(texture, u[inside] * w - 0.5, v[inside] * h - 0.5))
    if grazing is None:
        return out
    first, last = np.searchsorted(grazing.rows, (inside.start, inside.stop))
    if first == last:
        return out
    rows, columns = grazing.rows[first:last], grazing.columns[first:last]
    share = ((np.arange(TAPS, dtype=np.float32) + 0.5) / TAPS - 0.5)[:, None]
    us, vs = u[rows, columns] + share * grazing.du[first:last], v[rows, columns] + share * grazing.dv[first:last]
    out[rows - inside.start, columns] = _flat(texture, us * w - 0.5, vs * h - 0.5).mean(axis=0)
    return out


def _at(texture: Floats, x: Floats, y: Floats) -> Floats:
    return np.asarray(cv2.remap(texture, x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE))


def _flat(texture: Floats, x: Floats, y: Floats) -> Floats:
    """Samples at (taps, n) places; cut up, since a remap takes no row longer than 32 767."""
    size, width = x.size, 4096
    room = np.zeros((2, -(-size // width) * width), np.float32)
    room[0, :size], room[1, :size] = x.ravel(), y.ravel()
    found = _at(texture, room[0].reshape(-1, width), room[1].reshape(-1, width))
    return found.reshape(-1, texture.shape[2])[:size].reshape(*x.shape, texture.shape[2])
