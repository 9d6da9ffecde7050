"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from flask_openapi3 import APIBlueprint

from ..core.template import Template
from ..proofing import proof_summary
from ..store import PairRow
from .artworks import ArtPath, art_shape
from .desk import Desk
from .parts import part
from .shapes import Board, BoardBlank, BoardRow, Cell, PairPath
from .work import Work


def cell(desk: Desk, work: Work, summary: dict[str, Any] | None, made: set[str], pressed: bool, listed: bool) -> dict[str, Any]:
    """One cell, as plain values since a board has many; without a summary its verdict is still to come."""
    told = summary or {"verdict": None, "blocker": None, "open": 0}
    return {
        "artwork_id": work.art.id, "template_id": work.template.id, "fitted": bool(work.row.placings),
        "pictured": "picture" in made, "printed": "print" in made, "pressed": pressed, "listed": listed, **told,
        "shown": f"/api/pairs/{work.art.id}/{work.template.id}/cell?version={desk.cell_key(work)}",
    }  # fmt: skip


def board_blank(template: Template) -> BoardBlank:
    """A blank as the board's head shows it."""
    first = template.panels[0]
    return BoardBlank(
        id=template.id, title=template.title, kind=template.kind, size_mm=first.worn().trim_mm, panels=len(template.panels)
    )


def blueprint(desk: Desk) -> APIBlueprint:
    """The address of the board."""
    api = part(desk, "board", "board", "/api/board")

    @api.get("", responses={200: Board})
    def board() -> dict[str, Any]:
        """Artworks and blanks. Cells are asked for row by row, as rows come into sight: a year's work has many thousands."""
        arts, blanks = desk.all_art(), desk.board_blanks()
        return Board(artworks=[art_shape(a) for a in arts], templates=[board_blank(b) for b in blanks]).model_dump()

    @api.get("/<int:artwork_id>", responses={200: BoardRow})
    def row(path: ArtPath) -> dict[str, Any]:
        """The cells of an artwork; what was not judged before is asked for cell by cell."""
        art, blanks, rows = desk.art(path.artwork_id), desk.board_blanks(), desk.pairs.of_art(path.artwork_id)
        works = [desk.pair(art, blank, rows.get(blank.id, PairRow())) for blank in blanks]
        kept, made = desk.made.summaries([work.proof_key for work in works]), desk.made.kinds_of_art(art.id)
        pressed, listed = desk.pressings.pressed(), desk.listings.listed()
        return {"cells": [cell(desk, w, kept.get(w.proof_key), made.get((w.template.id, w.placing_key), set()), w.pair in pressed, w.pair in listed)
                          for w in works]}  # fmt: skip

    @api.get("/<int:artwork_id>/<template_id>", responses={200: Cell})
    def one_cell(path: PairPath) -> dict[str, Any]:
        """One cell, judged now if it was not before."""
        work = desk.work(path.artwork_id, path.template_id)
        made = desk.made.kinds(work.art.id, work.template.id, work.placing_key)
        return cell(
            desk,
            work,
            proof_summary(desk.proof(work)),
            made,
            work.pair in desk.pressings.pressed(),
            work.pair in desk.listings.listed(),
        )

    return api
