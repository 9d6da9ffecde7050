"""Proxies and views kept ready in memory, so that a hand on the page is answered at once."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Generic, TypeVar

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.mockup.composite import Lit, light_plain_parts
from ..core.mockup.pack import Passes, read_passes
from ..core.mockup.view import View, make_view
from ..scenes import scene

T = TypeVar("T")
Colours = dict[str, str | None]


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
            value = make()
            with self._lock:
                self._values[key] = value
                self._making.pop(key, None)
                while len(self._values) > self._room:
                    self._values.popitem(last=False)
            return value


def _is_large(size: tuple[int, int]) -> bool:
    """Listing pictures take some 70 MB a pass: one such view is kept, several of those for the page."""
    return size[0] * size[1] > 2_000_000


class Darkroom:
    """Everything a picture needs, ready: passes (some 200 MB a scene at native size), views, proxies."""

    def __init__(self) -> None:
        self._passes: Kept[Passes] = Kept(2)
        self._views: dict[bool, Kept[View]] = {False: Kept(8), True: Kept(1)}
        self._lit: dict[bool, Kept[Lit]] = {False: Kept(12), True: Kept(1)}
        self._proxies: Kept[Artwork] = Kept(48)
        self._small: Kept[Artwork] = Kept(96)

    def view(self, scene_id: str, size: tuple[int, int], close: bool = False) -> View:
        """A scene at a picture size, ``close`` for the print large. Raises :class:`BadScene`."""
        info = scene(scene_id)
        return self._views[_is_large(size)].get(
            (scene_id, size, close),
            lambda: make_view(info, self._passes.get(scene_id, lambda: read_passes(info)), size, close),
        )

    def lit(self, scene_id: str, size: tuple[int, int], colours: Colours, close: bool = False) -> Lit:
        """A view with its plain parts coloured. Raises :class:`BadScene`."""
        key = (scene_id, size, close, tuple(sorted((k, v or "") for k, v in colours.items())))
        return self._lit[_is_large(size)].get(key, lambda: light_plain_parts(self.view(scene_id, size, close), colours))

    def proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """An artwork's proxy. Raises :class:`BadArtwork` if it does not decode."""
        return self._proxies.get(sha256, lambda: open_art().proxy())

    def small_proxy(self, sha256: str, open_art: Callable[[], Artwork]) -> Artwork:
        """A proxy of half the size, for art that is not looked at closely."""
        return self._small.get(sha256, lambda: self.proxy(sha256, open_art).proxy(PROXY_PX // 2))
