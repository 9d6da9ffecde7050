"""Preparing an artwork: its steps, looks at steps not decided yet, and where it comes from."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field, ValidationError

from ..core.colour import contrast
from ..core.errors import BadStep
from ..core.prepare import KINDS, Preparation, shown
from ..work.preparing import NECK_MM, report_of
from .artworks import ArtPath, UploadForm, art_shape, plain_name
from .desk import Desk
from .parts import part
from .preparation_shapes import Kinds, KindShape, OriginBody, PreparationBody, Prepared, Report, StepBody
from .problems import NotHere
from .shapes import Shape

WHITE = "#ffffff"
MOST_LICENCE_MB = 20


class HeldQuery(Shape):
    """A preparation that is not decided yet, as a PreparationBody's JSON."""

    preparation: str = '{"steps": []}'
    px: int = Field(default=1400, ge=64, le=2048)


def _asked(text: str) -> Preparation:
    try:
        return PreparationBody.model_validate_json(text).to_core()
    except ValidationError as wrong:
        raise BadStep("The steps cannot be read: they must be a preparation's JSON.") from wrong


def report_shape(report: dict[str, Any]) -> Report:
    """What was found, as it is answered."""
    swatches = [{**swatch, "on_white": round(contrast(swatch["colour"], WHITE), 2)} for swatch in report["palette"]]
    return Report(**{**report, "neck_mm": NECK_MM, "palette": swatches})


def prepared_shape(desk: Desk, artwork_id: int) -> Prepared:
    """An artwork with its preparation, as it is answered."""
    row = desk.dropped_art(artwork_id)
    taken = desk.preparing.taken(row)
    if taken.sha256 != row.sha256:
        report = desk.preparing.make(row, row.preparation).report
    else:
        report = report_of(desk.preparing.held(row, Preparation(width_mm=row.preparation.width_mm)))
        report["px"] = list(row.facts.px)
    licence = desk.origins.licence(artwork_id)
    return Prepared(
        artwork=art_shape(taken), original_px=row.facts.px, original_mm=row.facts.size.claimed_mm,
        steps=[StepBody(**step.as_dict()) for step in row.preparation.steps], width_mm=row.preparation.width_mm,
        can_undo=row.step > 0, can_redo=row.step < row.last_step, report=report_shape(report),
        origin=OriginBody(**row.origin.as_dict()), altered=row.altered, licence_file=licence[1] if licence else None,
    )  # fmt: skip


def blueprint(desk: Desk) -> APIBlueprint:
    """More addresses under /api/artworks."""
    api = part(desk, "preparations", "artworks", "/api/artworks")

    def answer(path: ArtPath) -> dict[str, Any]:
        return prepared_shape(desk, path.artwork_id).model_dump()

    @api.get("/steps", responses={200: Kinds})
    def kinds() -> dict[str, Any]:
        """Every kind of step."""
        return Kinds(kinds=[KindShape.of(kind) for kind in KINDS.values()]).model_dump()

    @api.get("/<int:artwork_id>/preparation", responses={200: Prepared})
    def preparation(path: ArtPath) -> dict[str, Any]:
        """An artwork's steps, and what came of them."""
        return answer(path)

    @api.put("/<int:artwork_id>/preparation", responses={200: Prepared})
    def decide(path: ArtPath, body: PreparationBody) -> dict[str, Any]:
        """Decide an artwork's steps. They are carried out on the whole picture first, and refused if they cannot be."""
        row, decided = desk.dropped_art(path.artwork_id), body.to_core()
        if decided.active:
            desk.preparing.make(row, decided)
        desk.preparations.decide(path.artwork_id, decided)
        return answer(path)

    @api.post("/<int:artwork_id>/preparation/undo", responses={200: Prepared})
    def undo(path: ArtPath) -> dict[str, Any]:
        """Go one step back in the preparation's history."""
        desk.preparations.move(desk.dropped_art(path.artwork_id).id, -1)
        return answer(path)

    @api.post("/<int:artwork_id>/preparation/redo", responses={200: Prepared})
    def redo(path: ArtPath) -> dict[str, Any]:
        """Go one step forward in the preparation's history."""
        desk.preparations.move(desk.dropped_art(path.artwork_id).id, 1)
        return answer(path)

    @api.get("/<int:artwork_id>/held")
    def held(path: ArtPath, query: HeldQuery) -> Response:
        """A small picture after steps that are not decided yet, as PNG with its transparency."""
        picture = desk.preparing.held(desk.dropped_art(path.artwork_id), _asked(query.preparation))
        data = shown(picture, query.px).pngsave_buffer(compression=1, filter="none", keep="none")
        return Response(data, mimetype="image/png")

    @api.get("/<int:artwork_id>/held/report", responses={200: Report})
    def held_report(path: ArtPath, query: HeldQuery) -> dict[str, Any]:
        """What is found on a small picture after steps that are not decided yet."""
        picture = desk.preparing.held(desk.dropped_art(path.artwork_id), _asked(query.preparation))
        return report_shape(report_of(picture)).model_dump()

    @api.put("/<int:artwork_id>/origin", responses={200: Prepared})
    def note_origin(path: ArtPath, body: OriginBody) -> dict[str, Any]:
        """Note where an artwork comes from, and what its licence allows."""
        desk.origins.note(desk.dropped_art(path.artwork_id).id, body.to_core())
        return answer(path)

    @api.put("/<int:artwork_id>/licence", responses={200: Prepared})
    def keep_licence(path: ArtPath, form: UploadForm) -> dict[str, Any]:
        """Keep the licence's own file with the artwork."""
        data = form.file.stream.read()
        if len(data) > MOST_LICENCE_MB * 1_000_000:
            raise BadStep(f"The licence's file is over {MOST_LICENCE_MB} MB: keep its text or a smaller scan.")
        desk.origins.keep_licence(desk.dropped_art(path.artwork_id).id, data, plain_name(form.file.filename))
        return answer(path)

    @api.get("/<int:artwork_id>/licence")
    def licence(path: ArtPath) -> Response:
        """The licence's file, as it was kept; it is downloaded and never shown, whatever is in it."""
        found = desk.origins.licence(desk.dropped_art(path.artwork_id).id)
        if found is None:
            raise NotHere("No licence's file is kept with this artwork.")
        answer = Response(desk.database.blob(found[0]), mimetype="application/octet-stream")
        answer.headers.set("Content-Disposition", "attachment", filename=found[1])
        return answer

    @api.delete("/<int:artwork_id>/licence", responses={200: Prepared})
    def drop_licence(path: ArtPath) -> dict[str, Any]:
        """Take the licence's file away."""
        desk.origins.drop_licence(desk.dropped_art(path.artwork_id).id)
        return answer(path)

    return api
