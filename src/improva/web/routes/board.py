"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from ...app.reports import report_summary
from ...store import PairRow
from ..context import load_pair, services
from ..presenters.artworks import artwork_out
from ..presenters.board import board_blank_out, cell_values
from ..routing import Routes
from ..schemas.artworks import ArtPath
from ..schemas.common import BoardOut, BoardRowOut, CellOut, PairPath

api = Routes("board", "/api/board")


@api.get("", responses={200: BoardOut})
def get_board() -> dict[str, Any]:
    """Return the artworks and blanks of the board. The page asks for cells row by row, since a board can have thousands."""
    arts, blanks = services.artworks.all(), services.blanks.on_board()
    return BoardOut(artworks=[artwork_out(a) for a in arts], templates=[board_blank_out(b) for b in blanks]).model_dump()


@api.get("/<int:artwork_id>", responses={200: BoardRowOut})
def get_board_row(path: ArtPath) -> dict[str, Any]:
    """Return the cells of one artwork; unchecked cells are asked for one by one."""
    art, blanks, rows = (
        services.artworks.get(path.artwork_id),
        services.blanks.on_board(),
        services.store.pairs.of_art(path.artwork_id),
    )
    pairs = [services.pairs.assemble(art, blank, rows.get(blank.id, PairRow())) for blank in blanks]
    summaries, kinds = (
        services.store.preflight_reports.summaries([pair.report_key for pair in pairs]),
        services.store.made_files.kinds_of_art(art.id),
    )
    pressed, listed = services.store.pressings.pressed(), services.store.listings.listed()
    return {
        "cells": [
            cell_values(
                services,
                w,
                summaries.get(w.report_key),
                kinds.get((w.template.id, w.placement_key), set()),
                w.ids in pressed,
                w.ids in listed,
            )
            for w in pairs
        ]
    }


@api.get("/<int:artwork_id>/<template_id>", responses={200: CellOut})
def get_board_cell(path: PairPath) -> dict[str, Any]:
    """Return one cell, running the checks if they have not run yet."""
    pair = load_pair(path)
    kinds = services.store.made_files.kinds(pair.art.id, pair.template.id, pair.placement_key)
    return cell_values(
        services,
        pair,
        report_summary(services.preflight.report(pair)),
        kinds,
        pair.ids in services.store.pressings.pressed(),
        pair.ids in services.store.listings.listed(),
    )
