"""The web application of one data folder."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from flask import Response, send_from_directory
from flask_openapi3 import OpenAPI

from ..app.services import Services
from ..jobs.handlers import make_dispatcher
from .errors import make_openapi, problem, register_errors
from .routes import ALL_ROUTES
from .security import protect

PAGE = Path(__file__).parent / "page"


def create_app(data: Path) -> OpenAPI:
    """Return the application for a seller's data folder; the folder is created if missing.

    Raises:
        NewerDatabaseError: a newer version of Improva has written the folder's database.
    """
    app = make_openapi()
    services = Services.of_folder(data)
    app.extensions["services"] = services
    app.extensions["jobs"] = make_dispatcher(services)
    register_errors(app)
    protect(app)
    register_routes(app)
    app.add_url_rule("/api/document/openapi.json", view_func=get_api_document)
    app.add_url_rule("/", view_func=get_page)
    app.add_url_rule("/<path:path>", view_func=get_page)
    return app


def register_routes(app: OpenAPI, described: bool = False) -> None:
    """Register the routes of every resource; ``described`` adds them to the API document."""
    for name, routes in ALL_ROUTES.items():
        app.register_api(routes.blueprint(name, described))


@cache
def _document() -> str:
    from .openapi import api_document  # imported late: it takes as long as the rest of the start, and is rarely needed

    return api_document()


def get_api_document() -> Response:
    """Return the API document."""
    return Response(_document(), mimetype="application/json")


def get_page(path: str = "index.html") -> Response:
    """Return the page's HTML for every address of the page."""
    if path.startswith("api/"):
        return problem(404, "There is nothing at this address. Go back to the board.")
    if not (PAGE / path).is_file():
        path = "index.html"
    if not (PAGE / path).is_file():
        return problem(503, "The page is not built yet: run 'make demo'.")
    answer = send_from_directory(PAGE, path)
    changes = path == "index.html" or "assets/" not in path
    answer.headers["Cache-Control"] = "no-cache" if changes else "public, max-age=31536000, immutable"
    return answer
