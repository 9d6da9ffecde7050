"""Views: a scene at one picture size, cropped, scaled and exposed."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import Floats
from ..errors import SceneError
from .half_float import mapped, whole
from .maps import PrintMap, flipped, maps_of, placed, scaled
from .parallel import ONE_CORE, Cores
from .scene import Close, Passes, SceneInfo
from .tone import CODES, RANGE

LEAST_PX = 16
MAX_PICTURE_PX = 25_000_000
CLOSE_AIR = 1.3
DETAIL, DETAIL_SIDE = 0.42, 0.4
"""Size of a detail crop: a share of the crop that shows the whole print, and at least a share of the scene."""
READY_ROWS = 64
ENDLESS_CM = 1e5
LARGE_PX = 2_000_000
"""Most pixels of a preview; a larger picture is for a listing."""


Strips = Callable[[slice], Floats]
"""Computes some rows of a plane, few enough for a core's cache: (rows, w, 3)."""


class Planes(Mapping[str, Floats]):
    """Planes computed at each access: at listing size, all of them together would fill memory."""

    def __init__(
        self, passes: dict[str, Floats], ready: Callable[[Floats], Strips], size: tuple[int, int], cores: Cores
    ) -> None:
        self._passes, self._ready, self._size, self._cores = passes, ready, size, cores

    def strips(self, name: str) -> Strips:
        """A plane by rows, for what needs them only once."""
        return self._ready(self._passes[name])

    def __getitem__(self, name: str) -> Floats:
        return _put_together(self.strips(name), self._size, self._cores)

    def __iter__(self) -> Iterator[str]:
        return iter(self._passes)

    def __len__(self) -> int:
        return len(self._passes)


def _put_together(strips: Strips, size: tuple[int, int], cores: Cores) -> Floats:
    out = np.empty((size[1], size[0], 3), np.float32)
    cores.by_rows(size[1], READY_ROWS, lambda rows: np.copyto(out[rows], strips(rows)))
    return out


@dataclass(frozen=True)
class View:
    """Passes at one size, exposed and coded for the tone table, channels in B, G, R order.

    Attributes:
        basis: of each region; of large views made when asked for, see :class:`Planes`.
        grounds: maps of what can show a surface: tables, walls, cloth.
        cover, shade: as in :class:`Passes`, at this size.
        blur: diameter in px over which the lens spreads each point, (h, w); None where the pack does not say.
        scale: px of this picture in a px of the native one; ``corner`` is the window's corner in the native one.
        cores: what computes pictures of this view.
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
    cores: Cores = ONE_CORE

    def strips(self, name: str) -> Strips:
        """A region's basis by rows."""
        return self.basis.strips(name) if isinstance(self.basis, Planes) else self.basis[name].__getitem__


def crop_window(native: tuple[int, int], size: tuple[int, int]) -> tuple[int, int, int, int]:
    """Return the largest centred window (x, y, w, h) of a native picture with the proportions of ``size``."""
    w, h = native
    factor = min(w / size[0], h / size[1])
    cw, ch = max(1, round(size[0] * factor)), max(1, round(size[1] * factor))
    return (w - cw) // 2, (h - ch) // 2, cw, ch


def _prints(info: SceneInfo, passes: Passes) -> list[Floats]:
    """Return the maps of all prints of a scene at its native size."""
    return [placed(info, r, passes.maps) for r in info.regions if r.panel]


def close_window(info: SceneInfo, passes: Passes, size: tuple[int, int], detail: bool = False) -> tuple[int, int, int, int]:
    """Return the window (x, y, w, h) with the proportions of ``size`` that shows the print large, with some margin; for a
    ``detail``, its middle at the scene's native pixels."""
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


def make_view(
    info: SceneInfo,
    passes: Passes,
    size: tuple[int, int],
    close: Close = "",
    mirrored: bool = False,
    cores: Cores = ONE_CORE,
) -> View:
    """Crop and scale a scene to a picture size; ``close`` shows the print large, or a part of it, instead of the whole scene.

    ``mirrored`` shows the scene the other way round, its prints still the right way: the same blank lit from the other
    side.

    Raises:
        SceneError: the size is empty, too large, or leaves nothing of the print.
    """
    if min(size) < LEAST_PX or size[0] * size[1] > MAX_PICTURE_PX:
        raise SceneError(f"A picture of {size[0]} × {size[1]} px cannot be made: 16 px a side to 25 megapixels.")
    x, y, w, h = close_window(info, passes, size, close == "detail") if close else crop_window(info.px, size)
    window = slice(y, y + h), slice(x, x + w)
    gain = info.exposure * CODES / RANGE
    scale = size[0] / w

    def cut(plane: Floats) -> Floats:
        part = scaled(plane[window], size, cores)
        return cv2.flip(part, 1) if mirrored else part  # type: ignore[return-value]

    def ready(plane: Floats) -> Strips:
        own = plane[window] if (w, h) == size else scaled(plane[window], size, cores)

        def strip(rows: slice) -> Floats:
            light = cv2.cvtColor(whole(own[rows], gain), cv2.COLOR_RGB2BGR)
            return np.asarray(cv2.flip(light, 1) if mirrored else light, np.float32)

        return strip

    planes = Planes(passes.basis, ready, size, cores)
    cached_planes = planes if size[0] * size[1] > LARGE_PX else dict(planes)
    cover, shade, blur = (
        None if plane is None else cut(plane) for plane in (passes.cover, passes.shade, _blur(info, passes, scale, cores))
    )
    maps, grounds = maps_of(info, passes, window, size, cover[:, ::-1] if mirrored and cover is not None else cover)
    if mirrored:
        maps, grounds = ({name: flipped(seen, size[0]) for name, seen in group.items()} for group in (maps, grounds))
    base = _put_together(ready(passes.base), size, cores)
    return View(info, size, base, cached_planes, maps, grounds, cover, shade, blur, scale, (x, y), cores)


def _blur(info: SceneInfo, passes: Passes, scale: float, cores: Cores) -> Floats | None:
    """Return the circle of confusion in px of a picture at a scale; places without depth count as infinitely far."""
    if info.lens is None or passes.depth is None:
        return None
    lens = info.lens
    return mapped(
        passes.depth,
        lambda depth: lens.disc_px(np.where(depth > 0, depth, np.float32(ENDLESS_CM))) * np.float32(scale),
        cores,
    )
