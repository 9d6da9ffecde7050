"""The bench: one artwork on one blank. Placing it, proving it, showing it, and making its files."""

from __future__ import annotations

import json
from typing import Any, Literal

from flask import Response, send_file
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field, ValidationError

from ..core.design import Placing
from ..core.errors import BadPlacing
from ..core.fit import place as place_on
from ..core.mockup.pack import SceneInfo
from ..proofing import template_report
from ..scenes import scene as find_scene
from ..scenes import scenes_of
from .artworks import art_shape
from .board import CELL_PX
from .desk import Desk, Work
from .problems import NotHere
from .shapes import (
    ChoicesBody,
    MadeFile,
    Pair,
    PairPath,
    PlacingBody,
    ProofShape,
    RegionShape,
    SceneShape,
    Shape,
    TemplateShape,
)


class FilePath(BaseModel):
    """Which made file."""

    key: str


class LookQuery(BaseModel):
    """A look at a placing that is not decided yet. ``placing`` is a PlacingBody as JSON, ``colours`` likewise."""

    placing: str
    colours: str = "{}"
    angle: float = Field(default=0, ge=-36000, le=36000)
    width: int = Field(default=900, ge=160, le=1600)
    height: int = Field(default=900, ge=160, le=1600)


class PrintBody(Shape):
    """Which print file is wanted."""

    format: Literal["png", "tif", "pdf"] = "png"
    dpi: float = Field(default=300, ge=36, le=1200)


class PictureBody(Shape):
    """Which picture is wanted."""

    scene_id: str
    view: str = "front"
    angle: float | None = Field(default=None, ge=-36000, le=36000)
    size: tuple[int, int] = (2000, 2000)
    format: Literal["jpg", "png", "webp"] = "jpg"


def scene_shape(info: SceneInfo) -> SceneShape:
    """A scene as it is answered."""
    regions = [RegionShape(id=r.id, title=r.title, panel=r.panel, colours=r.colours, default=r.default) for r in info.regions]
    return SceneShape(id=info.id, title=info.title, kind=info.kind, templates=list(info.templates), views=info.views,
                      turns=info.turns, px=info.px, regions=regions)  # fmt: skip


def proof_shape(report: dict[str, Any]) -> ProofShape:
    """The page's part of a proof's report."""
    return ProofShape(**{k: report[k] for k in ProofShape.model_fields})


def pair_shape(desk: Desk, work: Work) -> Pair:
    """A pair as it is answered."""
    made = desk.made.kinds(work.art.id, work.template.id, work.placing_key())
    return Pair(
        artwork=art_shape(work.art), template=TemplateShape(**template_report(work.template)),
        scenes=[scene_shape(info) for info in scenes_of(work.template.id)], placing=PlacingBody.of(work.placing),
        default_placing=PlacingBody.of(Placing(fit=work.template.default_fit)),  # type: ignore[arg-type]
        can_undo=work.row.step > 0, can_redo=work.row.step < work.row.last_step,
        route=work.route, angle=work.row.angle, colours=work.row.colours,  # type: ignore[arg-type]
        proof=proof_shape(desk.proof(work)), pictured="picture" in made, printed="print" in made,
    )  # fmt: skip


def _asked_placing(text: str) -> Placing:
    try:
        return PlacingBody.model_validate_json(text).to_core()
    except ValidationError as wrong:
        raise BadPlacing("The placing cannot be read: it must be a placing's JSON.") from wrong


def _asked_colours(text: str) -> dict[str, str | None]:
    try:
        found = json.loads(text)
    except json.JSONDecodeError:
        found = None
    if not isinstance(found, dict) or not all(isinstance(v, str | None) for v in found.values()):
        raise BadPlacing("The colours cannot be read: they must be a JSON object of names.")
    return found


def _made(key: str, name: str, size: int, px: tuple[int, int]) -> dict[str, Any]:
    return MadeFile(name=name, url=f"/api/files/{key}", bytes=size, px=px).model_dump()


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/pairs, and of made files."""
    api = APIBlueprint("bench", __name__, url_prefix="/api", abp_tags=[Tag(name="bench")])
    pair_at = "/pairs/<int:artwork_id>/<template_id>"

    def load(path: PairPath) -> Work:
        return desk.work(path.artwork_id, path.template_id)

    @api.get(pair_at, responses={200: Pair})
    def pair(path: PairPath) -> dict[str, Any]:
        """A pair with its proof."""
        return pair_shape(desk, load(path)).model_dump()

    @api.put(f"{pair_at}/placing", responses={200: Pair})
    def place(path: PairPath, body: PlacingBody) -> dict[str, Any]:
        """Decide a placing. It becomes the next step of the pair's history."""
        work, placing = load(path), body.to_core()
        place_on(work.template.panel(), work.art.facts.size, placing)  # refused before it is kept, if it cannot be
        if placing != work.placing:
            desk.pairs.place(path.artwork_id, path.template_id, placing)
        return pair_shape(desk, load(path)).model_dump()

    @api.post(f"{pair_at}/undo", responses={200: Pair})
    def undo(path: PairPath) -> dict[str, Any]:
        """Go one step back in the pair's history."""
        desk.pairs.move(load(path).art.id, path.template_id, -1)
        return pair_shape(desk, load(path)).model_dump()

    @api.post(f"{pair_at}/redo", responses={200: Pair})
    def redo(path: PairPath) -> dict[str, Any]:
        """Go one step forward in the pair's history."""
        desk.pairs.move(load(path).art.id, path.template_id, 1)
        return pair_shape(desk, load(path)).model_dump()

    @api.put(f"{pair_at}/choices", responses={200: Pair})
    def choose(path: PairPath, body: ChoicesBody) -> dict[str, Any]:
        """Keep the route and how the mock-up stands."""
        work = load(path)
        for info in scenes_of(work.template.id):
            for region, colour in body.colours.items():
                info.region(region).colour(colour)
        desk.pairs.set_choices(work.art.id, work.template.id, body.route, body.angle, body.colours)
        return pair_shape(desk, load(path)).model_dump()

    @api.get(f"{pair_at}/proof", responses={200: ProofShape})
    def proof(path: PairPath, query: LookQuery) -> dict[str, Any]:
        """The proof of a placing that is not decided yet."""
        return proof_shape(desk.judge(load(path), _asked_placing(query.placing))).model_dump()

    @api.get(f"{pair_at}/look")
    def look(path: PairPath, query: LookQuery) -> Response:
        """A quick mock-up of a placing that is not decided yet, as JPEG."""
        size = (query.width, query.height)
        placing, colours = _asked_placing(query.placing), _asked_colours(query.colours)
        return Response(desk.look(load(path), placing, query.angle, colours, size), mimetype="image/jpeg")

    @api.get(f"{pair_at}/cell")
    def cell_picture(path: PairPath) -> Response:
        """The board's small mock-up of what was decided, as JPEG."""
        work = load(path)
        picture = desk.look(work, work.placing, work.row.angle, work.row.colours, CELL_PX, close=True)
        answer = Response(picture, mimetype="image/jpeg")
        answer.headers["Cache-Control"] = "private, max-age=31536000, immutable"
        return answer

    @api.post(f"{pair_at}/print-file", responses={200: MadeFile})
    def print_file(path: PairPath, body: PrintBody) -> dict[str, Any]:
        """Make the print file; made before, it is only named."""
        work = load(path)
        key, file = desk.print_file(work, body.format, body.dpi)
        return _made(key, desk.made.named(key)[0], file.stat().st_size, work.template.panel().file_px(body.dpi))  # type: ignore[index]

    @api.post(f"{pair_at}/picture", responses={200: MadeFile})
    def picture(path: PairPath, body: PictureBody) -> dict[str, Any]:
        """Make a listing picture; made before, it is only named."""
        angle = find_scene(body.scene_id).angle(body.view) if body.angle is None else body.angle
        view = body.view if body.angle is None else f"{angle:g}deg"
        key, file = desk.picture(load(path), body.scene_id, body.size, angle, view, body.format)
        return _made(key, desk.made.named(key)[0], file.stat().st_size, body.size)  # type: ignore[index]

    @api.get("/files/<key>")
    def made_file(path: FilePath) -> Response:
        """A made file, under its telling name."""
        found = desk.made.named(path.key)
        if found is None:
            raise NotHere("This file is no longer kept: make it again.")
        return send_file(found[1].resolve(), as_attachment=True, download_name=found[0])

    return api
