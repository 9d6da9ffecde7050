"""``improva templates``: list the blanks and their print templates."""

from __future__ import annotations

from ..app.reports import template_report
from ..catalogue import templates as all_templates
from .group import as_json_option, main, tell


@main.command()
@as_json_option
def templates(as_json: bool) -> None:
    """List the blanks and their print templates."""
    known = list(all_templates().values())
    tell([template_report(t) for t in known], as_json, [f"{t.id:28} {t.title}" for t in known])
