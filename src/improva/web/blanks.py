"""The shelf of blanks: which stand on the board, what each is judged by, and blanks of the seller's own."""

from __future__ import annotations

import re
import tomllib
from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint, FileStorage
from pydantic import BaseModel, Field

from ..core.errors import BadTemplate
from ..core.limits import LIMITS, checked_limits, known_limit
from ..core.measured import Measures, measured_template
from ..core.output.naming import slug
from ..core.template import Template
from ..core.template_file import parse_template, write_toml
from ..proofing import template_report
from .blank_shapes import Blank, LimitShape, Shelf, TemplateShape
from .desk import Desk
from .parts import part
from .shapes import Shape

MAX_TOML_BYTES = 400_000


class BlankPath(BaseModel):
    """Which blank."""

    template_id: str


class LimitPath(BlankPath):
    """Which limit of which blank."""

    name: str


class FileForm(BaseModel):
    """A file, as a form's part named ``file``."""

    file: FileStorage


class BoardBody(Shape):
    """The blanks on the board, in their order."""

    template_ids: list[str] = Field(min_length=1, max_length=200)


class LimitBody(Shape):
    """A limit of the seller's own; None goes back to what ships."""

    value: float | None


class MeasuresBody(Shape):
    """What was measured on a blank, lengths in mm."""

    title: str = Field(default="", max_length=80)
    form: Literal["round", "flat", "pixels"]
    kind: Literal["tumbler", "mug", "pen", "pillow", "blanket", "flag", "transfer", "garment", "own"] = "own"
    top_mm: float = 0
    bottom_mm: float = 0
    height_mm: float = 0
    width_mm: float = 0
    gap_mm: float = Field(default=0, ge=0)
    bleed_mm: float = Field(default=0, ge=0, le=500)
    safe_mm: float = Field(default=5, ge=0, le=500)
    file_px: tuple[int, int] = (0, 0)
    dpi: float | None = Field(default=None, ge=10, le=2400)
    route: Literal["press", "upload"] = "press"
    default_fit: Literal["cover", "contain"] = "cover"
    blank_colour: str = "#f3f2ee"

    def to_core(self) -> Measures:
        """The core's value."""
        return Measures(**self.model_dump())


def _checked(template: Template) -> Template:
    """A template as reading it back from its file makes it, so that nothing is kept that could not be read."""
    return parse_template(tomllib.loads(write_toml(template)), own=True)


def _limits(template: Template, shipped: dict[str, float], own: dict[str, float]) -> list[LimitShape]:
    return [
        LimitShape(name=name, title=limit.title, unit=limit.unit, value=template.limit(name), default=shipped.get(name, limit.default),
                   least=limit.least, most=limit.most, source=limit.source, changed=name in own)
        for name, limit in LIMITS.items()
    ]  # fmt: skip


def blank_shape(desk: Desk, template: Template, on_board: bool, own: dict[str, float]) -> Blank:
    """A blank as it is answered."""
    guides = {p.id: found.file_name for p in template.panels if (found := desk.blanks.file(template.id, "guide", p.id))}
    profile = desk.blanks.file(template.id, "profile")
    return Blank(template=TemplateShape(**template_report(template)), on_board=on_board,
                 limits=_limits(template, desk.shipped_limits(template.id), own), guides=guides,
                 profile=profile.file_name if profile else None)  # fmt: skip


def one_blank(desk: Desk, template_id: str) -> dict[str, Any]:
    """A blank as it is answered, by its id. Raises :class:`BadTemplate`."""
    template = desk.template(template_id)
    on_board = template_id in {t.id for t in desk.board_blanks()}
    return blank_shape(desk, template, on_board, desk.blanks.limits().get(template_id, {})).model_dump()


def _new_id(desk: Desk, title: str) -> str:
    taken = {*desk.templates(), *desk.blanks.used_ids()}
    base = f"own-{slug(title)}"
    return next(i for i in (base, *(f"{base}-{n}" for n in range(2, 10_000))) if i not in taken)


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/blanks."""
    api = part(desk, "blanks", "blanks", "/api/blanks")

    def answer(template_id: str) -> dict[str, Any]:
        return one_blank(desk, template_id)

    def own(template_id: str) -> Template:
        template = desk.template(template_id)
        if not template.own:
            raise BadTemplate(f"{template.title} ships with Improva and stays as it is: measure a blank of your own instead.")
        return template

    def keep(template: Template) -> dict[str, Any]:
        desk.blanks.keep(template)
        desk.forget_templates()
        desk.blanks.set_board([*(t.id for t in desk.board_blanks()), template.id])
        return answer(template.id)

    def everything() -> dict[str, Any]:
        on_board, limits = {t.id for t in desk.board_blanks()}, desk.blanks.limits()
        found = [blank_shape(desk, t, t.id in on_board, limits.get(t.id, {})) for t in desk.templates().values()]
        return Shelf(blanks=found).model_dump()

    @api.get("", responses={200: Shelf})
    def shelf() -> dict[str, Any]:
        """Every blank, with its limits."""
        return everything()

    @api.put("/board", responses={200: Shelf})
    def set_board(body: BoardBody) -> dict[str, Any]:
        """Choose the blanks on the board."""
        for template_id in body.template_ids:
            desk.template(template_id)
        desk.blanks.set_board(body.template_ids)
        return everything()

    @api.post("/drawing", responses={200: TemplateShape})
    def drawing(body: MeasuresBody) -> dict[str, Any]:
        """The blank that measures make, without keeping it."""
        return TemplateShape(**template_report(_checked(measured_template("drawing", body.to_core())))).model_dump()

    @api.post("/measured", responses={201: Blank})
    def measured(body: MeasuresBody) -> tuple[dict[str, Any], int]:
        """Keep a blank of one's own and put it on the board."""
        template = measured_template(_new_id(desk, body.title or "blank"), body.to_core())
        return keep(_checked(template)), 201

    @api.post("/import", responses={201: Blank})
    def take_in(form: FileForm) -> tuple[dict[str, Any], int]:
        """Take in a template file. One with the id of a blank that exists becomes a blank beside it."""
        data = form.file.stream.read(MAX_TOML_BYTES + 1)
        if len(data) > MAX_TOML_BYTES:
            raise BadTemplate("This file is far larger than any template: choose the .toml file that was exported.")
        try:
            found = tomllib.loads(data.decode("utf-8"))
        except (UnicodeDecodeError, tomllib.TOMLDecodeError) as broken:
            raise BadTemplate(f"This is not a template file: {broken}.") from broken
        wanted = str(found.get("id", ""))
        if not re.fullmatch(r"[a-z0-9][a-z0-9-]{0,79}", wanted) or wanted in {*desk.templates(), *desk.blanks.used_ids()}:
            found["id"] = _new_id(desk, str(found.get("title", "blank")))
        return keep(parse_template(found, own=True)), 201

    @api.get("/<template_id>/toml")
    def export(path: BlankPath) -> Response:
        """A blank as a template file."""
        found = Response(write_toml(desk.template(path.template_id)), mimetype="application/toml")
        found.headers["Content-Disposition"] = f'attachment; filename="{path.template_id}.toml"'
        return found

    @api.delete("/<template_id>")
    def remove(path: BlankPath) -> tuple[str, int]:
        """Put a blank of one's own away."""
        desk.blanks.remove(own(path.template_id).id)
        desk.forget_templates()
        return "", 204

    @api.post("/<template_id>/restore", responses={200: Blank})
    def restore(path: BlankPath) -> dict[str, Any]:
        """Bring back a blank of one's own that was put away."""
        if path.template_id not in desk.blanks.used_ids():
            raise BadTemplate(f"There never was a blank of yours '{path.template_id}': measure it.")
        desk.blanks.restore(path.template_id)
        desk.forget_templates()
        desk.blanks.set_board([*(t.id for t in desk.board_blanks()), path.template_id])
        return answer(path.template_id)

    @api.put("/<template_id>/limits/<name>", responses={200: Blank})
    def limit(path: LimitPath, body: LimitBody) -> dict[str, Any]:
        """Judge a blank by another limit."""
        checked_limits({path.name: known_limit(path.name).default if body.value is None else body.value})
        desk.template(path.template_id)
        desk.blanks.set_limit(path.template_id, path.name, body.value)
        desk.forget_templates()
        return answer(path.template_id)

    return api
