"""The log-in of a board that other computers reach."""

from __future__ import annotations

from typing import Any

from flask import Response, request, session

from ..context import login
from ..errors import problem
from ..routing import Routes
from ..schemas.session import LoginIn, SessionOut

api = Routes("session", "/api/session")


@api.get("", responses={200: SessionOut})
def get_session() -> dict[str, Any]:
    """Return whether a log-in is needed and was made."""
    return SessionOut(login_needed=login.needed, logged_in=not login.needed or "user" in session).model_dump()


@api.post("", responses={200: SessionOut})
def log_in(body: LoginIn) -> dict[str, Any] | Response:
    """Log in with the board's password. After too many attempts in a minute the answer is 429."""
    if login.needed:
        if not login.may_try(request.remote_addr or ""):
            return problem(429, "Too many attempts to log in: wait a minute and try again.")
        if not login.accepts(body.password):
            return problem(401, "This is not the password of this board.")
        session.clear()
        session["user"], session.permanent = "shop", True
    return get_session()


@api.delete("", responses={200: SessionOut})
def log_out() -> dict[str, Any]:
    """Log out."""
    if login.needed:
        session.clear()
    return get_session()
