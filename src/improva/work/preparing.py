"""Preparations carried out: held ones at once on a small copy, decided ones on the whole picture and kept."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict, replace
from typing import Any

from .. import __version__
from ..core.artwork.pixels import PROXY_PX, Artwork
from ..core.artwork.traits import find_traits
from ..core.errors import BadStep
from ..core.prepare import (
    Picture,
    Preparation,
    Step,
    after_step,
    artwork_of,
    first_picture,
    picture_of,
    prepare,
    shown,
)
from ..core.prepare.border import find_necks
from ..core.prepare.palette import palette
from ..core.prepare.specks import find_specks
from ..store import ArtRow, Preparations, PreparedRow
from ..store.database import key_of
from .darkroom import Darkroom
from .room import Kept, Room

MOST_SPECK_MM = 5.0
NECK_MM = 6.0
"""Parts of a cut-out thinner than this crumple when it is sewn. Common practice, no published source; the figure is from memory."""


def report_of(picture: Picture) -> dict[str, Any]:
    """What is found on a prepared picture, as plain values."""
    h, w = picture.pixels.shape[:2]
    return {
        "px": [round(w / picture.reduced), round(h / picture.reduced)], "size_mm": list(picture.size_mm), "enlarged": picture.enlarged, "notes": list(picture.notes),
        "has_alpha": int(picture.alpha.min()) < 255,
        "palette": [asdict(swatch) for swatch in palette(picture)],
        "specks": [asdict(spot) for spot in find_specks(picture, MOST_SPECK_MM)],
        "necks": [asdict(neck) for neck in find_necks(picture, NECK_MM)],
    }  # fmt: skip


class Preparing:
    """The preparations of one data folder, with small copies after each step kept ready."""

    def __init__(self, preparations: Preparations, darkroom: Darkroom, open_art: Callable[[ArtRow], Artwork]) -> None:
        self._kept, self._darkroom, self._open = preparations, darkroom, open_art
        self._small: Kept[Picture] = Kept(Room(10))
        self._made: Kept[PreparedRow] = Kept(Room(1000))
        self._palettes: Kept[list[str]] = Kept(Room(1000))

    def _key(self, row: ArtRow, preparation: Preparation) -> str:
        active = replace(preparation, steps=preparation.active)
        return key_of("prepared", __version__, row.sha256, active.as_dict())

    def key(self, row: ArtRow) -> str:
        """The key under which what comes of an artwork's preparation is kept."""
        return self._key(row, row.preparation)

    def held(self, row: ArtRow, preparation: Preparation) -> Picture:
        """A small copy of an original after the steps that are on. Raises :class:`BadStep`."""
        steps = preparation.active
        first = replace(preparation, steps=())
        return self._after(row, first, steps, len(steps))

    def _after(self, row: ArtRow, first: Preparation, steps: tuple[Step, ...], count: int) -> Picture:
        def make() -> Picture:
            if count == 0:
                return first_picture(self._darkroom.proxy(row.sha256, lambda: self._open(row)), first, PROXY_PX)
            return after_step(self._after(row, first, steps, count - 1), steps, count - 1)

        return self._small.get(self._key(row, replace(first, steps=steps[:count])), make)

    def make(self, row: ArtRow, preparation: Preparation) -> PreparedRow:
        """The whole picture after the steps that are on, made once and kept for good.

        Raises:
            BadArtwork, BadStep: it does not decode, or a step cannot be taken.
        """
        key = self._key(row, preparation)

        def find() -> PreparedRow:
            kept = self._kept.prepared(key)
            if kept is not None:
                return kept
            original = self._open(row)
            picture = prepare(original, preparation)
            art = artwork_of(picture, original.facts)
            proxy = Artwork(b"", art.facts, shown(picture, PROXY_PX).copy_memory())
            made = self._kept.keep(key, art, find_traits(proxy), report_of(picture))
            self._darkroom.proxy(made.sha256, lambda: proxy)
            return made

        return self._made.get(key, find)

    def palette(self, row: ArtRow) -> list[str]:
        """The main colours of an artwork as it is laid on blanks, the largest first."""

        def find() -> list[str]:
            proxy = self._darkroom.small_proxy(row.sha256, lambda: self._open(row))
            return [swatch.colour for swatch in palette(picture_of(proxy.image(), 1.0))]

        return self._palettes.get(row.sha256, find)

    def taken(self, row: ArtRow) -> ArtRow:
        """An artwork as it is laid on blanks: prepared, where it has steps that are on."""
        if not row.preparation.active:
            return row
        try:
            made = self.make(row, row.preparation)
        except BadStep as problem:  # decided under an older version: told, and nothing is lost
            note = f"Its preparation cannot be carried out, so it is shown as it came: {problem}"
            return replace(row, facts=replace(row.facts, notes=(*row.facts.notes, note)))
        return replace(row, sha256=made.sha256, facts=made.facts, traits=made.traits)
