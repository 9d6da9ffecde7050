"""The shelf of blanks: which stand on the board, what each is judged by, and blanks of the seller's own."""

from __future__ import annotations

import re
import tomllib
from typing import Any, Literal

from flask import Response
from flask_openapi3 import APIBlueprint, FileStorage, Tag
from pydantic import BaseModel, Field

from ..core.errors import BadTemplate
from ..core.guide import laid_over, read_guide, trace
from ..core.ink import open_profile
from ..core.limits import LIMITS, checked_limits
from ..core.measured import Measures, measured_template
from ..core.output.naming import slug
from ..core.template import Template
from ..core.template_file import parse_template, write_toml
from ..proofing import template_report
from .artworks import plain_name
from .desk import Desk
from .problems import NotHere
from .shapes import Blank, LimitShape, Shape, Shelf, TemplateShape

MAX_TOML_BYTES = 400_000
GUIDE_PX = 1800


class BlankPath(BaseModel):
    """Which blank."""

    template_id: str


class PanelPath(BlankPath):
    """Which panel of which blank."""

    panel_id: str


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


class TracedShape(BaseModel):
    """What a guide tells: its pixels, the size it gives itself, and its clear part as fractions (x, y, w, h)."""

    px: tuple[int, int]
    claimed_mm: tuple[float, float] | None
    trim: tuple[float, float, float, float] | None
    rectangular: float


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


def _new_id(desk: Desk, title: str) -> str:
    taken = {*desk.templates(), *desk.blanks.used_ids()}
    base = f"own-{slug(title)}"
    return next(i for i in (base, *(f"{base}-{n}" for n in range(2, 10_000))) if i not in taken)


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses under /api/blanks."""
    api = APIBlueprint("blanks", __name__, url_prefix="/api/blanks", abp_tags=[Tag(name="blanks")])

    def answer(template_id: str) -> dict[str, Any]:
        template = desk.template(template_id)
        on_board = template_id in {t.id for t in desk.board_blanks()}
        return blank_shape(desk, template, on_board, desk.blanks.limits().get(template_id, {})).model_dump()

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

    @api.put("/<template_id>/limits/<name>", responses={200: Blank})
    def limit(path: LimitPath, body: LimitBody) -> dict[str, Any]:
        """Judge a blank by another limit."""
        checked_limits(
            {path.name: LIMITS[path.name].default if path.name in LIMITS and body.value is None else body.value or 0.0}
        )
        desk.template(path.template_id)
        desk.blanks.set_limit(path.template_id, path.name, body.value)
        desk.forget_templates()
        return answer(path.template_id)

    @api.post("/guide", responses={200: TracedShape})
    def read_only(form: FileForm) -> dict[str, Any]:
        """What a guide tells of its zones, without keeping it."""
        guide = read_guide(form.file.stream.read())
        found = trace(guide)
        return TracedShape(
            px=guide.px, claimed_mm=guide.claimed_mm, trim=found.trim, rectangular=found.rectangular
        ).model_dump()

    @api.put("/<template_id>/panels/<panel_id>/guide", responses={200: Blank})
    def keep_guide(path: PanelPath, form: FileForm) -> dict[str, Any]:
        """Lay a provider's guide over a panel. It is only shown, never printed."""
        panel, data = desk.template(path.template_id).panel(path.panel_id), form.file.stream.read()
        read_guide(data)
        desk.blanks.keep_file(path.template_id, "guide", data, plain_name(form.file.filename), panel.id)
        return answer(path.template_id)

    @api.delete("/<template_id>/panels/<panel_id>/guide", responses={200: Blank})
    def drop_guide(path: PanelPath) -> dict[str, Any]:
        """Take the guide away."""
        desk.blanks.drop_file(path.template_id, "guide", path.panel_id)
        return answer(path.template_id)

    @api.get("/<template_id>/panels/<panel_id>/guide")
    def guide_picture(path: PanelPath) -> Response:
        """The guide as PNG, to be laid over the flat at the print file's full size."""
        found = desk.blanks.file(path.template_id, "guide", path.panel_id)
        if found is None:
            raise NotHere("No guide lies over this panel.")
        image = laid_over(read_guide(desk.database.blob(found.sha256)), GUIDE_PX)
        picture = Response(image.pngsave_buffer(compression=3, keep="none"), mimetype="image/png")
        picture.headers["ETag"] = f'"{found.sha256}"'
        return picture

    @api.put("/<template_id>/profile", responses={200: Blank})
    def keep_profile(path: BlankPath, form: FileForm) -> dict[str, Any]:
        """Hold colours on this blank against a printer's ICC profile."""
        desk.template(path.template_id)
        data = form.file.stream.read()
        open_profile(data)
        desk.blanks.keep_file(path.template_id, "profile", data, plain_name(form.file.filename))
        desk.forget_templates()
        return answer(path.template_id)

    @api.delete("/<template_id>/profile", responses={200: Blank})
    def drop_profile(path: BlankPath) -> dict[str, Any]:
        """Take the profile away."""
        desk.blanks.drop_file(path.template_id, "profile")
        desk.forget_templates()
        return answer(path.template_id)

    return api
