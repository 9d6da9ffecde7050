"""Artworks as the seller imported them, and as their preparation leaves them."""

from __future__ import annotations

import sqlite3
from contextlib import suppress
from dataclasses import replace
from pathlib import PurePosixPath

from ..core.artwork.pixels import Artwork, packed_proxy, unpacked_proxy
from ..core.artwork.traits import find_traits
from ..core.errors import ArtworkError, DiskFullError
from ..sandbox import Reader
from ..stages import versions
from ..store import ArtRow, Store
from ..store.database import key_of
from .errors import NotFoundError
from .foreign_files import read_artwork, read_proxy
from .preparations import PreparedArtworks
from .render_cache import RenderCache


class ArtworkLibrary:
    """The artworks of one data folder."""

    def __init__(self, store: Store, render_cache: RenderCache, reader: Reader) -> None:
        self._store, self._render_cache, self._reader = store, render_cache, reader
        self.preparations = PreparedArtworks(store.preparations, self)

    def imported(self, artwork_id: int) -> ArtRow:
        """Return an artwork as imported, before any preparation.

        Raises:
            NotFoundError: there is no such artwork.
        """
        row = self._store.artworks.get(artwork_id)
        if row is None:
            raise NotFoundError("This artwork is not on the board: go back and choose another.")
        return self._with_traits(row)

    def get(self, artwork_id: int) -> ArtRow:
        """Return an artwork as it is placed on blanks: prepared.

        Raises:
            NotFoundError: there is no such artwork.
        """
        return self.preparations.prepared(self.imported(artwork_id))

    def all(self) -> list[ArtRow]:
        """Return every artwork on the board, prepared; one whose preparation finds no room on the disk as imported."""
        return [self._prepared_if_there_is_room(self._with_traits(row)) for row in self._store.artworks.all()]

    def _prepared_if_there_is_room(self, row: ArtRow) -> ArtRow:
        try:
            return self.preparations.prepared(row)
        except DiskFullError as problem:
            return replace(row, facts=replace(row.facts, notes=(*row.facts.notes, f"Shown as imported. {problem}")))

    def _with_traits(self, row: ArtRow) -> ArtRow:
        """Return an artwork with its traits, measuring one that an earlier version stored without them."""
        if row.traits is None:
            traits = find_traits(self.proxy(row))
            with suppress(sqlite3.OperationalError):  # a full disk hides no artwork
                self._store.artworks.set_traits(row.id, traits)
            row = replace(row, traits=traits)
        return row

    def add(self, file_name: str | None, data: bytes, aside: bool = False) -> ArtRow:
        """Store an artwork file. It is decoded whole first, so a damaged file is refused at once.

        Args:
            file_name: as a browser sends it; its last part becomes name and first title.
            data: the file.
            aside: keep it off the board: a photograph for a frame.

        Raises:
            ArtworkError: the file is no image that can be read.
            LimitError: it takes too much to open.
        """
        name = plain_name(file_name)
        found = read_artwork(self._reader, data)
        row = self._store.artworks.add(title_of(name), name, found.art, found.traits, aside)
        self.keep_proxy(row.sha256, found.proxy)
        return row

    def open(self, art: ArtRow) -> Artwork:
        """Open the file of an artwork's row: the imported or the prepared one."""
        return self._store.artworks.open(art)

    def proxy(self, art: ArtRow) -> Artwork:
        """Return the artwork's proxy, a reduced copy for previews and checks."""
        return self._render_cache.proxy(art.sha256, lambda: self._stored_proxy(art))

    def _stored_proxy(self, art: ArtRow) -> Artwork:
        """Return the proxy from the data folder's cache, ten times as fast as from the artwork; or make and store it."""
        cache, name = self._store.database.cache, f"{key_of('proxy', versions('artwork'), art.sha256)}.png"
        if (stored := cache.read(name)) is not None:
            with suppress(ArtworkError):  # a file damaged on the disk is made again
                return unpacked_proxy(stored, art.facts)
        proxy = read_proxy(self._reader, self.open(art))
        cache.keep(name, packed_proxy(proxy))
        return proxy

    def small_proxy(self, art: ArtRow) -> Artwork:
        """Return a proxy of half the size."""
        return self._render_cache.small_proxy(art.sha256, lambda: self.proxy(art))

    def keep_proxy(self, sha256: str, proxy: Artwork) -> None:
        """Keep the proxy of a picture that was just read or made."""
        self._render_cache.proxy(sha256, lambda: proxy)


def plain_name(file_name: str | None) -> str:
    """Return the last part of a file name as a browser sends it, without control characters."""
    last = PurePosixPath((file_name or "").replace("\\", "/")).name
    return "".join(c for c in last if c.isprintable())[:200] or "artwork"


def title_of(file_name: str) -> str:
    """Return a title made from a file name: no extension, spaces for underscores and hyphens."""
    stem = PurePosixPath(file_name).stem.replace("_", " ").replace("-", " ").strip() or "Artwork"
    return (stem[0].upper() + stem[1:])[:120]
