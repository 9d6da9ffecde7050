"""Errors as RFC 9457 problem documents, each a sentence for the person at the page."""

from __future__ import annotations

import logging
from http import HTTPStatus

from flask import Response, jsonify
from flask_openapi3 import OpenAPI
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from ..core.errors import BadArtwork, ImprovaError

log = logging.getLogger("improva")
MAX_UPLOAD_MB = 250


class Problem(BaseModel):
    """An RFC 9457 problem. ``detail`` says what is wrong and what to do."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str


class NotHere(ImprovaError):
    """Something asked for that is not on the board, or no longer."""


def problem(status: int, detail: str, title: str | None = None) -> Response:
    """An answer in the media type of problems."""
    body = Problem(title=title or HTTPStatus(status).phrase, status=status, detail=detail)
    answer: Response = jsonify(body.model_dump())
    answer.status_code = status
    answer.mimetype = "application/problem+json"
    return answer


def invalid(error: ValidationError) -> Response:
    """What pydantic found wrong with a request, as one sentence."""
    first = error.errors()[0]
    where = " ".join(str(part) for part in first["loc"]) or "the request"
    return problem(422, f"{where}: {first['msg']}.", "The request cannot be read")


HTTP_SENTENCES = {
    404: "There is nothing at this address. Go back to the board.",
    405: "This address cannot be used that way.",
    413: f"The file is over {MAX_UPLOAD_MB} MB. Save it as PNG or JPEG at the size you print, and drop it again.",
}


def register(app: OpenAPI) -> None:
    """Turn every error into a problem document."""

    @app.errorhandler(ImprovaError)
    def ours(error: ImprovaError) -> Response:
        if isinstance(error, NotHere):
            return problem(404, str(error), "Not on the board")
        return problem(422, str(error), "The artwork cannot be used" if isinstance(error, BadArtwork) else None)

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        status = error.code or 500
        return problem(status, HTTP_SENTENCES.get(status, error.description or "The request failed."))

    @app.errorhandler(Exception)
    def unforeseen(error: Exception) -> Response:
        log.exception("unforeseen error", exc_info=error)
        return problem(500, "Something went wrong on our side, and nothing of yours was changed. Try again.")
