"""Pressing: the plan, the makers' figures, and the press log."""

from __future__ import annotations

from typing import Any

from flask import Response

from ...app.errors import NotFoundError
from ...app.foreign_files import read_photograph
from ...app.press import choose_press
from ...core.errors import PressError
from ...core.press import Pressing
from ...store.pressings import PressRow
from ..context import services
from ..presenters.press import press_out
from ..routing import Routes, binary
from ..schemas.common import PAIR_AT, PairPath, UploadForm
from ..schemas.press import MakerIn, PressIn, PressingIn, PressingPath, PressQuery, PressStateOut

api = Routes("pressing")

PRESS_AT = f"{PAIR_AT}/press"
PLATEN_LIMITS_MM = (50.0, 2000.0)


def _answer(path: PairPath, query: PressQuery) -> dict[str, Any]:
    services.artworks.imported(path.artwork_id)
    return press_out(services.store, services.blanks.get(path.template_id), query).model_dump()


@api.get(PRESS_AT, responses={200: PressStateOut})
def get_press_plan(path: PairPath, query: PressQuery) -> dict[str, Any]:
    """Return a pair's press plan: figures with their evidence, steps, log and cautions."""
    return _answer(path, query)


@api.put(f"{PRESS_AT}/maker", responses={200: PressStateOut})
def set_maker_figures(path: PairPath, query: PressQuery, body: MakerIn) -> dict[str, Any]:
    """Set the maker's figures for a blank and finish; they replace common practice."""
    template = services.blanks.get(path.template_id)
    method, _, finish = choose_press(services.store, template, query.to_choice())
    figures = body.figures.to_core().changed(source="maker") if body.figures else None
    services.store.pressings.keep_maker(template.id, finish, method, figures)
    return _answer(path, query)


@api.put(f"{PRESS_AT}/machine", responses={200: PressStateOut})
def set_press(path: PairPath, query: PressQuery, body: PressIn) -> dict[str, Any]:
    """Save one of the seller's presses.

    Raises :class:`PressError` for a platen that is too small or too large.
    """
    low, high = PLATEN_LIMITS_MM
    if not all(low <= side <= high for side in body.platen_mm):
        raise PressError(f"A platen must be {low:g} to {high:g} mm a side.")
    services.store.pressings.keep_press(PressRow(body.name.strip() or "Press", body.method, body.platen_mm))
    return _answer(path, query.model_copy(update={"press": body.name.strip()}))


@api.post(f"{PRESS_AT}/log", responses={200: PressStateOut})
def log_pressing(path: PairPath, query: PressQuery, body: PressingIn) -> dict[str, Any]:
    """Add a pressing to the log."""
    art, template = services.artworks.imported(path.artwork_id), services.blanks.get(path.template_id)
    method, press, finish = choose_press(services.store, template, query.to_choice())
    pressing = Pressing(0, body.on, body.figures.to_core(), body.result, tuple(body.faults), body.note)
    services.store.pressings.add(template.id, finish, method, press.name, art.id, pressing)
    return _answer(path, query)


@api.put("/api/pressings/<int:pressing_id>/photo", responses={204: None})
def set_pressing_photo(path: PressingPath, form: UploadForm) -> tuple[str, int]:
    """Store a photograph with a pressing, upright and reduced."""
    services.store.pressings.keep_photo(path.pressing_id, read_photograph(services.reader, form.file.stream.read()))
    return "", 204


@api.get("/api/pressings/<int:pressing_id>/photo", responses={200: binary("image/jpeg")})
def get_pressing_photo(path: PressingPath) -> Response:
    """Return the photograph of a pressing.

    Raises :class:`NotFoundError` where there is none.
    """
    sha256 = services.store.pressings.photo(path.pressing_id)
    if sha256 is None:
        raise NotFoundError("No photograph is kept with this pressing.")
    return Response(services.store.database.blob(sha256), mimetype="image/jpeg")


@api.delete("/api/pressings/<int:pressing_id>", responses={204: None})
def remove_pressing(path: PressingPath) -> tuple[str, int]:
    """Remove an entry from the log."""
    services.store.pressings.remove(path.pressing_id)
    return "", 204
