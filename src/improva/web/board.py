"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from flask_openapi3 import APIBlueprint, Tag

from ..core.template import Template
from ..store import PairRow
from .artworks import art_shape
from .desk import Desk
from .shapes import Board, BoardBlank, Cell, PairPath
from .work import Work

Made = dict[tuple[int, str, str], set[str]]


def cell(desk: Desk, work: Work, proof: dict[str, Any] | None, made: set[str]) -> Cell:
    """One cell; without a proof its verdict is still to come."""
    checks = [c for report in proof["panels"].values() for c in report["checks"] if c["status"] != "pass"] if proof else []
    gravest = next((c for c in checks if proof and c["status"] == proof["verdict"]), None)
    return Cell(
        artwork_id=work.art.id, template_id=work.template.id, fitted=bool(work.row.placings),
        pictured="picture" in made, printed="print" in made, verdict=proof["verdict"] if proof else None,
        blocker=gravest["title"] if gravest else None, open=len(checks),
        shown=f"/api/pairs/{work.art.id}/{work.template.id}/cell?version={desk.cell_key(work)}",
    )  # fmt: skip


def board_blank(template: Template) -> BoardBlank:
    """A blank as the board's head shows it."""
    first = template.panels[0]
    return BoardBlank(
        id=template.id, title=template.title, kind=template.kind, size_mm=first.worn().trim_mm, panels=len(template.panels)
    )


def blueprint(desk: Desk) -> APIBlueprint:
    """The address of the board."""
    api = APIBlueprint("board", __name__, url_prefix="/api/board", abp_tags=[Tag(name="board")])

    @api.get("", responses={200: Board})
    def board() -> dict[str, Any]:
        """Everything on the board at once; what was not judged before is asked for cell by cell."""
        arts, blanks, rows = desk.all_art(), desk.board_blanks(), desk.pairs.all()
        works = [desk.pair(art, blank, rows.get((art.id, blank.id), PairRow())) for art in arts for blank in blanks]
        proofs, made = desk.made.kept_proofs([work.proof_key for work in works]), desk.made.all_kinds()
        cells = [
            cell(desk, w, proofs.get(w.proof_key), made.get((w.art.id, w.template.id, w.placing_key), set())) for w in works
        ]
        return Board(
            artworks=[art_shape(a) for a in arts], templates=[board_blank(b) for b in blanks], cells=cells
        ).model_dump()

    @api.get("/<int:artwork_id>/<template_id>", responses={200: Cell})
    def one_cell(path: PairPath) -> dict[str, Any]:
        """One cell, judged now if it was not before."""
        work = desk.work(path.artwork_id, path.template_id)
        made = desk.made.kinds(work.art.id, work.template.id, work.placing_key)
        return cell(desk, work, desk.proof(work), made).model_dump()

    return api
