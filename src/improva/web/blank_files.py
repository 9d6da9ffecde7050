"""Files that belong to a blank: a provider's guide for each side, and the printer's colour profile."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..core.guide import laid_over, read_guide, trace
from ..core.ink import open_profile
from .artworks import plain_name
from .blank_shapes import Blank
from .blanks import BlankPath, FileForm, one_blank
from .desk import Desk
from .parts import part
from .problems import NotHere

GUIDE_PX = 1800


class PanelPath(BlankPath):
    """Which panel of which blank."""

    panel_id: str


class TracedShape(BaseModel):
    """What a guide tells: its pixels, the size it gives itself, and its clear part as fractions (x, y, w, h)."""

    px: tuple[int, int]
    claimed_mm: tuple[float, float] | None
    trim: tuple[float, float, float, float] | None
    rectangular: float


def blueprint(desk: Desk) -> APIBlueprint:
    """More addresses under /api/blanks."""
    api = part(desk, "blank_files", "blanks", "/api/blanks")

    def answer(template_id: str) -> dict[str, Any]:
        return one_blank(desk, template_id)

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
