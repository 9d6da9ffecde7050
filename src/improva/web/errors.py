"""Errors as RFC 9457 problem documents, each with a sentence for the user."""

from __future__ import annotations

import logging
import sqlite3
from http import HTTPStatus

from flask import Response, jsonify
from flask_openapi3 import Info, OpenAPI
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from .. import __version__
from ..app.errors import GivenUpError, NotFoundError, StaleEditError
from ..core.errors import ArtworkError, DiskFullError, ImprovaError
from .schemas.common import Out

log = logging.getLogger("improva")
MAX_UPLOAD_MB = 250


class ProblemOut(Out):
    """An RFC 9457 problem. ``detail`` says what is wrong and what to do."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str


def problem(status: int, detail: str, title: str | None = None) -> Response:
    """Return a problem response in its media type."""
    body = ProblemOut(title=title or HTTPStatus(status).phrase, status=status, detail=detail)
    answer: Response = jsonify(body.model_dump())
    answer.status_code = status
    answer.mimetype = "application/problem+json"
    return answer


def invalid(error: ValidationError) -> Response:
    """Return pydantic's findings on a request as one sentence."""
    first = error.errors()[0]
    where = " ".join(str(part) for part in first["loc"]) or "the request"
    return problem(422, f"{where}: {first['msg']}.", "The request cannot be read")


HTTP_SENTENCES = {
    400: "The request cannot be read.",
    404: "There is nothing at this address. Go back to the board.",
    405: "This address cannot be used that way.",
    413: f"The file is over {MAX_UPLOAD_MB} MB. Save it as PNG or JPEG at the size you print, and drop it again.",
}


def make_openapi() -> OpenAPI:
    """Return a bare application with the limits and error responses that all routes share."""
    app = OpenAPI(
        "improva",
        info=Info(title="Improva", version=__version__),
        static_folder=None,
        doc_ui=False,
        validation_error_status=422,
        validation_error_callback=invalid,
    )
    app.config["MAX_CONTENT_LENGTH"] = MAX_UPLOAD_MB * 1_000_000
    app.json.sort_keys = False  # type: ignore[attr-defined]  # views and parts stand in their scene's order
    return app


def register_errors(app: OpenAPI) -> None:
    """Convert every error to a problem document."""

    @app.errorhandler(ImprovaError)
    def ours(error: ImprovaError) -> Response:
        if isinstance(error, NotFoundError):
            return problem(404, str(error), "Not on the board")
        if isinstance(error, StaleEditError | GivenUpError):
            return problem(409, str(error))
        return problem(422, str(error), "The artwork cannot be used" if isinstance(error, ArtworkError) else None)

    @app.errorhandler(DiskFullError)
    def full(error: DiskFullError) -> Response:
        return problem(507, str(error))

    @app.errorhandler(sqlite3.OperationalError)
    def cannot_store(error: sqlite3.OperationalError) -> Response:
        log.error("the database cannot be written", exc_info=error)
        if "locked" in str(error):
            return problem(503, "The board is busy: try again in a moment. Nothing was changed.")
        return problem(
            507, f"The records cannot be written ({error}): make room on the disk, and try again. Nothing was changed."
        )

    @app.errorhandler(OverflowError)
    def too_large(_: OverflowError) -> Response:
        return problem(422, "A number in this request is too large.")

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        status = error.code or 500
        return problem(status, HTTP_SENTENCES.get(status, error.description or "The request failed."))

    @app.errorhandler(Exception)
    def unforeseen(error: Exception) -> Response:
        log.exception("unforeseen error", exc_info=error)
        return problem(500, "Something went wrong on our side, and nothing of yours was changed. Try again.")
