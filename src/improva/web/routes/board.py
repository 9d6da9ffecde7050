"""The range board: artworks down, blanks across."""

from __future__ import annotations

from typing import Any

from ...app.progress import progress_of_arts, progress_of_pair
from ..context import load_pair, services
from ..presenters.artworks import artwork_out
from ..presenters.board import board_blank_out, cell_values
from ..routing import Routes
from ..schemas.artworks import ArtPath
from ..schemas.common import BoardOut, BoardRowOut, BoardStatesOut, CellOut, PairPath

api = Routes("board", "/api/board")


@api.get("", responses={200: BoardOut})
def get_board() -> dict[str, Any]:
    """Return the artworks and blanks of the board. The page asks for cells row by row, since a board can have thousands."""
    arts, blanks = services.artworks.all(), services.blanks.on_board()
    return BoardOut(artworks=[artwork_out(a) for a in arts], templates=[board_blank_out(b) for b in blanks]).model_dump()


@api.get("/states", responses={200: BoardStatesOut})
def get_board_states() -> dict[str, Any]:
    """Return how far each pair has come, for the filter of the board. No check is run."""
    states: dict[int, dict[str, str]] = {}
    for each in progress_of_arts(services, services.artworks.all()):
        states.setdefault(each.pair.art.id, {})[each.pair.template.id] = each.state
    return {"artworks": [{"artwork_id": art, "states": by_blank} for art, by_blank in states.items()]}


@api.get("/<int:artwork_id>", responses={200: BoardRowOut})
def get_board_row(path: ArtPath) -> dict[str, Any]:
    """Return the cells of one artwork; unchecked cells are asked for one by one."""
    return {
        "cells": [cell_values(services, each) for each in progress_of_arts(services, [services.artworks.get(path.artwork_id)])]
    }


@api.get("/<int:artwork_id>/<template_id>", responses={200: CellOut})
def get_board_cell(path: PairPath) -> dict[str, Any]:
    """Return one cell, running the checks if they have not run yet."""
    return cell_values(services, progress_of_pair(services, load_pair(path)))
