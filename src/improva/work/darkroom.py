"""Proxies and views kept ready in memory, so that a hand on the page is answered at once."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from contextlib import nullcontext
from dataclasses import dataclass
from typing import Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.mockup.composite import Lit, light_plain_parts
from ..core.mockup.pack import Passes, SceneInfo
from ..core.mockup.view import View, make_view
from ..scenes import fingerprint, open_scene

T = TypeVar("T")
Colours = dict[str, str | None]
DRAWN_AT_ONCE = 2
"""Drawing takes a core for a second and some memory: no more at a time than a small machine has cores."""


class Kept(Generic[T]):
    """The last few results of a costly function, made once each even when asked for by several threads."""

    def __init__(self, room: int) -> None:
        self._room = room
        self._values: OrderedDict[object, T] = OrderedDict()
        self._lock = threading.Lock()
        self._making: dict[object, threading.Lock] = {}

    def get(self, key: object, make: Callable[[], T]) -> T:
        """The value kept under ``key``, made now if it is not there."""
        with self._lock:
            if key in self._values:
                self._values.move_to_end(key)
                return self._values[key]
            making = self._making.setdefault(key, threading.Lock())
        with making:
            with self._lock:
                if key in self._values:
                    return self._values[key]
            try:
                value = make()
            finally:
                with self._lock:
                    self._making.pop(key, None)
            with self._lock:
                self._values[key] = value
                while len(self._values) > self._room:
                    self._values.popitem(last=False)
            return value


def _is_large(size: tuple[int, int]) -> bool:
    """Listing pictures take some 70 MB a pass: one such view is kept, several of those for the page."""
    return size[0] * size[1] > 2_000_000


@dataclass(frozen=True)
class Cut:
    """The contour of a cut-out, which a drawn scene needs, and a key that tells it from others."""

    key: str
    make: Callable[[], NDArray[np.bool_]]


class Darkroom:
    """Everything a picture needs, ready: passes (some 200 MB a baked scene at native size), views, proxies."""

    def __init__(self) -> None:
        self._passes: Kept[tuple[SceneInfo, Passes]] = Kept(2)
        self._views: dict[bool, Kept[View]] = {False: Kept(32), True: Kept(1)}
        self._lit: dict[bool, Kept[Lit]] = {False: Kept(32), True: Kept(1)}
        self._proxies: Kept[Artwork] = Kept(48)
        self._small: Kept[Artwork] = Kept(96)
        self._drawing = threading.Semaphore(DRAWN_AT_ONCE)

    def _open(self, info: SceneInfo, size: tuple[int, int], cut: Cut | None) -> tuple[SceneInfo, Passes]:
        with self._drawing if info.drawn else nullcontext():
            return open_scene(info, size, cut.make() if cut else None)

    def view(self, info: SceneInfo, size: tuple[int, int], close: bool = False, cut: Cut | None = None) -> View:
        """A scene at a picture size, ``close`` for the print large. Raises :class:`BadScene`."""
        key = (fingerprint(info), cut.key if cut else None)

        def make() -> View:
            keep = info.drawn is None
            found = self._passes.get(key, lambda: self._open(info, size, cut)) if keep else self._open(info, size, cut)
            return make_view(*found, size, close)

        return self._views[_is_large(size)].get((key, size, close), make)

    def lit(self, info: SceneInfo, size: tuple[int, int], colours: Colours, close: bool = False, cut: Cut | None = None) -> Lit:
        """A view with its plain parts coloured; colours of parts that this scene lacks are passed over."""
        own = {r.id: colours[r.id] for r in info.regions if r.id in colours}
        key = (fingerprint(info), cut.key if cut else None, size, close, tuple(sorted((k, v or "") for k, v in own.items())))
        return self._lit[_is_large(size)].get(key, lambda: light_plain_parts(self.view(info, size, close, cut), own))

    def proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """An artwork's proxy. Raises :class:`BadArtwork` if it does not decode."""
        return self._proxies.get(sha256, lambda: open_art().proxy())

    def small_proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """A proxy of half the size, for art that is not looked at closely."""
        return self._small.get(sha256, lambda: self.proxy(sha256, open_art).proxy(PROXY_PX // 2))
