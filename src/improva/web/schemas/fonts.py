"""What answers about fonts look like."""

from __future__ import annotations

from pydantic import BaseModel

from .common import Out


class FontOut(Out):
    """A font: its key in a design, what it is called, and whether it is the seller's own."""

    key: str
    title: str
    own: bool


class FontListOut(Out):
    """All fonts."""

    fonts: list[FontOut]


class FontPath(BaseModel):
    """Which font."""

    key: str
