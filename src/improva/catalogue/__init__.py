"""The templates that ship, one TOML file a blank, each figure with its provenance."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources

from ..core.errors import BadTemplate
from ..core.template import Template, parse_template


@cache
def templates() -> dict[str, Template]:
    """All templates by id, in the order of their titles."""
    found = []
    for entry in resources.files(__name__).iterdir():
        if entry.name.endswith(".toml"):
            found.append(parse_template(tomllib.loads(entry.read_text(encoding="utf-8"))))
    return {t.id: t for t in sorted(found, key=lambda t: t.title)}


def template(template_id: str) -> Template:
    """The template of that id. Raises :class:`BadTemplate` with the ids that exist."""
    try:
        return templates()[template_id]
    except KeyError:
        known = ", ".join(templates())
        raise BadTemplate(f"There is no template '{template_id}'. Known: {known}.") from None
