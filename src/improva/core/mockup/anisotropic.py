"""Anisotropic texture sampling: where a print turns away from the camera, one pixel covers several texels."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats

BANDS = ((2.0, 4.0, 4), (4.0, 1e9, 8))
"""Least and largest length, in texels, along which a pixel is averaged, and the number of samples."""

MOST, JUMP = 24.0, 96.0
"""Texels over which samples are spread at most; and from where the neighbour is not the print running on but another part
of it, as at a seam or in front of a fold.
"""


@dataclass(frozen=True)
class AnisotropicSamples:
    """Pixels of a print's window that cover several texels along one direction, in row order.

    Attributes:
        taps: samples taken along it.
        rows, columns: of each in the window, (n,).
        u, v: its middle, in fractions of the texture, (n,).
        du, dv: its long way, (n,).
    """

    taps: int
    rows: NDArray[np.int32]
    columns: NDArray[np.int32]
    u: Floats
    v: Floats
    du: Floats
    dv: Floats


def _along(plane: Floats, axis: int) -> Floats:
    """Return how much a plane changes from pixel to pixel, towards an existing neighbour; 0 where there is none."""
    step = np.diff(plane, axis=axis)
    gap = np.full_like(np.take(plane, [0], axis), np.nan)
    ahead, behind = np.concatenate([step, gap], axis), np.concatenate([gap, step], axis)
    return np.asarray(np.nan_to_num(np.where(np.isnan(ahead), behind, ahead)), np.float32)


def find_grazing(uv: Floats, texture_px: tuple[int, int]) -> tuple[AnisotropicSamples, ...]:
    """Return the pixels of a texture map (h, w, 2), NaN where the print is not visible, that need several samples, grouped by
    the number of samples."""
    w, h = texture_px
    ways = [(_along(uv[..., 0], axis), _along(uv[..., 1], axis)) for axis in (1, 0)]
    long = [np.hypot(du * w, dv * h) for du, dv in ways]
    for texels in long:
        texels[texels > JUMP] = 0
    down = long[1] > long[0]
    texels = np.where(down, long[1], long[0])
    texels[np.isnan(uv[..., 0])] = 0
    parts = []
    for least, below, taps in BANDS:
        at = rows, columns = np.nonzero((texels >= least) & (texels < below))
        fit = np.minimum(1, MOST / texels[at])
        du, dv = (np.where(down[at], ways[1][i][at], ways[0][i][at]) * fit for i in (0, 1))
        u, v = (uv[..., i][at].astype(np.float32) for i in (0, 1))
        parts.append(
            AnisotropicSamples(
                taps, rows.astype(np.int32), columns.astype(np.int32), u, v, du.astype(np.float32), dv.astype(np.float32)
            )
        )
    return tuple(parts)


def sample(
    texture: Floats, u: Floats, v: Floats, grazing: tuple[AnisotropicSamples, ...], inside: slice, turn: float = 0.0
) -> Floats:
    """Sample a texture (h, w, c) at some rows of a texture map; grazing pixels get the mean along their long direction.

    ``turn``, in 0…1 of a whole one, is how far a body of revolution is turned: what lies so much farther right is seen, and
    around it the print has no end.
    """
    out = _at(texture, u[inside], v[inside], turn)
    for each in grazing:
        first, last = np.searchsorted(each.rows, (inside.start, inside.stop))
        if first < last:
            here = slice(int(first), int(last))
            out[each.rows[here] - inside.start, each.columns[here]] = _along_way(texture, each, here, turn)
    return out


def _along_way(texture: Floats, each: AnisotropicSamples, here: slice, turn: float) -> Floats:
    share = ((np.arange(each.taps, dtype=np.float32) + 0.5) / each.taps - 0.5)[:, None]
    u, v = (np.asarray(at[here] + share * way[here], np.float32) for at, way in ((each.u, each.du), (each.v, each.dv)))
    samples = _flat(texture, u, v, turn)
    total = samples[0] + samples[1]
    for tap in samples[2:]:
        total += tap
    return np.asarray(total * np.float32(1 / each.taps))


def _at(texture: Floats, u: Floats, v: Floats, turn: float) -> Floats:
    h, w = texture.shape[:2]
    x, y = u * w + np.float32(turn * w - 0.5), v * h - np.float32(0.5)
    if turn:
        np.subtract(x, w, out=x, where=x > w - 1)  # samples across the edge take the slow path
        np.clip(y, 0, h - 1, out=y)
    border = cv2.BORDER_WRAP if turn else cv2.BORDER_REPLICATE
    return np.asarray(cv2.remap(texture, x, y, cv2.INTER_LINEAR, borderMode=border))


def _flat(texture: Floats, u: Floats, v: Floats, turn: float) -> Floats:
    """Sample at (taps, n) places, in parts: a remap takes no row longer than 32 767."""
    size, width = u.size, 512
    room = np.zeros((2, -(-size // width) * width), np.float32)
    room[0, :size], room[1, :size] = u.ravel(), v.ravel()
    samples = _at(texture, room[0].reshape(-1, width), room[1].reshape(-1, width), turn)
    return samples.reshape(-1, texture.shape[2])[:size].reshape(*u.shape, texture.shape[2])
