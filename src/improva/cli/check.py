"""``improva check``: run the checks on ART on a blank."""

from __future__ import annotations

from pathlib import Path

import click

from ..app.reports import panel_check_report
from ..core.artwork.pixels import Artwork
from ..core.design import Placement
from ..core.preflight import run_preflight
from ..core.template import Panel, Template
from ..io.artwork_file import read_file
from .group import as_json_option, main, tell
from .placement_options import takes_pair


@main.command()
@takes_pair
@click.option(
    "--profile", type=click.Path(path_type=Path), metavar="FILE.icc", help="Hold colours against a printer's profile."
)
@as_json_option
def check(template: Template, panel: Panel, art: Artwork, placement: Placement, profile: Path | None, as_json: bool) -> None:
    """Check ART on a blank. The exit code is 0 for every verdict; read the verdict from the output."""
    report = run_preflight(template, panel, art.proxy(), placement, read_file(profile) if profile else None)
    lines = [f"{c.status.upper():5} {c.title}: {c.message}" for c in report.checks]
    tell(panel_check_report(template, panel, art.facts, report), as_json, [f"{template.title}: {report.verdict}", *lines])
