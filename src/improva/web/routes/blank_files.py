"""Files of a blank: a provider's guide for each panel, and the printer's ICC profile."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.artworks import plain_name
from ...app.errors import NotFoundError
from ...app.foreign_files import PROFILE, read_guide_file
from ..context import services
from ..presenters.blanks import blank_of_id_out
from ..routing import Routes, binary
from ..schemas.blanks import BlankOut, BlankPath, GuideTraceOut, PanelPath
from ..schemas.common import UploadForm

api = Routes("blanks", "/api/blanks")


def _answer(template_id: str) -> dict[str, Any]:
    return blank_of_id_out(services, template_id)


@api.post("/guide", responses={200: GuideTraceOut})
def trace_guide(form: UploadForm) -> dict[str, Any]:
    """Read the zones of a provider's guide without storing it."""
    guide = read_guide_file(services.reader, form.file.stream.read())
    return GuideTraceOut(
        px=guide.px, claimed_mm=guide.claimed_mm, trim=guide.zones.trim, rectangular=guide.zones.rectangular
    ).model_dump()


@api.put("/<template_id>/panels/<panel_id>/guide", responses={200: BlankOut})
def set_guide(path: PanelPath, form: UploadForm) -> dict[str, Any]:
    """Store a provider's guide as an overlay on a panel. It is never printed."""
    panel, data = services.blanks.get(path.template_id).panel(path.panel_id), form.file.stream.read()
    read_guide_file(services.reader, data)
    services.store.blanks.keep_file(path.template_id, "guide", data, plain_name(form.file.filename), panel.id)
    return _answer(path.template_id)


@api.delete("/<template_id>/panels/<panel_id>/guide", responses={200: BlankOut})
def remove_guide(path: PanelPath) -> dict[str, Any]:
    """Remove the guide of a panel."""
    services.store.blanks.drop_file(path.template_id, "guide", path.panel_id)
    return _answer(path.template_id)


@api.get("/<template_id>/panels/<panel_id>/guide", responses={200: binary("image/png")})
def get_guide_picture(path: PanelPath) -> Response:
    """Return the guide as PNG, at the print file's full size.

    Raises :class:`NotFoundError` where the panel has none.
    """
    file = services.store.blanks.file(path.template_id, "guide", path.panel_id)
    if file is None:
        raise NotFoundError("No guide lies over this panel.")
    guide = read_guide_file(services.reader, services.store.database.blob(file.sha256))
    picture = Response(guide.picture, mimetype="image/png")
    picture.headers["ETag"] = f'"{file.sha256}"'
    return picture


@api.put("/<template_id>/profile", responses={200: BlankOut})
def set_profile(path: BlankPath, form: UploadForm) -> dict[str, Any]:
    """Store the printer's ICC profile for this blank."""
    services.blanks.get(path.template_id)
    data = form.file.stream.read()
    services.reader.read(PROFILE, data)
    services.store.blanks.keep_file(path.template_id, "profile", data, plain_name(form.file.filename))
    services.blanks.refresh()
    return _answer(path.template_id)


@api.delete("/<template_id>/profile", responses={200: BlankOut})
def remove_profile(path: BlankPath) -> dict[str, Any]:
    """Remove the ICC profile of a blank."""
    services.store.blanks.drop_file(path.template_id, "profile")
    services.blanks.refresh()
    return _answer(path.template_id)
