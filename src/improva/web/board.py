"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from flask_openapi3 import APIBlueprint, Tag

from ..catalogue import templates
from ..proofing import template_report
from .artworks import art_shape
from .desk import Desk, Work
from .shapes import Board, Cell, PairPath, TemplateShape

CELL_PX = (480, 480)


def cell(desk: Desk, work: Work, proof: dict[str, Any] | None) -> Cell:
    """One cell; without a proof its verdict is still to come."""
    made = desk.made.kinds(work.art.id, work.template.id, work.placing_key())
    checks = proof["checks"] if proof else []
    gravest = next((c for c in checks if proof and c["status"] == proof["verdict"] != "pass"), None)
    return Cell(
        artwork_id=work.art.id, template_id=work.template.id, fitted=work.row.placing is not None,
        pictured="picture" in made, printed="print" in made, verdict=proof["verdict"] if proof else None,
        blocker=gravest["title"] if gravest else None,
        shown=f"/api/pairs/{work.art.id}/{work.template.id}/cell?version={desk.cell_key(work)}",
    )  # fmt: skip


def blueprint(desk: Desk) -> APIBlueprint:
    """The address of the board."""
    api = APIBlueprint("board", __name__, url_prefix="/api/board", abp_tags=[Tag(name="board")])

    @api.get("", responses={200: Board})
    def board() -> dict[str, Any]:
        """Everything on the board at once; what was not judged before is asked for cell by cell."""
        arts, blanks = desk.artworks.all(), list(templates().values())
        works = [desk.work(art.id, blank.id) for art in arts for blank in blanks]
        cells = [cell(desk, work, desk.kept_proof(work)) for work in works]
        shown = [TemplateShape(**template_report(blank)) for blank in blanks]
        return Board(artworks=[art_shape(a) for a in arts], templates=shown, cells=cells).model_dump()

    @api.get("/<int:artwork_id>/<template_id>", responses={200: Cell})
    def one_cell(path: PairPath) -> dict[str, Any]:
        """One cell, judged now if it was not before."""
        work = desk.work(path.artwork_id, path.template_id)
        return cell(desk, work, desk.proof(work)).model_dump()

    return api
