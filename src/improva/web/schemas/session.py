"""Requests and responses of the log-in."""

from __future__ import annotations

from pydantic import Field

from .common import In, Out


class LoginIn(In):
    """A log-in."""

    password: str = Field(max_length=1024)


class SessionOut(Out):
    """The browser's session."""

    login_needed: bool = Field(description="Whether users of this server must log in")
    logged_in: bool
