"""Request checks: only the application's own page may change data."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Response, request
from flask_openapi3 import OpenAPI

from .errors import problem


def refuse_other_sites() -> Response | None:
    """Refuse changes requested by other sites' pages in the same browser."""
    origin = request.headers.get("Origin")
    if request.method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != request.host:
        return problem(403, "Only Improva's own page may change things here.")
    return None


def protect(app: OpenAPI) -> None:
    """Check every request before its handler."""
    app.before_request(refuse_other_sites)
