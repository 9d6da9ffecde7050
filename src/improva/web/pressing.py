"""The Press station: plan, makers' figures, the log, and what is learned from it."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..core.artwork.pixels import Artwork
from ..core.errors import BadPress
from ..core.press import (
    CAUTIONS,
    FAULTS,
    METHODS,
    PLATEN_MM,
    Pressing,
    common_figures,
    methods_of,
    press_plan,
    suggest,
    total_seconds,
)
from ..core.press.learned import RULE
from ..core.template import Template
from ..store.pressings import PressRow
from .artworks import UploadForm
from .desk import Desk
from .parts import part
from .press_shapes import (
    CauseShape,
    FaultShape,
    FiguresBody,
    LogEntry,
    MakerBody,
    PressBody,
    PressingBody,
    PressQuery,
    PressState,
    StepShape,
)
from .problems import NotHere
from .shapes import PairPath

PAIR_AT = "/api/pairs/<int:artwork_id>/<template_id>/press"
PHOTO_PX = 1600
PLATEN_LIMITS_MM = (50.0, 2000.0)


class PressingPath(BaseModel):
    """Which entry of the log."""

    pressing_id: int


def _press_of(desk: Desk, method: Any, name: str) -> PressRow:
    known = desk.pressings.presses(method)
    found = next((press for press in known if press.name == name), None) or (None if name else next(iter(known), None))
    return found or PressRow(name or f"My {METHODS[method].lower()}", method, PLATEN_MM)


def chosen_press(desk: Desk, template: Template, query: PressQuery) -> tuple[Any, PressRow, str]:
    """Method, press and finish. Raises :class:`BadPress` where the blank does not go into such a press."""
    method = query.method or methods_of(template)[0]
    common_figures(template, method)
    finish = query.finish if query.finish in template.finishes else next(iter(template.finishes), "")
    return method, _press_of(desk, method, query.press), finish


def press_state(desk: Desk, template: Template, query: PressQuery) -> PressState:
    """Everything about pressing a blank."""
    method, press, finish = chosen_press(desk, template, query)
    common, maker = common_figures(template, method), desk.pressings.maker(template.id, finish, method)
    log = desk.pressings.log(template.id, finish, method, press.name)
    found = suggest([row.pressing for row in log], maker or common)
    panel = template.panel(query.panel)
    by_maker = maker is not None and query.by != "log"
    figures = maker if maker is not None and by_maker else found.figures
    steps = press_plan(template, panel, method, figures, press.platen_mm)
    presses = {p.name: p for p in [*desk.pressings.presses(method), press]}
    return PressState(
        method=method, methods={m: METHODS[m] for m in methods_of(template)}, press=press.name,
        presses=[PressBody(name=p.name, method=p.method, platen_mm=p.platen_mm) for p in presses.values()],
        finish=finish, finishes=list(template.finishes), by="maker" if by_maker else "log", figures=FiguresBody.of(figures),
        suggested=FiguresBody.of(found.figures) if log else None, why=list(found.why), rule=RULE,
        common=FiguresBody.of(common), maker=FiguresBody.of(maker) if maker else None,
        steps=[StepShape(do=s.do, kind=s.kind, lie=s.lie, seconds=s.seconds, temperature_c=s.temperature_c,
                         temperature_f=s.temperature_f, pressure=s.pressure, box=s.part.box if s.part else None) for s in steps],
        total_s=total_seconds(steps), print_mm=panel.file_mm, cautions=list(CAUTIONS),
        faults=[FaultShape(id=f.id, title=f.title, looks=f.looks, causes=[CauseShape(**asdict(c)) for c in f.causes])
                for f in FAULTS],
        log=[LogEntry(id=row.pressing.id, on=row.pressing.on, figures=FiguresBody.of(row.pressing.figures),
                      result=row.pressing.result, faults=list(row.pressing.faults), note=row.pressing.note,
                      photo=row.photo is not None, counts=row.pressing.id in found.evidence) for row in log],
    )  # fmt: skip


def small_photo(data: bytes) -> bytes:
    """A photograph as it is kept beside a record: upright, small enough to look at, as JPEG. Raises :class:`BadArtwork`."""
    picture = Artwork.read(data).reduced(PHOTO_PX)
    flat = picture.flatten(background=[255, 255, 255]) if picture.hasalpha() else picture
    return bytes(flat.jpegsave_buffer(Q=88, keep="none"))


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of pressing."""
    api = part(desk, "pressing", "pressing")

    def answer(path: PairPath, query: PressQuery) -> dict[str, Any]:
        desk.dropped_art(path.artwork_id)
        return press_state(desk, desk.template(path.template_id), query).model_dump()

    @api.get(PAIR_AT, responses={200: PressState})
    def state(path: PairPath, query: PressQuery) -> dict[str, Any]:
        """The plan for a pair, its figures and their evidence, the log, and the cautions."""
        return answer(path, query)

    @api.put(f"{PAIR_AT}/maker", responses={200: PressState})
    def maker(path: PairPath, query: PressQuery, body: MakerBody) -> dict[str, Any]:
        """Keep the maker's figures for a blank and finish; they win over common practice."""
        template = desk.template(path.template_id)
        method, _, finish = chosen_press(desk, template, query)
        figures = body.figures.to_core().changed(source="maker") if body.figures else None
        desk.pressings.keep_maker(template.id, finish, method, figures)
        return answer(path, query)

    @api.put(f"{PAIR_AT}/machine", responses={200: PressState})
    def machine(path: PairPath, query: PressQuery, body: PressBody) -> dict[str, Any]:
        """Keep a press of the seller's."""
        low, high = PLATEN_LIMITS_MM
        if not all(low <= side <= high for side in body.platen_mm):
            raise BadPress(f"A platen must be {low:g} to {high:g} mm a side.")
        desk.pressings.keep_press(PressRow(body.name.strip() or "Press", body.method, body.platen_mm))
        return answer(path, query.model_copy(update={"press": body.name.strip()}))

    @api.post(f"{PAIR_AT}/log", responses={200: PressState})
    def log(path: PairPath, query: PressQuery, body: PressingBody) -> dict[str, Any]:
        """Log a pressing."""
        art, template = desk.dropped_art(path.artwork_id), desk.template(path.template_id)
        method, press, finish = chosen_press(desk, template, query)
        pressing = Pressing(0, body.on, body.figures.to_core(), body.result, tuple(body.faults), body.note)
        desk.pressings.add(template.id, finish, method, press.name, art.id, pressing)
        return answer(path, query)

    @api.put("/api/pressings/<int:pressing_id>/photo")
    def keep_photo(path: PressingPath, form: UploadForm) -> tuple[str, int]:
        """Keep a photograph with a pressing, upright and small enough to look at."""
        desk.pressings.keep_photo(path.pressing_id, small_photo(form.file.stream.read()))
        return "", 204

    @api.get("/api/pressings/<int:pressing_id>/photo")
    def photo(path: PressingPath) -> Response:
        """A pressing's photograph."""
        sha256 = desk.pressings.photo(path.pressing_id)
        if sha256 is None:
            raise NotHere("No photograph is kept with this pressing.")
        return Response(desk.database.blob(sha256), mimetype="image/jpeg")

    @api.delete("/api/pressings/<int:pressing_id>")
    def remove(path: PressingPath) -> tuple[str, int]:
        """Take an entry out of the log."""
        desk.pressings.remove(path.pressing_id)
        return "", 204

    return api
