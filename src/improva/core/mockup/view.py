"""A scene made ready at one picture size: cropped, scaled, exposed, and split into what changes and what does not."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

import cv2
import numpy as np
from scipy.ndimage import distance_transform_edt

from ..colour import Floats
from ..errors import BadScene
from .cores import by_rows
from .grazing import Grazing, find_grazing
from .scene import Close, Passes, Region, SceneInfo
from .tone import CODES, RANGE

LEAST_PX = 16
MAX_PICTURE_PX = 25_000_000
CLOSE_AIR = 1.3
DETAIL, DETAIL_SIDE = 0.42, 0.4
"""A detail shows such a share of what shows the whole print, but at least such a share of the scene."""
NEAR_CELLS, NEAR_REACH = 160, 0.3
"""Cells of the grid on which a print's own light is told across; how far it tells its near parts from the rest, in widths."""
READY_ROWS = 64
LARGE_PX = 2_000_000
"""Above this a picture is for a listing, not for a look."""


@dataclass(frozen=True)
class Near:
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


@dataclass(frozen=True)
class PrintMap:
    """Where a print is seen: a window of the picture with its texture map and basis.

    Attributes:
        rows, columns: the window, around all pixels that see the print.
        u, v: fractions of the texture's width and height, (h, w) float32 each, 0 where ``far``.
        far: pixels in the window that see only the print's bounced light, (h, w) bool.
        texture_px: texture size at which one texel covers about one pixel where the print faces the camera.
        near: what of it lies near each place of the picture; None of a ground.
        grazing: where it turns away from the camera.
    """

    rows: slice
    columns: slice
    u: Floats
    v: Floats
    far: np.ndarray
    texture_px: tuple[int, int]
    near: Near | None = None
    grazing: tuple[Grazing, ...] = ()


class Planes(Mapping[str, Floats]):
    """Planes that are made ready each time they are asked for: at listing size all of them at once would fill memory."""

    def __init__(self, passes: dict[str, Floats], ready: Callable[[Floats], Floats]) -> None:
        self._passes, self._ready = passes, ready

    def __getitem__(self, name: str) -> Floats:
        return self._ready(self._passes[name])

    def __iter__(self) -> Iterator[str]:
        return iter(self._passes)

    def __len__(self) -> int:
        return len(self._passes)


@dataclass(frozen=True)
class View:
    """Passes at one size, exposed and coded for the tone table, channels in B, G, R order.

    Attributes:
        basis: of each region; of large views made when asked for, see :class:`Planes`.
        grounds: maps of what can show a surface: tables, walls, cloth.
        cover, shade: as in :class:`Passes`, at this size.
        blur: diameter in px over which the lens spreads each point, (h, w); None where the pack does not say.
        scale: px of this picture in a px of the native one; ``corner`` is the window's corner in the native one.
    """

    info: SceneInfo
    size: tuple[int, int]
    base: Floats
    basis: Mapping[str, Floats]
    maps: dict[str, PrintMap]
    grounds: dict[str, PrintMap]
    cover: Floats | None = None
    shade: Floats | None = None
    blur: Floats | None = None
    scale: float = 1.0
    corner: tuple[int, int] = (0, 0)


def crop_window(native: tuple[int, int], size: tuple[int, int]) -> tuple[int, int, int, int]:
    """The largest centred window (x, y, w, h) of a native picture with the proportions of ``size``."""
    w, h = native
    factor = min(w / size[0], h / size[1])
    cw, ch = max(1, round(size[0] * factor)), max(1, round(size[1] * factor))
    return (w - cw) // 2, (h - ch) // 2, cw, ch


def _prints(info: SceneInfo, passes: Passes) -> list[Floats]:
    """Maps of all prints of a scene at its native size."""
    return [_placed(info, r, passes.maps) for r in info.regions if r.panel]


def close_window(info: SceneInfo, passes: Passes, size: tuple[int, int], detail: bool = False) -> tuple[int, int, int, int]:
    """The window (x, y, w, h) with the proportions of ``size`` that shows the print large, with some air round it; or, for a
    ``detail``, its middle, as large as the scene's own pixels bear.
    """
    native_h, native_w = passes.base.shape[:2]
    near = np.any([~np.isnan(uv[..., 0]) for uv in _prints(info, passes)], axis=0)
    ys, xs = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    need_w, need_h = (xs[-1] - xs[0]) * CLOSE_AIR, (ys[-1] - ys[0]) * CLOSE_AIR
    wanted = max(need_w / size[0], need_h / size[1])
    if detail:
        wanted = max(DETAIL * wanted, DETAIL_SIDE * min(native_w / size[0], native_h / size[1]))
    factor = min(wanted, native_w / size[0], native_h / size[1])
    w, h = max(1, round(size[0] * factor)), max(1, round(size[1] * factor))
    x, y = (xs[0] + xs[-1] - w) // 2, (ys[0] + ys[-1] - h) // 2
    return int(np.clip(x, 0, native_w - w)), int(np.clip(y, 0, native_h - h)), w, h


def _scaled(plane: Floats, size: tuple[int, int]) -> Floats:
    """A plane of half or whole floats at another size, in whole floats."""
    plane = np.asarray(plane, np.float32)
    if (plane.shape[1], plane.shape[0]) == size:
        return np.ascontiguousarray(plane)
    kernel = cv2.INTER_AREA if size[0] < plane.shape[1] else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(np.ascontiguousarray(plane), size, interpolation=kernel))


def _scaled_map(uv: Floats, size: tuple[int, int]) -> Floats:
    """Texture coordinates at another size: averaged over the pixels that have any."""
    if (uv.shape[1], uv.shape[0]) == size:
        return uv
    near = (~np.isnan(uv[..., 0])).astype(np.float32)
    kernel = cv2.INTER_AREA if size[0] < uv.shape[1] else cv2.INTER_LINEAR
    weight = cv2.resize(near, size, interpolation=kernel)
    total = cv2.resize(np.ascontiguousarray(np.nan_to_num(uv)), size, interpolation=kernel)
    with np.errstate(invalid="ignore", divide="ignore"):
        out = total / weight[..., None]
    out[weight < 0.5] = np.nan
    return np.asarray(out, np.float32)


def _placed(info: SceneInfo, region: Region, maps: dict[str, Floats]) -> Floats:
    """Where a print is seen: its own u and v, or those of the cloth it lies on, brought to its own box."""
    if region.box_mm is None or region.on is None:
        return maps[region.id]
    cloth, uv = info.region(region.on), maps[region.on]
    assert cloth.size_mm is not None, "checked when the pack was read"
    x, y, w, h = region.box_mm
    placed = (uv * np.array(cloth.size_mm, np.float32) - np.array([x, y], np.float32)) / np.array([w, h], np.float32)
    with np.errstate(invalid="ignore"):
        placed[~((placed >= 0) & (placed <= 1)).all(axis=-1)] = np.nan
    return np.asarray(placed, np.float32)


def _parted(info: SceneInfo, maps: dict[str, Floats]) -> dict[str, Floats]:
    """Maps of panels sewn to each other, each pixel given to one of them: scaling lets them meet in the middle of one."""
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


def _maps(info: SceneInfo, passes: Passes, window: tuple[slice, slice], size: tuple[int, int]
          ) -> tuple[dict[str, PrintMap], dict[str, PrintMap]]:  # fmt: skip
    """The maps of all prints that are seen in a window, and those of all grounds."""
    scaled = _parted(info, {name: _scaled_map(uv[window], size) for name, uv in passes.maps.items()})
    places = {r.id: _placed(info, r, scaled) for r in info.regions if r.panel}
    grounds = {r.id: scaled[r.id] for r in info.regions if r.mapped and r.panel is None}
    seen, below = (
        {n: _print_map(uv) for n, uv in group.items() if not np.isnan(uv[..., 0]).all()} for group in (places, grounds)
    )
    seen = {n: _whole(found, places[n]) for n, found in seen.items()}
    if not seen:
        raise BadScene("At this size the print cannot be seen: ask for a larger picture.")
    return seen, below


def _print_map(uv: Floats) -> PrintMap:
    near = ~np.isnan(uv[..., 0])
    ys, xs = np.flatnonzero(near.any(axis=1)), np.flatnonzero(near.any(axis=0))
    rows, columns = slice(int(ys[0]), int(ys[-1]) + 1), slice(int(xs[0]), int(xs[-1]) + 1)
    window = uv[rows, columns]
    du, dv = np.hypot(*_steps(window[..., 0])), np.hypot(*_steps(window[..., 1]))
    texture = tuple(round(1 / max(float(np.nanpercentile(d[d > 0], 25)), 1 / 8192)) if (d > 0).any() else 16 for d in (du, dv))
    u, v = (np.ascontiguousarray(np.nan_to_num(window[..., i])) for i in (0, 1))
    return PrintMap(rows, columns, u, v, ~near[rows, columns], (max(16, texture[0]), max(16, texture[1])))


def _whole(seen: PrintMap, uv: Floats) -> PrintMap:
    """With what a print needs beside what a ground does."""
    return replace(seen, near=_near(uv), grazing=find_grazing(uv[seen.rows, seen.columns], seen.texture_px))


def _near(uv: Floats) -> Near:
    w = uv.shape[1]
    step = max(1, round(w / NEAR_CELLS))
    coarse = uv[step // 2 :: step, step // 2 :: step]
    unseen = np.isnan(coarse[..., 0])
    if unseen.all():  # thinner than the grid: its middle serves
        middle = np.nanmean(uv, axis=(0, 1)).astype(np.float32)
        u, v = (np.full(unseen.shape, value, np.float32) for value in middle)
        return Near(u, v, np.ones(unseen.shape, np.float32), step)
    away, (iy, ix) = distance_transform_edt(unseen, return_indices=True)
    share = 1 / (1 + (away * step / (NEAR_REACH * w)) ** 2)
    u, v = (np.ascontiguousarray(coarse[iy, ix, i]) for i in (0, 1))
    return Near(u, v, share.astype(np.float32), step)


def _steps(plane: Floats) -> tuple[Floats, Floats]:
    """How much a plane (h, w) changes to the right and down, (h - 1, w - 1) each; any way a print lies, its texels count."""
    return np.diff(plane, axis=1)[:-1], np.diff(plane, axis=0)[:, :-1]


def make_view(info: SceneInfo, passes: Passes, size: tuple[int, int], close: Close = "", mirrored: bool = False) -> View:
    """Crop and scale a scene to a picture size; ``close`` shows the print large, or a part of it, instead of the whole scene.

    ``mirrored`` shows the scene the other way round, its prints still the right way: the same blank lit from the other
    side.

    Raises:
        BadScene: the size is empty, too large, or leaves nothing of the print.
    """
    if min(size) < LEAST_PX or size[0] * size[1] > MAX_PICTURE_PX:
        raise BadScene(f"A picture of {size[0]} × {size[1]} px cannot be made: 16 px a side to 25 megapixels.")
    x, y, w, h = close_window(info, passes, size, close == "detail") if close else crop_window(info.px, size)
    window = slice(y, y + h), slice(x, x + w)
    gain = info.exposure * CODES / RANGE
    scale = size[0] / w

    def cut(plane: Floats) -> Floats:
        found = _scaled(plane[window], size)
        return np.ascontiguousarray(found[:, ::-1]) if mirrored else found

    def ready(plane: Floats) -> Floats:
        found = np.empty((size[1], size[0], 3), np.float32)
        if (w, h) != size:
            cv2.cvtColor(cut(plane), cv2.COLOR_RGB2BGR, dst=found)
            return np.multiply(found, np.float32(gain), out=found)
        own = plane[window][:, ::-1] if mirrored else plane[window]

        def work(rows: slice) -> None:
            np.multiply(own[rows][..., ::-1], np.float32(gain), out=found[rows], casting="unsafe", dtype=np.float32)

        by_rows(h, READY_ROWS, work)
        return found

    planes = Planes(passes.basis, ready)
    kept = planes if size[0] * size[1] > LARGE_PX else dict(planes)
    maps, grounds = _maps(info, passes, window, size)
    if mirrored:
        maps, grounds = ({name: _mirrored(seen, size[0]) for name, seen in group.items()} for group in (maps, grounds))
    cover, shade, blur = (
        None if plane is None else cut(plane) for plane in (passes.cover, passes.shade, _blur(info, passes, scale))
    )
    return View(info, size, ready(passes.base), kept, maps, grounds, cover, shade, blur, scale, (x, y))


def _mirrored(seen: PrintMap, width: int) -> PrintMap:
    columns = slice(width - seen.columns.stop, width - seen.columns.start)
    u, v, far = (np.ascontiguousarray(plane[:, ::-1]) for plane in (1 - seen.u, seen.v, seen.far))
    near, last = seen.near, u.shape[1] - 1
    if near is not None:
        flip = [np.ascontiguousarray(plane[:, ::-1]) for plane in (1 - near.u, near.v, near.share)]
        near = replace(near, u=flip[0], v=flip[1], share=flip[2])
    grazing = tuple(replace(each, columns=last - each.columns, u=1 - each.u, du=-each.du) for each in seen.grazing)
    return replace(seen, columns=columns, u=u, v=v, far=far, near=near, grazing=grazing)


def _blur(info: SceneInfo, passes: Passes, scale: float) -> Floats | None:
    """The circle of confusion in px of a picture at that scale, by similar triangles behind a thin lens."""
    if info.lens is None or passes.depth is None:
        return None
    away = np.where(passes.depth > 0, passes.depth.astype(np.float32), np.float32(1e5))
    return np.asarray(2 * info.lens.open_cm * np.abs(away - info.lens.focus_cm) / away * info.lens.px_cm * scale, np.float32)
