"""The web application of one data folder."""

from __future__ import annotations

from pathlib import Path
from urllib.parse import urlsplit

from flask import Response, request, send_from_directory
from flask_openapi3 import Info, OpenAPI

from .. import __version__
from ..store import Database
from . import (
    artworks,
    batching,
    bench,
    blank_files,
    blanks,
    board,
    files,
    fonts,
    ganging,
    handing_over,
    listing,
    looks,
    ordering,
    own_scenes,
    preparations,
    pressing,
    printing,
    providing,
    remembering,
    selling,
    sewing,
    showing,
)
from .desk import Desk
from .document import written
from .errands import jobs_of
from .problems import MAX_UPLOAD_MB, invalid, problem, register

PAGE = Path(__file__).parent / "page"


def create_app(data: Path, described: bool = False) -> OpenAPI:
    """The application; ``data`` is the seller's folder, made if it is missing. ``described`` has it know its API document."""
    app = OpenAPI(
        "improva", info=Info(title="Improva", version=__version__), static_folder=None, doc_ui=False,
        validation_error_status=422, validation_error_callback=invalid,
    )  # fmt: skip
    app.config["MAX_CONTENT_LENGTH"] = MAX_UPLOAD_MB * 1_000_000
    app.json.sort_keys = False  # type: ignore[attr-defined]  # views and parts stand in their scene's order
    desk = Desk(Database(data), described=described)
    app.extensions["desk"] = desk
    register(app)
    jobs = jobs_of(desk)
    app.extensions["jobs"] = jobs
    for queueing in (printing, ganging, showing, listing, ordering, batching):
        app.register_api(queueing.blueprint(desk, jobs))
    for part in (
        board,
        blanks,
        blank_files,
        artworks,
        preparations,
        fonts,
        bench,
        looks,
        own_scenes,
        files,
        pressing,
        handing_over,
        selling,
        providing,
        remembering,
        sewing,
    ):
        app.register_api(part.blueprint(desk))

    @app.before_request
    def own_page_only() -> Response | None:
        """Refuse changes asked for by other sites' pages open in the same browser."""
        origin = request.headers.get("Origin")
        if request.method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != request.host:
            return problem(403, "Only Improva's own page may change things here.")
        return None

    def document() -> Response:
        """The API document."""
        return Response(written(), mimetype="application/json")

    def page(path: str = "index.html") -> Response:
        """The page; its own addresses all lead to its one document."""
        if path.startswith("api/"):
            return problem(404, "There is nothing at this address. Go back to the board.")
        if not (PAGE / path).is_file():
            path = "index.html"
        if not (PAGE / path).is_file():
            return problem(503, "The page is not built yet: run 'make demo'.")
        answer = send_from_directory(PAGE, path)
        fresh = path == "index.html" or "assets/" not in path
        answer.headers["Cache-Control"] = "no-cache" if fresh else "public, max-age=31536000, immutable"
        return answer

    app.add_url_rule("/api/document/openapi.json", view_func=document)
    app.add_url_rule("/", view_func=page)
    app.add_url_rule("/<path:path>", view_func=page)
    return app
