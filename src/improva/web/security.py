"""Checks of every request before its handler, and security headers of every response."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import timedelta
from urllib.parse import urlsplit

from flask import Response, current_app, request, session
from flask_openapi3 import OpenAPI

from ..app.access import Password
from .errors import problem

LOOPBACK = ("localhost", "127.0.0.1", "[::1]")
"""Host names under which only this computer reaches the server."""

HOST = re.compile(r"(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::\d{1,5})?")
"""A Host header: a name or an address, and a port (RFC 9110, 7.2)."""

SESSION_PATH = "/api/session"
SESSION_DAYS = 30

HEADERS = {
    # Styles set by script are needed: the Radix components place their parts so.
    "Content-Security-Policy": "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' blob: data:; media-src 'self' blob:; object-src 'none'; base-uri 'none'; form-action 'self'; "
    "frame-ancestors 'none'",
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
}


@dataclass(frozen=True)
class Access:
    """Who may use a server.

    Attributes:
        hosts: host names that requests may carry, beside those of this computer. A page of another site whose name an
            attacker points at this computer (DNS rebinding) carries another name.
        login: whether users must log in with the data folder's password.
    """

    hosts: tuple[str, ...] = ()
    login: bool = False


ONLY_HERE = Access()
"""Access from this computer alone, without a login."""


def refuse_other_hosts() -> Response | None:
    """Refuse requests that carry a host name which this server does not answer to."""
    found = HOST.fullmatch(request.environ.get("HTTP_HOST", "").lower())
    if found is None or found[1] not in current_app.config["IMPROVA_HOSTS"]:
        return problem(400, "This server does not answer to that host name: start it with --allow-host NAME.")
    return None


def refuse_other_sites() -> Response | None:
    """Refuse changes requested by other sites' pages in the same browser."""
    origin = request.headers.get("Origin")
    if request.method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != request.host:
        return problem(403, "Only Improva's own page may change things here.")
    return None


def refuse_strangers() -> Response | None:
    """Refuse requests for data without a login. The page's own files hold no data."""
    if request.path.startswith("/api/") and request.path != SESSION_PATH and not session.get("user"):
        return problem(401, "Log in to use this board.")
    return None


def add_headers(response: Response) -> Response:
    """Add the security headers to a response."""
    for name, value in HEADERS.items():
        response.headers.setdefault(name, value)
    return response


def protect(app: OpenAPI, access: Access, password: Password) -> None:
    """Check every request before its handler, and add security headers to every response.

    Raises:
        PasswordError: a login is needed, but no password is set.
    """
    app.config["IMPROVA_HOSTS"] = {*LOOPBACK, *(name.lower() for name in access.hosts)}
    app.before_request(refuse_other_hosts)
    app.before_request(refuse_other_sites)
    app.after_request(add_headers)
    if access.login:
        app.secret_key = password.secret
        app.config.update(
            SESSION_COOKIE_NAME="improva",
            SESSION_COOKIE_SAMESITE="Strict",
            SESSION_COOKIE_HTTPONLY=True,
            PERMANENT_SESSION_LIFETIME=timedelta(days=SESSION_DAYS),
            SESSION_REFRESH_EACH_REQUEST=False,  # a late answer would bring back the cookie of somebody who has logged out
        )
        app.before_request(refuse_strangers)
