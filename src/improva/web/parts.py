"""The parts of which the application's addresses are made up."""

from __future__ import annotations

from flask_openapi3 import APIBlueprint, Tag

from .desk import Desk


def part(desk: Desk, name: str, tag: str, prefix: str | None = None) -> APIBlueprint:
    """A part of the application, to which addresses are added; ``tag`` is its heading in the API document.

    Describing an address for the document takes as long as all else at the start, so it is done only for the document.
    """
    return APIBlueprint(name, __name__, url_prefix=prefix, abp_tags=[Tag(name=tag)], doc_ui=desk.described)
