"""Errors of the application layer."""

from __future__ import annotations

from ..core.errors import ImprovaError


class NotFoundError(ImprovaError):
    """The requested thing does not exist, or no longer."""
