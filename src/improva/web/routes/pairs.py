"""Pairs: one artwork on one blank, with the content of each panel."""

from __future__ import annotations

from typing import Any

from ...app.edits import refuse_stale
from ...app.pair import Pair
from ...core.design import PanelContent
from ...core.errors import PlacementError
from ...core.fit import place as place_on
from ...core.pieces import adapt_piece
from ...core.proposal import adapt_placement, propose_own_placement
from ...core.template import Panel
from ...store import Placements
from ...store.models.pieces import PIECES, adapted_model
from ...store.pairs import Pieces
from ...surfaces import SURFACES
from ..context import load_pair, services
from ..presenters.pairs import pair_out
from ..routing import Routes
from ..schemas.common import PAIR_AT, ChoicesIn, EditQuery, PairPath, PanelEditQuery, PanelQuery
from ..schemas.pairs import CopiedOut, CopyPlacementIn, PairOut
from ..schemas.pieces import PiecesIn
from ..schemas.placement import FollowIn, PlacementIn

TRIED_PX = 96
"""Size of the trial rendering that is made before pieces are stored, so that every stored piece can be rendered."""


api = Routes("bench", PAIR_AT)


def _answer(path: PairPath, query: PanelQuery) -> dict[str, Any]:
    return pair_out(services, load_pair(path), query.panel).model_dump()


def _decide(pair: Pair, edited: Pair, query: EditQuery, decided: Placements, pieces: Pieces | None = None) -> None:
    """Store a step of a pair's history. It is checked first, so that nothing is stored that cannot be computed.

    Raises:
        StaleEditError: the pair has been changed since the state that the edit is based on.
    """
    services.preflight.report(edited)
    with services.store.database.writing():
        refuse_stale(
            query.based_on, load_pair(PairPath(artwork_id=pair.art.id, template_id=pair.template.id)).edit_key, edited.edit_key
        )
        services.store.pairs.place(*pair.ids, decided, pieces)


def _place(pair: Pair, query: EditQuery, panel: Panel, content: PanelContent | None) -> None:
    decided: Placements = {panel.id: content}
    _decide(pair, pair.with_placements(decided), query, decided)


def _move(path: PairPath, query: PanelEditQuery, by: int) -> dict[str, Any]:
    """Undo or redo a step of a pair's history."""
    with services.store.database.writing():
        pair = load_pair(path)
        refuse_stale(query.based_on, pair.edit_key, "")
        services.store.pairs.move(*pair.ids, by)
    return _answer(path, query)


@api.get("", responses={200: PairOut})
def get_pair(path: PairPath, query: PanelQuery) -> dict[str, Any]:
    """Return a pair with its preflight report."""
    return _answer(path, query)


@api.put("/placement", responses={200: PairOut})
def set_placement(path: PairPath, query: PanelEditQuery, body: PlacementIn) -> dict[str, Any]:
    """Set a panel's placement, as a step of the pair's history."""
    pair, placement = load_pair(path), body.to_core()
    panel = pair.template.panel(query.panel)
    place_on(panel, pair.art.facts.size, placement)  # refuses impossible content before it is stored
    if placement != pair.placement(panel):
        _place(pair, query, panel, placement)
    return _answer(path, query)


@api.put("/follow", responses={200: PairOut})
def set_follow(path: PairPath, query: PanelEditQuery, body: FollowIn) -> dict[str, Any]:
    """Link a panel to the one across a seam, or unlink it, as a step of the pair's history."""
    pair = load_pair(path)
    panel, content = pair.template.panel(query.panel), body.to_core()
    if body.way == "alone":
        assert pair.art.traits is not None, "artworks come with their traits from the services"
        _place(pair, query, panel, propose_own_placement(pair.template, panel, pair.art.facts, pair.art.traits).placement)
    else:
        pair.design(panel, content)  # refuses impossible content before it is stored
        _place(pair, query, panel, content)
    return _answer(path, query)


@api.put("/pieces", responses={200: PairOut})
def set_pieces(path: PairPath, query: PanelEditQuery, body: PiecesIn) -> dict[str, Any]:
    """Set the text and extras of a panel, as a step of the pair's history.

    Raises :class:`PlacementError` where the panel holds no artwork.
    """
    pair, stored = load_pair(path), body.model_dump()["pieces"]
    panel = pair.template.panel(query.panel)
    placement = pair.placement(panel)
    edited = pair.with_pieces(panel, services.pairs.load_pieces(stored))  # refuses impossible content before it is stored
    if placement is None:
        raise PlacementError("This side is empty: place the artwork on it first.")
    services.previews.flat(edited, panel, placement, TRIED_PX)
    _decide(pair, edited, query, {}, {panel.id: stored})
    return _answer(path, query)


@api.delete("/placement", responses={200: PairOut})
def clear_panel(path: PairPath, query: PanelEditQuery) -> dict[str, Any]:
    """Clear a panel."""
    pair = load_pair(path)
    _place(pair, query, pair.template.panel(query.panel), None)
    return _answer(path, query)


@api.post("/undo", responses={200: PairOut})
def undo_placement(path: PairPath, query: PanelEditQuery) -> dict[str, Any]:
    """Undo the pair's last step."""
    return _move(path, query, -1)


@api.post("/redo", responses={200: PairOut})
def redo_placement(path: PairPath, query: PanelEditQuery) -> dict[str, Any]:
    """Redo the pair's next step."""
    return _move(path, query, 1)


@api.post("/copy", responses={200: CopiedOut})
def copy_placement(path: PairPath, query: PanelQuery, body: CopyPlacementIn) -> dict[str, Any]:
    """Copy a panel's placement to other blanks, to the panel of the same name or else their first.

    Raises :class:`PlacementError` where the panel is empty.
    """
    pair = load_pair(path)
    panel = pair.template.panel(query.panel)
    placement, pieces_on_panel, took = pair.placement(panel), pair.pieces_on(panel), []
    if placement is None:
        raise PlacementError("This panel is empty, so there is nothing to carry: place the artwork on it first.")
    for template_id in dict.fromkeys(body.template_ids):
        template = services.blanks.get(template_id)
        target = next((p for p in template.panels if p.id == panel.id), template.panels[0])
        moved = adapt_placement(placement, panel, target)
        place_on(target, pair.art.facts.size, moved)
        pieces = zip(PIECES.validate_python(list(pieces_on_panel.stored)), pieces_on_panel.extras, strict=True)
        copied = [adapted_model(piece, adapt_piece(extra, panel, target)) for piece, extra in pieces]
        services.store.pairs.place(pair.art.id, template_id, {target.id: moved}, {target.id: copied} if copied else None)
        took.append(template_id)
    return CopiedOut(template_ids=took).model_dump()


@api.put("/choices", responses={200: PairOut})
def set_choices(path: PairPath, query: PanelQuery, body: ChoicesIn) -> dict[str, Any]:
    """Set the pair's route, colours and angle."""
    pair = load_pair(path)
    known = {region.id: region for info in pair.scenes for region in info.regions}
    for name, colour in body.colours.items():
        if name in known:
            known[name].check(colour, SURFACES)
        else:
            pair.scenes[0].region(name)
    services.store.pairs.set_choices(pair.art.id, pair.template.id, body.route, body.angle, body.colours)
    return _answer(path, query)
