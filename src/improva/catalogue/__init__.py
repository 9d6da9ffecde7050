"""Shipped templates, one TOML file per blank, each figure with its provenance."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources

from ..core.errors import TemplateError
from ..core.template import Template
from ..core.template_file import parse_template

KINDS = ("tumbler", "mug", "pen", "pillow", "blanket", "flag", "transfer", "garment", "all-over", "own")
"""Kinds of blanks in the order in which they are listed."""


@cache
def templates() -> dict[str, Template]:
    """Return all shipped templates by id, ordered by kind and title."""
    found_templates = []
    for entry in resources.files(__name__).iterdir():
        if entry.name.endswith(".toml"):
            found_templates.append(parse_template(tomllib.loads(entry.read_text(encoding="utf-8"))))
    return {t.id: t for t in sorted(found_templates, key=order)}


def order(template: Template) -> tuple[int, str]:
    """Return the sort key: kind, then title."""
    return (KINDS.index(template.kind) if template.kind in KINDS else len(KINDS), template.title)


def template(template_id: str) -> Template:
    """Return a shipped template by id. Raises :class:`TemplateError` with the known ids."""
    try:
        return templates()[template_id]
    except KeyError:
        known = ", ".join(templates())
        raise TemplateError(f"There is no template '{template_id}'. Known: {known}.") from None
