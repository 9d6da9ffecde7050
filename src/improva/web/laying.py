"""Pieces as they are kept, made ready for the core: artworks and fonts found, each by its content."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..core.artwork.pixels import Artwork
from ..core.pieces import ArtRef, Extra, Lettering
from ..store import ArtRow
from ..store.database import key_of
from .piece_shapes import PIECES, arts_of


@dataclass(frozen=True)
class Laid:
    """What is laid with the artwork on one panel: as it is kept, and as the core takes it.

    ``fonts`` are the files of its fonts by their keys, ``arts`` the other artworks by their content's hash.
    """

    kept: tuple[dict[str, Any], ...] = ()
    extras: tuple[Extra, ...] = ()
    fonts: dict[str, bytes] = field(default_factory=dict)
    arts: dict[str, ArtRow] = field(default_factory=dict)
    key: str = ""


NOTHING = Laid()


def lay(kept: list[dict[str, Any]], find_art: Callable[[int], ArtRow], find_font: Callable[[str], bytes]) -> Laid:
    """Make pieces ready.

    Raises:
        BadPiece, BadPlacing, BadFont, NotHere: a piece cannot be, or what it needs is not here.
    """
    if not kept:
        return NOTHING
    bodies = PIECES.validate_python(kept)
    rows = {art_id: find_art(art_id) for body in bodies for art_id in arts_of(body)}

    def ref(art_id: int) -> ArtRef:
        return ArtRef(rows[art_id].sha256, rows[art_id].facts.size)

    extras = tuple(body.to_core(ref) for body in bodies)
    fonts = {extra.font: find_font(extra.font) for extra in extras if isinstance(extra, Lettering)}
    plain = [body.model_dump() for body in bodies]
    key = key_of("laid", plain, {str(i): row.sha256 for i, row in rows.items()})
    return Laid(tuple(plain), extras, fonts, {row.sha256: row for row in rows.values()}, key)


def opener(main: Artwork, key: str, laid: list[Laid], open_row: Callable[[ArtRow], Artwork]) -> Callable[[str], Artwork]:
    """Finds the artworks of a design: the one it is about, and those laid with it."""
    others = {sha256: row for each in laid for sha256, row in each.arts.items()}
    return lambda wanted: main if wanted == key else open_row(others[wanted])
