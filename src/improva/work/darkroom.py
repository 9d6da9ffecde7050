"""Proxies and views kept ready in memory, so that a hand on the page is answered at once."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, fields, is_dataclass
from typing import Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.mockup.composite import Lit, light_plain_parts
from ..core.mockup.scene import Passes, SceneInfo
from ..core.mockup.view import LARGE_PX, View, make_view
from ..scenes import QUICK, fingerprint, open_scene, serves
from ..surfaces import surface

T = TypeVar("T")
Colours = dict[str, str | None]
QUICK_MB, VIEWS_MB, LIT_MB = 160.0, 100.0, 80.0
"""Room for quick passes, and for what the page looks at. Of passes at native size, one scene's are kept."""

DRAWN_AT_ONCE = 2
"""Drawing takes a core for a second and some memory: no more at a time than a small machine has cores."""


class Kept(Generic[T]):
    """The last results of a costly function, made once each even when asked for by several threads.

    ``room`` is how much is kept, in whatever ``weigh`` counts: results by default. The least recently used goes first;
    with no ``room`` at all one is kept, and let go before the next is made.
    """

    def __init__(self, room: float, weigh: Callable[[T], float] = lambda _: 1) -> None:
        self._room, self._weigh = room, weigh
        self._values: OrderedDict[object, tuple[T, float]] = OrderedDict()
        self._lock = threading.Lock()
        self._making: dict[object, threading.Lock] = {}

    def get(self, key: object, make: Callable[[], T]) -> T:
        """The value kept under ``key``, made now if it is not there."""
        with self._lock:
            if key in self._values:
                self._values.move_to_end(key)
                return self._values[key][0]
            making = self._making.setdefault(key, threading.Lock())
        with making:
            with self._lock:
                if key in self._values:
                    return self._values[key][0]
                if not self._room:
                    self._values.clear()
            try:
                value = make()
            finally:
                with self._lock:
                    self._making.pop(key, None)
            with self._lock:
                self._values[key] = value, self._weigh(value)
                while len(self._values) > 1 and sum(weight for _, weight in self._values.values()) > self._room:
                    self._values.popitem(last=False)
            return value


def megabytes(thing: object) -> float:
    """What the arrays in a dataclass hold, in MB."""
    if isinstance(thing, np.ndarray):
        return thing.nbytes / 1e6
    if isinstance(thing, dict):
        return sum(megabytes(v) for v in thing.values())
    if isinstance(thing, tuple):
        return sum(megabytes(v) for v in thing)
    if is_dataclass(thing):
        return sum(megabytes(getattr(thing, f.name)) for f in fields(thing))
    return 0.0


@dataclass(frozen=True)
class Cut:
    """The contour of a cut-out, which a drawn scene needs, and a key that tells it from others."""

    key: str
    make: Callable[[], NDArray[np.bool_]]


class Darkroom:
    """Everything a picture needs, ready: passes, views, views with their parts coloured, proxies; each within its room."""

    def __init__(self) -> None:
        self._whole: Kept[tuple[SceneInfo, Passes]] = Kept(0)
        self._quick: Kept[tuple[SceneInfo, Passes]] = Kept(QUICK_MB, megabytes)
        self._views: Kept[View] = Kept(VIEWS_MB, megabytes)
        self._lit: Kept[Lit] = Kept(LIT_MB, megabytes)
        self._large: Kept[Lit] = Kept(0)
        self._proxies: Kept[Artwork] = Kept(48)
        self._small: Kept[Artwork] = Kept(96)
        self._drawing = threading.Semaphore(DRAWN_AT_ONCE)

    def _open(self, info: SceneInfo, size: tuple[int, int], cut: Cut | None) -> tuple[SceneInfo, Passes]:
        if info.drawn is not None:  # drawn anew quicker than it is worth keeping
            with self._drawing:
                return open_scene(info, size, cut.make() if cut else None)
        kept = self._quick if serves(info, size, QUICK) else self._whole
        return kept.get(fingerprint(info), lambda: open_scene(info, size))

    def _view(self, info: SceneInfo, size: tuple[int, int], close: bool, mirrored: bool, cut: Cut | None) -> View:
        asked = (size[0] * 2, size[1] * 2) if close else size  # a close picture shows half of the scene
        return make_view(*self._open(info, asked, cut), size, close, mirrored)

    def view(self, info: SceneInfo, size: tuple[int, int], close: bool = False, mirrored: bool = False, cut: Cut | None = None
             ) -> View:  # fmt: skip
        """A scene at a picture size, ``close`` for the print large. Raises :class:`BadScene`."""
        if size[0] * size[1] > LARGE_PX:
            return self._view(info, size, close, mirrored, cut)
        key = (fingerprint(info), cut.key if cut else None, size, close, mirrored)
        return self._views.get(key, lambda: self._view(info, size, close, mirrored, cut))

    def lit(self, info: SceneInfo, size: tuple[int, int], colours: Colours, close: bool = False, mirrored: bool = False,
            cut: Cut | None = None) -> Lit:  # fmt: skip
        """A view with its plain parts coloured; colours of parts that this scene lacks are passed over."""
        own = {r.id: colours[r.id] for r in info.regions if r.id in colours}
        parts = tuple(sorted((k, v or "") for k, v in own.items()))
        key = (fingerprint(info), cut.key if cut else None, size, close, mirrored, parts)
        kept = self._large if size[0] * size[1] > LARGE_PX else self._lit
        return kept.get(key, lambda: light_plain_parts(self.view(info, size, close, mirrored, cut), own, surface))

    def proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """An artwork's proxy. Raises :class:`BadArtwork` if it does not decode."""
        return self._proxies.get(sha256, lambda: open_art().proxy())

    def small_proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """A proxy of half the size, for art that is not looked at closely."""
        return self._small.get(sha256, lambda: self.proxy(sha256, open_art).proxy(PROXY_PX // 2))
