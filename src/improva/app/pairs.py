"""Load pairs: an artwork on a blank, with stored and suggested placements."""

from __future__ import annotations

from typing import Any

from ..core.proposal import propose_placement
from ..core.template import Template
from ..store import ArtRow, PairRow, Store
from .artworks import ArtworkLibrary
from .blanks import BlankShelf
from .fonts import FontLibrary
from .pair import Pair
from .pieces import PanelPieces, load_pieces
from .scenes import SceneLibrary


class PairLoader:
    """Loads the pairs of one data folder."""

    def __init__(
        self, store: Store, blanks: BlankShelf, artworks: ArtworkLibrary, fonts: FontLibrary, scenes: SceneLibrary
    ) -> None:
        self._store, self._blanks, self._artworks, self._fonts, self._scenes = store, blanks, artworks, fonts, scenes

    def load(self, artwork_id: int, template_id: str) -> Pair:
        """Load the pair of an artwork and a blank.

        Raises:
            NotFoundError: there is no such artwork.
            TemplateError: there is no such blank.
        """
        row = self._store.pairs.get(artwork_id, template_id)
        return self.assemble(self._artworks.get(artwork_id), self._blanks.get(template_id), row)

    def assemble(self, art: ArtRow, template: Template, row: PairRow) -> Pair:
        """Make a pair from its parts; ``art`` must have its traits, as those of :class:`ArtworkLibrary` do."""
        assert art.traits is not None, "the artwork library adds missing traits"
        proposals = {panel.id: propose_placement(template, panel, art.facts, art.traits) for panel in template.panels}
        pieces_by_panel = {panel_id: self.load_pieces(pieces) for panel_id, pieces in row.pieces.items()}
        corrections = self._store.calibrations.now(template.id) if template.seams else {}
        key = self._blanks.shelved(template.id).key
        return Pair(art, template, key, row, proposals, self._scenes, pieces_by_panel, corrections)

    def load_pieces(self, stored: list[dict[str, Any]]) -> PanelPieces:
        """Load the stored pieces of a panel with their artworks and fonts.

        Raises:
            PieceError, PlacementError, FontError, NotFoundError: a piece is not possible, or what it needs is missing.
        """
        return load_pieces(stored, self._artworks.get, self._fonts.data)
