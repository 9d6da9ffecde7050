"""The built page: its document at every address of the page, and its files."""

from __future__ import annotations

from pathlib import Path

from flask import Response, request, send_from_directory
from flask_openapi3 import OpenAPI
from werkzeug.exceptions import NotFound

from .errors import HTTP_SENTENCES, problem

PAGE = Path(__file__).parent / "page"
DOCUMENT = "index.html"

PAGE_ADDRESSES = (
    "/",
    "/blanks",
    "/blanks/<template>",
    "/gang",
    "/orders",
    "/plan",
    "/bench/<int:artwork>/<template>",
    "/bench/<int:artwork>/<template>/<station>",
    "/photograph/<int:scene>/<int:artwork>",
)
"""The addresses that the page's own router knows (``frontend/src/router.tsx``)."""


def _file(name: str, status: int = 200) -> Response:
    if not (PAGE / DOCUMENT).is_file():
        return problem(503, "The page is not built yet: run 'make demo'.")
    answer = send_from_directory(PAGE, name, conditional=status == 200)
    hashed = name.startswith("assets/")  # the build puts a hash of the content into these names
    answer.headers["Cache-Control"] = "public, max-age=31536000, immutable" if hashed else "no-cache"
    if status != 200:
        answer.status_code = status
    return answer


def get_page(**address: object) -> Response:
    """Return the page's document, which reads its address itself."""
    return _file(DOCUMENT)


def get_page_file(name: str) -> Response:
    """Return a file of the page. Raises :class:`NotFound`."""
    return _file(name)


def nothing_here(_: NotFound) -> Response:
    """Answer an unknown address: browsers get the page, which says so, everything else a problem document."""
    wants_page = request.accept_mimetypes.best_match(["application/json", "text/html"]) == "text/html"
    if wants_page and request.method == "GET" and not request.path.startswith("/api/"):
        return _file(DOCUMENT, 404)
    return problem(404, HTTP_SENTENCES[404])


def register_page(app: OpenAPI) -> None:
    """Register the page's addresses and files, and the answer to unknown addresses."""
    for rule in PAGE_ADDRESSES:
        app.add_url_rule(rule, view_func=get_page)
    app.add_url_rule("/<path:name>", view_func=get_page_file)
    app.register_error_handler(NotFound, nothing_here)
