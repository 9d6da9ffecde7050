"""A scene made ready at one picture size: cropped, scaled, exposed, and split into what changes and what does not."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import Floats
from ..errors import BadScene
from .pack import Passes, SceneInfo
from .tone import CODES, RANGE

MAX_PICTURE_PX = 25_000_000
CLOSE_AIR = 1.3


@dataclass(frozen=True)
class PrintMap:
    """Where a print is seen: a window of the picture with its texture map and basis.

    Attributes:
        rows, columns: the window, around all pixels that see the print.
        u, v: fractions of the texture's width and height, (h, w) float32 each, 0 where ``far``.
        far: pixels in the window that see only the print's bounced light, (h, w) bool.
        texture_px: texture size at which one texel covers about one pixel where the print faces the camera.
    """

    rows: slice
    columns: slice
    u: Floats
    v: Floats
    far: np.ndarray
    texture_px: tuple[int, int]


@dataclass(frozen=True)
class View:
    """Passes at one size, exposed and coded for the tone table, channels in B, G, R order."""

    info: SceneInfo
    size: tuple[int, int]
    base: Floats
    basis: dict[str, Floats]
    maps: dict[str, PrintMap]


def crop_window(native: tuple[int, int], size: tuple[int, int]) -> tuple[int, int, int, int]:
    """The largest centred window (x, y, w, h) of a native picture with the proportions of ``size``."""
    w, h = native
    factor = min(w / size[0], h / size[1])
    cw, ch = max(1, round(size[0] * factor)), max(1, round(size[1] * factor))
    return (w - cw) // 2, (h - ch) // 2, cw, ch


def close_window(passes: Passes, size: tuple[int, int]) -> tuple[int, int, int, int]:
    """The window (x, y, w, h) with the proportions of ``size`` that shows the print large, with some air round it."""
    native_h, native_w = passes.base.shape[:2]
    near = np.any([~np.isnan(uv[..., 0]) for uv in passes.maps.values()], axis=0)
    ys, xs = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    need_w, need_h = (xs[-1] - xs[0]) * CLOSE_AIR, (ys[-1] - ys[0]) * CLOSE_AIR
    factor = min(max(need_w / size[0], need_h / size[1]), native_w / size[0], native_h / size[1])
    w, h = max(1, round(size[0] * factor)), max(1, round(size[1] * factor))
    x, y = (xs[0] + xs[-1] - w) // 2, (ys[0] + ys[-1] - h) // 2
    return int(np.clip(x, 0, native_w - w)), int(np.clip(y, 0, native_h - h)), w, h


def _scaled(plane: Floats, size: tuple[int, int]) -> Floats:
    if (plane.shape[1], plane.shape[0]) == size:
        return np.ascontiguousarray(plane)
    kernel = cv2.INTER_AREA if size[0] < plane.shape[1] else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(np.ascontiguousarray(plane), size, interpolation=kernel))


def _scaled_map(uv: Floats, size: tuple[int, int]) -> Floats:
    """Texture coordinates at another size: averaged over the pixels that have any."""
    near = (~np.isnan(uv[..., 0])).astype(np.float32)
    kernel = cv2.INTER_AREA if size[0] < uv.shape[1] else cv2.INTER_LINEAR
    weight = cv2.resize(near, size, interpolation=kernel)
    total = cv2.resize(np.ascontiguousarray(np.nan_to_num(uv)), size, interpolation=kernel)
    with np.errstate(invalid="ignore", divide="ignore"):
        out = total / weight[..., None]
    out[weight < 0.5] = np.nan
    return np.asarray(out, np.float32)


def _maps(passes: Passes, window: tuple[slice, slice], size: tuple[int, int]) -> dict[str, PrintMap]:
    """The maps of all prints that are seen in a window."""
    scaled = {name: _scaled_map(uv[window], size) for name, uv in passes.maps.items()}
    seen = {name: _print_map(uv) for name, uv in scaled.items() if not np.isnan(uv[..., 0]).all()}
    if not seen:
        raise BadScene("At this size the print cannot be seen: ask for a larger picture.")
    return seen


def _print_map(uv: Floats) -> PrintMap:
    near = ~np.isnan(uv[..., 0])
    ys, xs = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    rows, columns = slice(int(ys[0]), int(ys[-1]) + 1), slice(int(xs[0]), int(xs[-1]) + 1)
    window = uv[rows, columns]
    du, dv = np.abs(np.diff(window[..., 0], axis=1)), np.abs(np.diff(window[..., 1], axis=0))
    texture = tuple(round(1 / max(float(np.nanpercentile(d[d > 0], 25)), 1 / 8192)) for d in (du, dv))
    u, v = (np.ascontiguousarray(np.nan_to_num(window[..., i])) for i in (0, 1))
    return PrintMap(rows, columns, u, v, ~near[rows, columns], (max(16, texture[0]), max(16, texture[1])))


def make_view(info: SceneInfo, passes: Passes, size: tuple[int, int], close: bool = False) -> View:
    """Crop and scale a scene to a picture size; ``close`` shows the print large instead of the whole scene.

    Raises:
        BadScene: the size is empty, too large, or leaves nothing of the print.
    """
    if min(size) < 16 or size[0] * size[1] > MAX_PICTURE_PX:
        raise BadScene(f"A picture of {size[0]} × {size[1]} px cannot be made: 16 px a side to 25 megapixels.")
    x, y, w, h = close_window(passes, size) if close else crop_window(info.px, size)
    gain = info.exposure * CODES / RANGE

    def ready(plane: Floats) -> Floats:
        return np.ascontiguousarray(_scaled(plane[y : y + h, x : x + w], size)[..., ::-1] * np.float32(gain))

    return View(
        info=info,
        size=size,
        base=ready(passes.base),
        basis={name: ready(plane) for name, plane in passes.basis.items()},
        maps=_maps(passes, (slice(y, y + h), slice(x, x + w)), size),
    )
