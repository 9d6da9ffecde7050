"""Previews and checks of edited content. It is sent in the body of a POST, since addresses have length limits."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
from flask import Response

from ...app.mockups import preview_shot
from ...app.pair import Pair
from ...app.shots import Shot, shot_of
from ...core.artwork.pixels import as_array
from ...core.design import PanelContent
from ...core.errors import PlacementError
from ...core.mockup.render import encode
from ...core.mockup.scene import SceneInfo
from ...core.preflight.seam_measures import seam_match
from ...core.template import Panel
from ...store import Placements
from ...store.models.mockups import MockupSettings, ShotModel
from ..answers import cached_answer, png_answer
from ..context import load_pair, rendering, services
from ..presenters.pairs import panel_report_out
from ..routing import Routes, binary
from ..schemas.common import PAIR_AT, PairPath, PanelQuery, PanelReportOut
from ..schemas.previews import EditedContentIn, FlatPreviewIn, FlatQuery, MockupPreviewIn, SeamMatchOut

api = Routes("previews", PAIR_AT)

SEAM_PX_MM = 11.8
"""Resolution of the seam view: 300 dpi, to be viewed at full size."""

SEAM_SIDE_MM = 22.0
SEAM_POINTS = 240


def _edited_pair(path: PairPath, query: PanelQuery, body: EditedContentIn) -> tuple[Pair, Panel]:
    """Return the pair with a request's text and extras on one panel."""
    pair = load_pair(path)
    panel = pair.template.panel(query.panel)
    if body.pieces is None:
        return pair, panel
    return pair.with_pieces(panel, services.pairs.load_pieces([piece.model_dump() for piece in body.pieces])), panel


def _content(body: EditedContentIn) -> PanelContent:
    content = body.panel_content()
    if content is None:
        raise PlacementError("There is no placement in this request: place the artwork on the panel first.")
    return content


@api.post("/check", responses={200: PanelReportOut})
def check_content(path: PairPath, query: PanelQuery, body: EditedContentIn) -> dict[str, Any]:
    """Run the checks on edited content."""
    pair, panel = _edited_pair(path, query, body)
    return panel_report_out(services.preflight.check(pair, panel, _content(body))).model_dump()


@api.post("/mockup-preview", responses={200: binary("image/jpeg")})
def preview_mockup(path: PairPath, query: PanelQuery, body: MockupPreviewIn) -> Response:
    """Return a quick mock-up of edited content, as JPEG."""
    pair, panel = _edited_pair(path, query, body)
    pair = replace(pair, nudged=body.nudged)
    info = pair.scene(body.scene) if body.scene else services.scenes.first(pair.template)
    size, placements = (body.width, body.height), Placements({panel.id: body.panel_content()})
    with rendering():
        if body.settings is None:
            picture = services.previews.mockup(
                pair, placements, info, body.angle, body.colours, size, mirrored=info.is_mirrored(body.view)
            )
        else:
            picture = preview_shot(services, pair, placements, _shot(pair, body, info, body.settings), size)
    return Response(picture, mimetype="image/jpeg")


def _shot(pair: Pair, body: MockupPreviewIn, info: SceneInfo, settings: MockupSettings) -> Shot:
    """Return the shot of a preview, with the choices of ``settings``."""
    view = body.view if body.view in info.views else None
    model = ShotModel(scene_id=info.id, view=view, angle=body.angle if info.turns else None, measured=body.measured)
    own = {name: colour for name, colour in body.colours.items() if any(r.id == name for r in info.regions)}
    return replace(shot_of(pair, model, settings), colours=own, mirrored=info.is_mirrored(body.view))


@api.get("/flat", responses={200: binary("image/png")})
def get_flat(path: PairPath, query: FlatQuery) -> Response:
    """Return the reduced print file of stored content, as PNG."""
    pair = load_pair(path)
    panel = pair.template.panel(query.panel)
    with rendering():
        return png_answer(services.previews.flat(pair, panel, pair.content(panel), query.width))


@api.post("/flat-preview", responses={200: binary("image/png")})
def preview_flat(path: PairPath, query: PanelQuery, body: FlatPreviewIn) -> Response:
    """Return the reduced print file of edited content, as PNG: bent, repeated and cut as the final file."""
    pair, panel = _edited_pair(path, query, body)
    with rendering():
        return png_answer(services.previews.flat(pair, panel, body.panel_content(), body.width), compression=1)


@api.post("/seam", responses={200: SeamMatchOut})
def get_seam_match(path: PairPath, query: PanelQuery, body: EditedContentIn) -> dict[str, Any]:
    """Return the colour difference between the two ends of a wrap, along its height."""
    pair, panel = _edited_pair(path, query, body)
    looked = services.preflight.subject(pair, panel, _content(body))
    _, along, limit = seam_match(looked)
    at = np.linspace(0, len(along) - 1, SEAM_POINTS).round().astype(int)
    return SeamMatchOut(
        along=[round(float(v), 2) for v in along[at]],
        limit=limit,
        height_mm=looked.level.trim_mm[1],
        side_mm=SEAM_SIDE_MM,
    ).model_dump()


@api.post("/seam-preview", responses={200: binary("image/jpeg")})
def preview_seam(path: PairPath, query: PanelQuery, body: EditedContentIn) -> Response:
    """Return both ends of a wrap as they meet at the seam, at 300 dpi, as JPEG. Bare parts show the blank."""
    pair, panel = _edited_pair(path, query, body)
    with rendering():
        picture = services.previews.seam_picture(pair, panel, _content(body), SEAM_SIDE_MM, SEAM_PX_MM)
        return Response(encode(as_array(picture), ".jpg"), mimetype="image/jpeg")


@api.get("/cell", responses={200: binary("image/jpeg")})
def get_cell_picture(path: PairPath) -> Response:
    """Return the board's small mock-up of a pair, as JPEG."""
    pair = load_pair(path)
    picture = services.previews.stored_cell(pair)
    if picture is None:
        with rendering():
            picture = services.previews.cell(pair)
    return cached_answer(picture, "image/jpeg")
