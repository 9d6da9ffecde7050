"""The web application of one data folder."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from flask import Response
from flask_openapi3 import OpenAPI

from ..app.access import Password
from ..app.services import Services
from ..jobs.handlers import make_dispatcher
from ..sandbox import Reader
from .errors import make_openapi, register_errors
from .login import Login
from .page_files import register_page
from .routes import ALL_ROUTES
from .security import ONLY_HERE, Access, protect


def create_app(data: Path, access: Access = ONLY_HERE, reader: Reader | None = None) -> OpenAPI:
    """Return the application for a seller's data folder; the folder is created if missing.

    Args:
        data: the folder.
        access: who may use it; by default whoever sits at this computer.
        reader: reads foreign files; by default in this process, without limits.

    Raises:
        NewerDatabaseError: a newer version of Improva has written the folder's database.
        PasswordError: a login is needed, but no password is set.
    """
    app = make_openapi()
    services = Services.of_folder(data, reader)
    app.extensions["services"] = services
    app.extensions["jobs"] = make_dispatcher(services)
    password = Password(data)
    app.extensions["login"] = Login(password, access.login)
    register_errors(app)
    protect(app, access, password)
    register_routes(app)
    app.add_url_rule("/api/document/openapi.json", view_func=get_api_document)
    register_page(app)
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
