"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from flask_openapi3 import APIBlueprint, Tag

from ..catalogue import templates
from ..proofing import template_report
from ..store import ArtRow
from .artworks import art_shape
from .desk import Desk
from .shapes import Board, Cell, TemplateShape

CELL_PX = (480, 480)


def cell(desk: Desk, art: ArtRow, template_id: str) -> Cell:
    """One cell, its proof taken from what is kept wherever it is."""
    work = desk.work(art.id, template_id)
    proof = desk.proof(work)
    made = desk.made.kinds(art.id, template_id, work.placing_key())
    gravest = next((c for c in proof["checks"] if c["status"] == proof["verdict"] != "pass"), None)
    return Cell(
        artwork_id=art.id, template_id=template_id, fitted=work.row.placing is not None, pictured="picture" in made,
        printed="print" in made, verdict=proof["verdict"], blocker=gravest["title"] if gravest else None,
        shown=f"/api/pairs/{art.id}/{template_id}/cell?version={desk.cell_key(work)}",
    )  # fmt: skip


def blueprint(desk: Desk) -> APIBlueprint:
    """The address of the board."""
    api = APIBlueprint("board", __name__, url_prefix="/api/board", abp_tags=[Tag(name="board")])

    @api.get("", responses={200: Board})
    def board() -> dict[str, Any]:
        """Everything on the board."""
        arts, blanks = desk.artworks.all(), list(templates().values())
        cells = [cell(desk, art, blank.id) for art in arts for blank in blanks]
        shown = [TemplateShape(**template_report(blank)) for blank in blanks]
        return Board(artworks=[art_shape(a) for a in arts], templates=shown, cells=cells).model_dump()

    return api
