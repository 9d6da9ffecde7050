"""Fonts for text on blanks and pictures: the shipped ones and the seller's own."""

from __future__ import annotations

from ..fonts import font_bytes
from ..store import Store


class FontLibrary:
    """The fonts of one data folder."""

    def __init__(self, store: Store) -> None:
        self._store = store

    def data(self, key: str) -> bytes:
        """Return a font's file by its key.

        Raises:
            FontError: there is no such font.
        """
        return self._store.fonts.data(key) or font_bytes(key)
