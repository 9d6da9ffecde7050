"""Proxies and views kept ready in memory, so that a hand on the page is answered at once."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.mockup.composite import Lit, light_plain_parts
from ..core.mockup.scene import Close, Passes, SceneInfo
from ..core.mockup.view import LARGE_PX, View, make_view
from ..scenes import QUICK, fingerprint, open_scene, serves
from ..surfaces import surface
from .room import Kept, Room, megabytes

Colours = dict[str, str | None]
QUICK_MB, VIEWS_MB, LIT_MB, PROXIES_MB, LISTING_MB = 120.0, 30.0, 100.0, 40.0, 300.0
"""Room for quick passes, for what the page looks at, for artworks, and for one scene at its native size. The least recently used
goes first. With the program itself and a listing picture under way this keeps below 1.5 GB."""

DRAWN_AT_ONCE = 2
"""Drawing takes a core for a second and some memory: no more at a time than a small machine has cores."""


@dataclass(frozen=True)
class Cut:
    """The contour of a cut-out, which a drawn scene needs, and a key that tells it from others."""

    key: str
    make: Callable[[], NDArray[np.bool_]]


class Darkroom:
    """Everything a picture needs, ready: passes, views, views with their parts coloured, proxies; each within its room."""

    def __init__(self) -> None:
        self._quick_room, self._listing_room = Room(QUICK_MB, megabytes), Room(LISTING_MB, megabytes)
        proxies = Room(PROXIES_MB, megabytes)
        self._quick: Kept[tuple[SceneInfo, Passes]] = Kept(self._quick_room)
        self._whole: Kept[tuple[SceneInfo, Passes]] = Kept(self._listing_room)
        self._views: Kept[View] = Kept(Room(VIEWS_MB, megabytes))
        self._lit: Kept[Lit] = Kept(Room(LIT_MB, megabytes))
        self._large: Kept[Lit] = Kept(self._listing_room)
        self._proxies: Kept[Artwork] = Kept(proxies)
        self._small: Kept[Artwork] = Kept(proxies)
        self._drawing = threading.Semaphore(DRAWN_AT_ONCE)

    def _open(self, info: SceneInfo, size: tuple[int, int], cut: Cut | None) -> tuple[SceneInfo, Passes]:
        if info.drawn is not None:  # drawn anew quicker than it is worth keeping
            with self._drawing:
                return open_scene(info, size, cut.make() if cut else None)
        if serves(info, size, QUICK):
            return self._quick.get(fingerprint(info), lambda: open_scene(info, size))

        def whole() -> tuple[SceneInfo, Passes]:
            self._quick_room.empty()  # the largest scenes need its room while they are opened
            return open_scene(info, size)

        return self._whole.get(fingerprint(info), whole, LISTING_MB)

    def _view(self, info: SceneInfo, size: tuple[int, int], close: Close, mirrored: bool, cut: Cut | None) -> View:
        asked = (size[0] * 2, size[1] * 2) if close else size  # a close picture shows half of the scene
        return make_view(*self._open(info, asked, cut), size, close, mirrored)

    def view(self, info: SceneInfo, size: tuple[int, int], close: Close = "", mirrored: bool = False, cut: Cut | None = None
             ) -> View:  # fmt: skip
        """A scene at a picture size, ``close`` for the print large or a part of it. Raises :class:`BadScene`."""
        if size[0] * size[1] > LARGE_PX:
            return self._view(info, size, close, mirrored, cut)
        key = (fingerprint(info), cut.key if cut else None, size, close, mirrored)
        return self._views.get(key, lambda: self._view(info, size, close, mirrored, cut))

    def lit(self, info: SceneInfo, size: tuple[int, int], colours: Colours, close: Close = "", mirrored: bool = False,
            cut: Cut | None = None) -> Lit:  # fmt: skip
        """A view with its plain parts coloured; colours of parts that this scene lacks are passed over."""
        own = {r.id: colours[r.id] for r in info.regions if r.id in colours}
        parts = tuple(sorted((k, v or "") for k, v in own.items()))
        key = (fingerprint(info), cut.key if cut else None, size, close, mirrored, parts)
        large = size[0] * size[1] > LARGE_PX
        kept = self._large if large else self._lit
        return kept.get(key, lambda: light_plain_parts(self.view(info, size, close, mirrored, cut), own, surface, spent=large))

    def proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """An artwork's proxy. Raises :class:`BadArtwork` if it does not decode."""
        return self._proxies.get(sha256, lambda: open_art().proxy())

    def small_proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """A proxy of half the size, for art that is not looked at closely."""
        return self._small.get(sha256, lambda: self.proxy(sha256, open_art).proxy(PROXY_PX // 2))
