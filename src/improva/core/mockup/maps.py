"""Texture maps of a scene's prints and surfaces, scaled to the picture."""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats
from ..errors import SceneError
from .anisotropic import AnisotropicSamples, find_grazing
from .half_float import mapped
from .nearby_colour import NearbyColour, find_near
from .parallel import ONE_CORE, Cores
from .scene import Passes, Region, SceneInfo

EXAMINED_ROWS = 400
"""Most rows of a print that are examined to find its texture size."""

LEAST_COVER = 0.01
"""Smallest cover of a pixel that shows print: stored covers are exact to about this much."""


@dataclass(frozen=True)
class PrintMap:
    """Visibility of a print: a window of the picture with its texture map and basis.

    Attributes:
        rows, columns: the window, around all pixels that see the print.
        u, v: fractions of the texture's width and height, (h, w) float32 each, 0 where ``far``.
        far: pixels in the window that see only the print's bounced light, (h, w) bool.
        texture_px: texture size at which one texel covers about one pixel where the print faces the camera; not of a ground.
        near: the parts of the print near each point of the picture; None for a background.
        grazing: where it turns away from the camera.
    """

    rows: slice
    columns: slice
    u: Floats
    v: Floats
    far: np.ndarray
    texture_px: tuple[int, int] = (16, 16)
    near: NearbyColour | None = None
    grazing: tuple[AnisotropicSamples, ...] = ()

    def window(self, rows: slice) -> tuple[slice, tuple[slice, slice]] | None:
        """Return the part of the window within some rows of the picture: rows of the window, and their place in those rows."""
        first, last = max(rows.start, self.rows.start), min(rows.stop, self.rows.stop)
        if first >= last:
            return None
        return slice(first - self.rows.start, last - self.rows.start), (
            slice(first - rows.start, last - rows.start),
            self.columns,
        )


def scaled(plane: Floats, size: tuple[int, int], cores: Cores = ONE_CORE) -> Floats:
    """Resize a plane (h, w) or (h, w, n) of half or whole floats to ``size`` (width, height), as whole floats."""
    plane = mapped(plane, lambda values: values, cores)
    if (plane.shape[1], plane.shape[0]) == size:
        return plane
    kernel = cv2.INTER_AREA if size[0] < plane.shape[1] else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(plane, size, interpolation=kernel), np.float32)


def _filled(plane: Floats) -> Floats:
    """Return a copy with 0 in place of NaN."""
    return np.asarray(cv2.patchNaNs(np.array(plane, np.float32, order="C")), np.float32)


JUMP = 0.02
"""A mean of places on a cloth that lies farther from one of them lies between two panels, on neither."""


def on_one_panel(mean: Floats, uv: Floats) -> Floats:
    """Return scaled texture coordinates of a cloth cut of several panels, taken from one pixel where a mean would mix two panels."""
    one = cv2.resize(uv, mean.shape[1::-1], interpolation=cv2.INTER_NEAREST)
    with np.errstate(invalid="ignore"):
        mixed = np.abs(mean - one).max(axis=2) > JUMP
    mean[mixed] = one[mixed]
    return mean


def _scaled_map(uv: Floats, size: tuple[int, int]) -> Floats:
    """Texture coordinates at another size: averaged over the pixels that have any."""
    if (uv.shape[1], uv.shape[0]) == size:
        return uv
    near = ~np.isnan(uv[..., 0])
    kernel = cv2.INTER_AREA if size[0] < uv.shape[1] else cv2.INTER_LINEAR
    total = np.asarray(cv2.resize(_filled(uv), size, interpolation=kernel), np.float32)
    if near.all():
        return total
    weight = np.asarray(cv2.resize(near.astype(np.float32), size, interpolation=kernel), np.float32)
    weight[weight < 0.5] = np.nan
    return np.asarray(cv2.divide(total, cv2.merge([weight, weight]), dst=total), np.float32)


def placed(info: SceneInfo, region: Region, maps: dict[str, Floats]) -> Floats:
    """Return the texture coordinates (h, w, 2) of a print: its own, or its panel's scaled to its box. NaN where it is not
    visible."""
    if region.box_mm is None or region.on is None:
        return maps[region.id]
    cloth, uv = info.region(region.on), maps[region.on]
    assert cloth.size_mm is not None, "checked when the pack was read"
    x, y, w, h = region.box_mm
    at = (uv * np.array(cloth.size_mm, np.float32) - np.array([x, y], np.float32)) / np.array([w, h], np.float32)
    with np.errstate(invalid="ignore"):
        at[~((at >= 0) & (at <= 1)).all(axis=-1)] = np.nan
    return np.asarray(at, np.float32)


def _parted(info: SceneInfo, maps: dict[str, Floats]) -> dict[str, Floats]:
    """Assign each pixel to one of several adjoining panels, so that scaled maps meet in the middle of a pixel."""
    taken: np.ndarray | None = None
    out = dict(maps)
    for region in info.regions:
        if region.on is None or region.id not in maps:
            continue
        near = ~np.isnan(maps[region.id][..., 0])
        if taken is not None and (both := near & taken).any():
            out[region.id] = np.where(both[..., None], np.float32(np.nan), maps[region.id])
        taken = near if taken is None else near | taken
    return out


def maps_of(
    info: SceneInfo, passes: Passes, window: tuple[slice, slice], size: tuple[int, int], cover: Floats | None
) -> tuple[dict[str, PrintMap], dict[str, PrintMap]]:
    """Return the maps of all prints in a window, and of all surfaces under them.

    Packs extend a print's texture coordinates past its silhouette, so that the pixels of its edge have some at any
    size. Pixels that see nothing of the product (``cover`` (h, w) is 0) receive only light that the print reflects.
    Raises :class:`SceneError` where no print is seen at this size.
    """
    cloths = {r.on for r in info.regions if r.box_mm is not None}
    means = {name: _scaled_map(uv[window], size) for name, uv in passes.maps.items()}
    scaled = _parted(info, {n: on_one_panel(uv, passes.maps[n][window]) if n in cloths else uv for n, uv in means.items()})
    places = {r.id: placed(info, r, scaled) for r in info.regions if r.panel}
    grounds = {r.id: scaled[r.id] for r in info.regions if r.mapped and r.panel is None}
    covered = None if cover is None else cover > LEAST_COVER
    seen = {n: _whole(print_map, uv) for n, uv in places.items() if (print_map := _print_map(uv, covered))}
    below = {n: print_map for n, uv in grounds.items() if (print_map := _print_map(uv))}
    if not seen:
        raise SceneError("At this size the print cannot be seen: ask for a larger picture.")
    return seen, below


def _print_map(uv: Floats, covered: NDArray[np.bool_] | None = None) -> PrintMap | None:
    near = ~np.isnan(uv[..., 0])
    if covered is not None:
        near &= covered
    if not near.any():
        return None
    ys, xs = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    rows, columns = slice(int(ys[0]), int(ys[-1]) + 1), slice(int(xs[0]), int(xs[-1]) + 1)
    return PrintMap(rows, columns, _filled(uv[rows, columns, 0]), _filled(uv[rows, columns, 1]), ~near[rows, columns])


def _whole(seen: PrintMap, uv: Floats) -> PrintMap:
    """Return a map with everything that a print needs beyond a background."""
    window = uv[seen.rows, seen.columns]
    texture = _texture_px(window)
    return replace(seen, texture_px=texture, near=find_near(uv), grazing=find_grazing(window, texture))


def _texture_px(uv: Floats) -> tuple[int, int]:
    """Return the texture size at which a quarter of the pixels see less than one texel, estimated from some hundreds of rows."""
    every = max(1, len(uv) // EXAMINED_ROWS)
    here, below = uv[:-1:every, :-1], uv[1::every, :-1]
    right = uv[:-1:every, 1:]
    sizes = []
    for i in (0, 1):
        change = cv2.magnitude(right[..., i] - here[..., i], below[..., i] - here[..., i])
        known = change[change > 0]
        sizes.append(round(1 / max(float(np.percentile(known, 25)), 1 / 8192)) if len(known) else 16)
    return max(16, sizes[0]), max(16, sizes[1])


def flipped(seen: PrintMap, width: int) -> PrintMap:
    """The map in the picture's mirror image, ``width`` px wide, its print still the right way."""
    columns = slice(width - seen.columns.stop, width - seen.columns.start)
    u, v, far = (np.ascontiguousarray(plane[:, ::-1]) for plane in (1 - seen.u, seen.v, seen.far))
    near, last = seen.near, u.shape[1] - 1
    if near is not None:
        flip = [np.ascontiguousarray(plane[:, ::-1]) for plane in (1 - near.u, near.v, near.share)]
        near = replace(near, u=flip[0], v=flip[1], share=flip[2])
    grazing = tuple(replace(each, columns=last - each.columns, u=1 - each.u, du=-each.du) for each in seen.grazing)
    return replace(seen, columns=columns, u=u, v=v, far=far, near=near, grazing=grazing)
