"""Preparations of artworks: previews on a small copy, stored ones on the whole picture."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import Any, Protocol

from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.artwork.traits import find_traits
from ..core.errors import StepError
from ..core.preparation import Picture, Preparation, Step, after_step, artwork_of, first_picture, picture_of, prepare, shown
from ..core.preparation.border import find_necks
from ..core.preparation.palette import palette
from ..core.preparation.specks import find_specks
from ..stages import versions
from ..store import ArtRow, Preparations, PreparedRow
from ..store.database import key_of
from .cache import Memo, SizedLru

MOST_SPECK_MM = 5.0
NECK_MM = 6.0
"""Parts of a cut-out thinner than this crumple when they are sewn. Common practice, no published source; value from memory."""


def report_of(picture: Picture) -> dict[str, Any]:
    """Return the report on a prepared picture as plain values."""
    h, w = picture.pixels.shape[:2]
    return {
        "px": [round(w / picture.reduced), round(h / picture.reduced)],
        "size_mm": list(picture.size_mm),
        "enlarged": picture.enlarged,
        "notes": list(picture.notes),
        "has_alpha": int(picture.alpha.min()) < 255,
        "palette": [asdict(swatch) for swatch in palette(picture)],
        "specks": [asdict(spot) for spot in find_specks(picture, MOST_SPECK_MM)],
        "necks": [asdict(neck) for neck in find_necks(picture, NECK_MM)],
    }


class Originals(Protocol):
    """Where artworks' pixels come from."""

    def open(self, art: ArtRow) -> Artwork:
        """Open the file of an artwork."""

    def proxy(self, art: ArtRow) -> Artwork:
        """Return its proxy."""

    def small_proxy(self, art: ArtRow) -> Artwork:
        """Return a proxy of half the size."""

    def keep_proxy(self, sha256: str, proxy: Artwork) -> None:
        """Keep the proxy of a picture that was just made."""


class PreparedArtworks:
    """The preparations of one data folder, with a cache of small copies after each step."""

    def __init__(self, preparations: Preparations, originals: Originals) -> None:
        self._stored, self._originals = preparations, originals
        self._small: Memo[Picture] = Memo(SizedLru(10))
        self._prepared: Memo[PreparedRow] = Memo(SizedLru(1000))
        self._palettes: Memo[list[str]] = Memo(SizedLru(1000))

    def _key(self, row: ArtRow, preparation: Preparation) -> str:
        active = replace(preparation, steps=preparation.active)
        return key_of("prepared", versions("artwork", "preparation", "render"), row.sha256, active.as_dict())

    def key(self, row: ArtRow) -> str:
        """Return the key of the result of an artwork's preparation."""
        return self._key(row, row.preparation)

    def preview(self, row: ArtRow, preparation: Preparation) -> Picture:
        """Return a small copy of an original after the active steps. Raises :class:`StepError`."""
        steps = preparation.active
        first = replace(preparation, steps=())
        return self._after(row, first, steps, len(steps))

    def _after(self, row: ArtRow, first: Preparation, steps: tuple[Step, ...], count: int) -> Picture:
        def make() -> Picture:
            if count == 0:
                return first_picture(self._originals.proxy(row), first, PROXY_PX)
            return after_step(self._after(row, first, steps, count - 1), steps, count - 1)

        return self._small.get(self._key(row, replace(first, steps=steps[:count])), make)

    def make(self, row: ArtRow, preparation: Preparation) -> PreparedRow:
        """Return the whole picture after the active steps, made once and stored.

        Raises:
            ArtworkError, StepError: it does not decode, or a step cannot be taken.
        """
        key = self._key(row, preparation)

        def find() -> PreparedRow:
            stored = self._stored.prepared(key)
            if stored is not None:
                return stored
            original = self._originals.open(row)
            picture = prepare(original, preparation)
            art = artwork_of(picture, original.facts)
            proxy = Artwork(b"", art.facts, shown(picture, PROXY_PX).copy_memory())
            prepared = self._stored.keep(key, art, find_traits(proxy), report_of(picture))
            self._originals.keep_proxy(prepared.sha256, proxy)
            return prepared

        return self._prepared.get(key, find)

    def palette(self, row: ArtRow) -> list[str]:
        """Return the main colours of a prepared artwork, the largest first."""

        def find() -> list[str]:
            proxy = self._originals.small_proxy(row)
            return [swatch.colour for swatch in palette(picture_of(proxy.image(), 1.0))]

        return self._palettes.get(row.sha256, find)

    def prepared(self, row: ArtRow) -> ArtRow:
        """Return the prepared artwork, or the original where no step is active."""
        if not row.preparation.active:
            return row
        try:
            picture = self.make(row, row.preparation)
        except StepError as problem:  # steps of an older version: report them and lose nothing
            note = f"Its preparation cannot be carried out, so the artwork is shown as imported: {problem}"
            return replace(row, facts=replace(row.facts, notes=(*row.facts.notes, note)))
        return replace(row, sha256=picture.sha256, facts=picture.facts, traits=picture.traits)
