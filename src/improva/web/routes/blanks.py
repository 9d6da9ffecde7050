"""Blanks: which are on the board, their limits, and the seller's own blanks."""

from __future__ import annotations

import re
import tomllib
from typing import Any

from flask import Response

from ...app.foreign_files import TEMPLATE
from ...app.reports import template_report
from ...app.services import Services
from ...core.errors import TemplateError
from ...core.limits import checked_limits, known_limit
from ...core.listing import sold_parts
from ...core.measured_blank import measured_template
from ...core.output.file_names import slug
from ...core.template import Template
from ...core.template_file import parse_template, write_toml
from ..context import services
from ..presenters.blanks import blank_of_id_out, blank_out
from ..routing import Routes, binary
from ..schemas.blanks import BlankOut, BlankPath, BoardIn, LimitIn, LimitPath, MeasuresIn, OfferedIn, ShelfOut, TemplateOut
from ..schemas.common import UploadForm

api = Routes("blanks", "/api/blanks")


def _checked(template: Template) -> Template:
    """Return a template as read back from its own file, so that nothing unreadable is stored."""
    return parse_template(tomllib.loads(write_toml(template)), own=True)


def _new_id(services: Services, title: str) -> str:
    used = {*services.blanks.all(), *services.store.blanks.used_ids()}
    base = f"own-{slug(title)}"
    return next(i for i in (base, *(f"{base}-{n}" for n in range(2, 10_000))) if i not in used)


def _answer(template_id: str) -> dict[str, Any]:
    return blank_of_id_out(services, template_id)


def _own_blank(template_id: str) -> Template:
    template = services.blanks.get(template_id)
    if not template.own:
        raise TemplateError(f"{template.title} ships with Improva and cannot be changed: measure a blank of your own instead.")
    return template


def _keep(template: Template) -> dict[str, Any]:
    services.store.blanks.keep(template)
    services.blanks.refresh()
    services.store.blanks.set_board([*(t.id for t in services.blanks.on_board()), template.id])
    return _answer(template.id)


def _all_blanks() -> dict[str, Any]:
    on_board, limits = {t.id for t in services.blanks.on_board()}, services.store.blanks.limits()
    blanks = [blank_out(services, t, t.id in on_board, limits.get(t.id, {})) for t in services.blanks.all().values()]
    return ShelfOut(blanks=blanks).model_dump()


@api.get("", responses={200: ShelfOut})
def list_blanks() -> dict[str, Any]:
    """List every blank with its limits."""
    return _all_blanks()


@api.put("/board", responses={200: ShelfOut})
def set_board_blanks(body: BoardIn) -> dict[str, Any]:
    """Set the blanks on the board."""
    for template_id in body.template_ids:
        services.blanks.get(template_id)
    services.store.blanks.set_board(body.template_ids)
    return _all_blanks()


@api.post("/drawing", responses={200: TemplateOut})
def draw_measured_blank(body: MeasuresIn) -> dict[str, Any]:
    """Return the blank that follows from measures, without storing it."""
    return TemplateOut(**template_report(_checked(measured_template("drawing", body.to_core())))).model_dump()


@api.post("/measured", responses={201: BlankOut})
def add_measured_blank(body: MeasuresIn) -> tuple[dict[str, Any], int]:
    """Add a measured blank and put it on the board."""
    template = measured_template(_new_id(services, body.title or "blank"), body.to_core())
    return _keep(_checked(template)), 201


@api.post("/import", responses={201: BlankOut})
def import_blank(form: UploadForm) -> tuple[dict[str, Any], int]:
    """Import a template file. If its id is taken, the blank gets a new one.

    Raises :class:`TemplateError` for a file that is broken or too large.
    """
    found = services.reader.read(TEMPLATE, form.file.stream.read()).values
    table, wanted = tomllib.loads(found["toml"]), found["id"]
    table["id"] = wanted
    if not re.fullmatch(r"[a-z0-9][a-z0-9-]{0,79}", wanted) or wanted in {
        *services.blanks.all(),
        *services.store.blanks.used_ids(),
    }:
        table["id"] = _new_id(services, str(table["title"]))
    return _keep(parse_template(table, own=True)), 201


@api.get("/<template_id>/toml", responses={200: binary("application/toml")})
def export_blank(path: BlankPath) -> Response:
    """Return a blank as a template file."""
    response = Response(write_toml(services.blanks.get(path.template_id)), mimetype="application/toml")
    response.headers["Content-Disposition"] = f'attachment; filename="{path.template_id}.toml"'
    return response


@api.put("/<template_id>/offered", responses={200: BlankOut})
def put_offered_colours(path: BlankPath, body: OfferedIn) -> dict[str, Any]:
    """Set the colours in which the seller offers a part of a blank. Listings picture no other ones.

    Raises :class:`TemplateError` for a part or a colour that the blank does not have.
    """
    blank = services.blanks.get(path.template_id)
    part = next((p for info in services.scenes.of(blank) for p in sold_parts(info) if p.id == body.part), None)
    if part is None:
        raise TemplateError(f"{blank.title} has no part '{body.part}' that comes in several colours.")
    if unknown := [name for name in body.colours or () if name not in part.colours]:
        raise TemplateError(f"{part.title} does not come in {', '.join(unknown)}: choose of {', '.join(part.colours)}.")
    services.store.blanks.offer(blank.id, part.id, body.colours)
    return _answer(blank.id)


@api.delete("/<template_id>", responses={204: None})
def remove_blank(path: BlankPath) -> tuple[str, int]:
    """Remove one of the seller's own blanks."""
    services.store.blanks.remove(_own_blank(path.template_id).id)
    services.blanks.refresh()
    return "", 204


@api.post("/<template_id>/restore", responses={200: BlankOut})
def restore_blank(path: BlankPath) -> dict[str, Any]:
    """Restore a blank of the seller's own that was removed.

    Raises :class:`TemplateError` where there is no such blank.
    """
    if path.template_id not in services.store.blanks.used_ids():
        raise TemplateError(f"You have no blank '{path.template_id}': measure it.")
    services.store.blanks.restore(path.template_id)
    services.blanks.refresh()
    services.store.blanks.set_board([*(t.id for t in services.blanks.on_board()), path.template_id])
    return _answer(path.template_id)


@api.put("/<template_id>/limits/<name>", responses={200: BlankOut})
def set_limit(path: LimitPath, body: LimitIn) -> dict[str, Any]:
    """Set one of a blank's limits."""
    checked_limits({path.name: known_limit(path.name).default if body.value is None else body.value})
    services.blanks.get(path.template_id)
    services.store.blanks.set_limit(path.template_id, path.name, body.value)
    services.blanks.refresh()
    return _answer(path.template_id)
