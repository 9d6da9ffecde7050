"""Convert stored pieces to the core's: with their artworks and fonts, each found by its hash."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..core.artwork.pixels import Artwork
from ..core.pieces import ArtRef, Extra, Lettering
from ..store import ArtRow
from ..store.database import key_of
from ..store.models.pieces import PIECES, arts_of
from ..store.pairs import as_first_stored


@dataclass(frozen=True)
class PanelPieces:
    """The text and extras of one panel: as stored, and as the core takes them.

    ``fonts`` are the files of its fonts by their keys, ``arts`` the other artworks by their content's hash.
    """

    stored: tuple[dict[str, Any], ...] = ()
    extras: tuple[Extra, ...] = ()
    fonts: dict[str, bytes] = field(default_factory=dict)
    arts: dict[str, ArtRow] = field(default_factory=dict)
    key: str = ""


NOTHING = PanelPieces()


def load_pieces(
    stored: list[dict[str, Any]], find_art: Callable[[int], ArtRow], find_font: Callable[[str], bytes]
) -> PanelPieces:
    """Convert stored pieces to the core's.

    Raises:
        PieceError, PlacementError, FontError, NotFoundError: a piece is not possible, or what it needs is missing.
    """
    if not stored:
        return NOTHING
    bodies = PIECES.validate_python(stored)
    rows = {art_id: find_art(art_id) for body in bodies for art_id in arts_of(body)}

    def ref(art_id: int) -> ArtRef:
        return ArtRef(rows[art_id].sha256, rows[art_id].facts.size)

    extras = tuple(body.to_core(ref) for body in bodies)
    fonts = {extra.font: find_font(extra.font) for extra in extras if isinstance(extra, Lettering)}
    plain = [body.model_dump() for body in bodies]
    key = key_of("laid", [_as_hashed(values) for values in plain], {str(i): row.sha256 for i, row in rows.items()})
    return PanelPieces(tuple(plain), extras, fonts, {row.sha256: row for row in rows.values()}, key)


def _as_hashed(values: dict[str, Any]) -> dict[str, Any]:
    """A piece as version 0.1 hashed it, so that files made then still count as made for their pair."""
    return {
        "placing" if name == "placement" else name: as_first_stored(value) if name == "placement" else value
        for name, value in as_first_stored(values).items()
    }


def opener(
    main: Artwork, key: str, pieces: list[PanelPieces], open_row: Callable[[ArtRow], Artwork]
) -> Callable[[str], Artwork]:
    """Return a function that opens the artworks of a design by their hashes."""
    others = {sha256: row for each in pieces for sha256, row in each.arts.items()}
    return lambda wanted: main if wanted == key else open_row(others[wanted])
