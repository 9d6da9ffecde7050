"""Response models of fonts."""

from __future__ import annotations

from pydantic import BaseModel

from .common import Out


class FontOut(Out):
    """A font: its key in a design, its title, and whether the seller added it."""

    key: str
    title: str
    own: bool


class FontListOut(Out):
    """All fonts."""

    fonts: list[FontOut]


class FontPath(BaseModel):
    """Path of a font."""

    key: str
