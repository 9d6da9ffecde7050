"""Looking at what is in the hand and not decided yet: its proof, its mock-up, its flat, its seam."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import numpy as np
from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field, FiniteFloat, TypeAdapter, ValidationError

from ..core.artwork.pixels import as_array
from ..core.artwork.traits import column_differences
from ..core.design import Laying
from ..core.errors import BadPiece, BadPlacing
from ..core.mockup.picture import encode
from ..core.mockup.scene import SceneInfo
from ..core.sewing.following import Corrections
from ..core.template import Panel
from ..scenes import scene
from ..store import Placings
from .bench import PAIR_AT, proof_shape
from .desk import Desk
from .parts import part
from .picturing import quick_look
from .piece_shapes import PiecesBody
from .shapes import LAYING, PairPath, PanelQuery, ProofShape
from .shots import Shot, shot_of
from .show_shapes import ShotBody, Showing
from .work import Work

NUDGED: TypeAdapter[dict[str, tuple[FiniteFloat, FiniteFloat]]] = TypeAdapter(dict[str, tuple[FiniteFloat, FiniteFloat]])
SEAM_PX_MM = 11.8
"""Density of the seam view: 300 dpi, so that it is looked at at full size."""

SEAM_SIDE_MM = 22.0
SEAM_POINTS = 240


class HeldQuery(PanelQuery):
    """What is not decided yet: a PlacingBody or a FollowBody as JSON, or nothing for an empty panel; and, where they are in
    the hand, the pieces laid with it, as JSON.
    """

    placing: str = ""
    pieces: str = ""


class LookQuery(HeldQuery):
    """A look at a placing that is not decided yet."""

    scene: str | None = None
    colours: str = "{}"
    angle: float = Field(default=0, ge=-36000, le=36000)
    view: str | None = None
    measured: bool = False
    nudged: str = Field(default="{}", description="By seam, as JSON: mm right and down by which its follower is sewn elsewhere")
    dressed: str | None = Field(default=None, description="A Showing as JSON: the look is then as its pictures will be")
    width: int = Field(default=900, ge=160, le=1600)
    height: int = Field(default=900, ge=160, le=1600)


class FlatQuery(HeldQuery):
    """How wide a picture of the flat is wanted."""

    width: int = Field(default=900, ge=64, le=2400)


class Seam(BaseModel):
    """How the two ends meet: ΔE2000 along the seam from top to bottom, and what is found elsewhere in the picture."""

    along: list[float]
    limit: float
    height_mm: float
    side_mm: float


def asked_laying(text: str) -> Laying | None:
    """A placing, or what is followed, in a request's query. Raises :class:`BadPlacing`."""
    if not text:
        return None
    try:
        return LAYING.validate_json(text).to_core()
    except ValidationError as wrong:
        raise BadPlacing("The placing cannot be read: it must be a placing's JSON.") from wrong


def asked_pieces(text: str) -> list[dict[str, Any]]:
    """Pieces in a request's query. Raises :class:`BadPiece`."""
    try:
        return [piece.model_dump() for piece in PiecesBody.model_validate_json(f'{{"pieces": {text}}}').pieces]
    except ValidationError as wrong:
        raise BadPiece(f"The pieces cannot be read: {wrong.errors()[0]['msg']}.") from wrong


def _asked_colours(text: str) -> dict[str, str | None]:
    try:
        found = json.loads(text)
    except json.JSONDecodeError:
        found = None
    if not isinstance(found, dict) or not all(isinstance(v, str | None) for v in found.values()):
        raise BadPlacing("The colours cannot be read: they must be a JSON object of names.")
    return found


def _nudged(text: str) -> Corrections:
    """Where followers are held to be sewn. Raises :class:`BadPlacing`."""
    try:
        return NUDGED.validate_json(text)
    except ValidationError as wrong:
        raise BadPlacing("What is nudged cannot be read: it must be JSON of seams with mm right and down.") from wrong


def _asked_shot(work: Work, query: LookQuery, info: SceneInfo, colours: dict[str, str | None]) -> Shot:
    """A shot with all that is chosen for the pair's pictures, as ``dressed`` says in place of what is kept."""
    try:
        showing = Showing.model_validate_json(query.dressed or "{}")
    except ValidationError as wrong:
        raise BadPlacing("The choices cannot be read: they must be the JSON of a showing.") from wrong
    view = query.view if query.view in info.views else None
    asked = ShotBody(scene_id=info.id, view=view, angle=query.angle if info.turns else None, measured=query.measured)
    own = {name: colour for name, colour in colours.items() if any(r.id == name for r in info.regions)}
    return replace(shot_of(work, asked, showing), colours=own, mirrored=query.view in info.mirrored)


def _held(work: Work, panel_id: str | None, text: str) -> tuple[Panel, Laying]:
    panel, placing = work.template.panel(panel_id), asked_laying(text)
    if placing is None:
        raise BadPlacing("There is no placing in this request: lay the artwork on the panel first.")
    return panel, placing


def blueprint(desk: Desk) -> APIBlueprint:
    """More addresses of a pair."""
    api = part(desk, "looks", "bench", PAIR_AT)

    def load(path: PairPath, query: HeldQuery) -> Work:
        work = desk.work(path.artwork_id, path.template_id)
        if not query.pieces:
            return work
        return work.holding(work.template.panel(query.panel), desk.lay(asked_pieces(query.pieces)))

    @api.get("/proof", responses={200: ProofShape})
    def proof(path: PairPath, query: HeldQuery) -> dict[str, Any]:
        """The proof of a placing that is not decided yet."""
        work = load(path, query)
        return proof_shape(desk.judge(work, *_held(work, query.panel, query.placing))).model_dump()

    @api.get("/look")
    def look(path: PairPath, query: LookQuery) -> Response:
        """A quick mock-up of a placing that is not decided yet, as JPEG."""
        work = replace(load(path, query), nudged=_nudged(query.nudged))
        panel, placing, colours = work.template.panel(query.panel), asked_laying(query.placing), _asked_colours(query.colours)
        info = scene(query.scene, work.template) if query.scene else desk.first_scene(work.template)
        size, held = (query.width, query.height), Placings({panel.id: placing})
        if query.dressed is None:
            picture = desk.look(work, held, info, query.angle, colours, size, mirrored=query.view in info.mirrored)
        else:
            picture = quick_look(desk, work, held, _asked_shot(work, query, info, colours), size)
        return Response(picture, mimetype="image/jpeg")

    @api.get("/flat")
    def flat(path: PairPath, query: FlatQuery) -> Response:
        """The print file of a placing that is not decided yet, reduced, as PNG: bent, repeated and cut as it will be."""
        work = load(path, query)
        panel = work.template.panel(query.panel)
        image = desk.flat(work, panel, asked_laying(query.placing), query.width)
        return Response(image.pngsave_buffer(compression=1, keep="none"), mimetype="image/png")

    @api.get("/seam", responses={200: Seam})
    def seam(path: PairPath, query: HeldQuery) -> dict[str, Any]:
        """How the two ends of a wrap meet, along its height."""
        work = load(path, query)
        looked = desk.subject(work, *_held(work, query.panel, query.placing))
        _, inner, along = column_differences(looked.trim_lab)
        at = np.linspace(0, len(along) - 1, SEAM_POINTS).round().astype(int)
        limit = max(work.template.limit("seam_delta_e"), 1.5 * float(np.percentile(inner, 99)))
        return Seam(along=[round(float(v), 2) for v in along[at]], limit=limit, height_mm=looked.worn.trim_mm[1],
                    side_mm=SEAM_SIDE_MM).model_dump()  # fmt: skip

    @api.get("/seam-picture")
    def seam_picture(path: PairPath, query: HeldQuery) -> Response:
        """Both ends of a wrap butted in the middle, at 300 dpi, as JPEG; what is bare shows the blank."""
        work = load(path, query)
        picture = desk.butted(work, *_held(work, query.panel, query.placing), SEAM_SIDE_MM, SEAM_PX_MM)
        return Response(encode(as_array(picture), ".jpg"), mimetype="image/jpeg")

    @api.get("/cell")
    def cell_picture(path: PairPath) -> Response:
        """The board's small mock-up of what was decided, as JPEG."""
        found = Response(desk.cell(desk.work(path.artwork_id, path.template_id)), mimetype="image/jpeg")
        found.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return found

    return api
