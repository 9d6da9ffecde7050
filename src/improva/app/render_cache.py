"""Proxies and views in memory, so that previews follow edits without delay."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.mockup.composite import ShadedView, shade_plain_parts
from ..core.mockup.parallel import ThreadedCores
from ..core.mockup.scene import Close, Passes, SceneInfo
from ..core.mockup.view import LARGE_PX, View, make_view
from ..surfaces import surface
from .cache import MB, Memo, SizedLru, size_of
from .scenes import QUICK, fingerprint, open_scene, serves

Colours = dict[str, str | None]
QUICK_SIZE, VIEWS_SIZE, SHADED_SIZE, PROXIES_SIZE, LISTING_SIZE = 110 * MB, 30 * MB, 70 * MB, 40 * MB, 300 * MB
"""Capacities for quick passes, for views of previews, for artworks, and for one scene at its native size. With the program
itself and a listing picture being made this stays below 1.5 GB."""

DRAWN_AT_ONCE = 2
"""Scenes drawn at a time: each takes a core for a second and some memory, so no more than a small machine has cores."""


@dataclass(frozen=True)
class Contour:
    """The cut contour that a drawn scene needs, and its hash."""

    key: str
    make: Callable[[], NDArray[np.bool_]]


class RenderCache:
    """The passes, views, shaded views and proxies that mock-ups need, in memory, each kind within its capacity."""

    def __init__(self) -> None:
        self.cores = ThreadedCores()
        self._quick_storage, self._listing_storage = SizedLru(QUICK_SIZE, size_of), SizedLru(LISTING_SIZE, size_of)
        proxies = SizedLru(PROXIES_SIZE, size_of)
        self._quick: Memo[tuple[SceneInfo, Passes]] = Memo(self._quick_storage)
        self._whole: Memo[tuple[SceneInfo, Passes]] = Memo(self._listing_storage)
        self._views: Memo[View] = Memo(SizedLru(VIEWS_SIZE, size_of))
        self._shaded: Memo[ShadedView] = Memo(SizedLru(SHADED_SIZE, size_of))
        self._large: Memo[ShadedView] = Memo(self._listing_storage)
        self._proxies: Memo[Artwork] = Memo(proxies)
        self._small: Memo[Artwork] = Memo(proxies)
        self._drawing = threading.Semaphore(DRAWN_AT_ONCE)

    def _open(self, info: SceneInfo, size: tuple[int, int], contour: Contour | None) -> tuple[SceneInfo, Passes]:
        if info.drawn is not None:  # drawing it again is cheaper than storing it
            with self._drawing:
                return open_scene(info, size, contour.make() if contour else None, self.cores)
        if serves(info, size, QUICK):
            return self._quick.get(fingerprint(info), lambda: open_scene(info, size, cores=self.cores))

        def whole() -> tuple[SceneInfo, Passes]:
            self._quick_storage.clear()  # opening the largest scenes needs this memory
            return open_scene(info, size, cores=self.cores)

        return self._whole.get(fingerprint(info), whole, LISTING_SIZE)

    def _view(self, info: SceneInfo, size: tuple[int, int], close: Close, mirrored: bool, contour: Contour | None) -> View:
        view_size = (size[0] * 2, size[1] * 2) if close else size  # a close picture shows half of the scene
        return make_view(*self._open(info, view_size, contour), size, close, mirrored, self.cores)

    def view(
        self, info: SceneInfo, size: tuple[int, int], close: Close = "", mirrored: bool = False, contour: Contour | None = None
    ) -> View:
        """Return a scene at a picture size; ``close`` names a close-up. Raises :class:`SceneError`."""
        if size[0] * size[1] > LARGE_PX:
            return self._view(info, size, close, mirrored, contour)
        key = (fingerprint(info), contour.key if contour else None, size, close, mirrored)
        return self._views.get(key, lambda: self._view(info, size, close, mirrored, contour))

    def shaded_view(
        self,
        info: SceneInfo,
        size: tuple[int, int],
        colours: Colours,
        close: Close = "",
        mirrored: bool = False,
        contour: Contour | None = None,
    ) -> ShadedView:
        """Return a view with its plain parts coloured and lit; colours of parts that this scene lacks are ignored.

        Raises:
            SceneError: the scene's pack is damaged, or a colour is not one of the part's.
        """
        own = {r.id: colours[r.id] for r in info.regions if r.id in colours}
        parts = tuple(sorted((k, v or "") for k, v in own.items()))
        key = (fingerprint(info), contour.key if contour else None, size, close, mirrored, parts)
        large = size[0] * size[1] > LARGE_PX
        cache = self._large if large else self._shaded
        return cache.get(
            key, lambda: shade_plain_parts(self.view(info, size, close, mirrored, contour), own, surface, spent=large)
        )

    def proxy(self, sha256: str, make: Callable[[], Artwork]) -> Artwork:
        """Return an artwork's proxy, made once. Raises what ``make`` raises."""
        return self._proxies.get(sha256, make)

    def small_proxy(self, sha256: str, proxy: Callable[[], Artwork]) -> Artwork:
        """Return a proxy of half the size, for small previews."""
        return self._small.get(sha256, lambda: proxy().proxy(PROXY_PX // 2))
