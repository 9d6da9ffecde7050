"""Errors of the application layer."""

from __future__ import annotations

from ..core.errors import ImprovaError


class GivenUpError(ImprovaError):
    """A preview that nobody looks at any more: a newer one was asked for."""


class StaleEditError(ImprovaError):
    """An edit is based on an earlier state than the stored one: somebody else has changed it, or another window."""


class NotFoundError(ImprovaError):
    """The requested thing does not exist, or no longer."""
