"""``improva print``: make the print file of ART on a blank."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import click

from ..core.artwork.pixels import Artwork
from ..core.design import Design, Piece, Placement
from ..core.output import INTENTS, Carrier, PrintSettings, SheetPlan, is_mirrored, make_print, paper_size, plan_sheets
from ..core.sewing.linked_panels import linked_designs
from ..core.template import Panel, Template
from ..io.artwork_file import read_file
from ..io.print_file import check_ending, write_print
from ..io.print_sets import write_set
from ..io.sheet_file import write_sheets
from .group import main
from .placement_options import takes_pair_or_all

DEFAULT_TAB_MM = 6.35
"""Width of the tab if the blank names none: a quarter of an inch. From memory."""


@main.command("print")
@takes_pair_or_all
@click.option("--dpi", type=float, help="The template's own by default.")
@click.option("--mirror/--no-mirror", default=None, help="By default as the route wants it: mirrored for pressing yourself.")
@click.option("--cut-line", is_flag=True, help="Draw the outline to cut along.")
@click.option(
    "--tab", type=click.Choice(["none", "left", "right"]), default="none", help="White paper past one end, for the tape."
)
@click.option("--tab-mm", type=float, help="Its width; the blank's own by default.")
@click.option("--marks", is_flag=True, help="Trim marks above and below.")
@click.option("--profile", type=click.Path(path_type=Path), metavar="FILE.icc", help="Convert to a printer's RGB profile.")
@click.option("--intent", type=click.Choice(INTENTS), default="relative", help="How colours out of its reach are treated.")
@click.option(
    "--sheet", default="none", metavar="none|letter|legal|a4|a3|WxHmm", help="Cut into sheets of this paper, as one PDF."
)
@click.option("--overlap-mm", default=10.0, metavar="N", help="How far sheets overlap.")
@click.option("--margin-mm", default=5.0, metavar="N", help="What the printer cannot reach at the paper's edges.")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.png|.tif|.pdf|.jpg")
def print_(
    template: Template,
    panel: Panel | None,
    art: Artwork,
    placement: Placement,
    dpi: float | None,
    mirror: bool | None,
    cut_line: bool,
    tab: Any,
    tab_mm: float | None,
    marks: bool,
    profile: Path | None,
    intent: Any,
    sheet: str,
    overlap_mm: float,
    margin_mm: float,
    output: Path,
) -> None:
    """Make the print file of ART: true size, true density, sRGB or a printer's own colours.

    With --panel all: every panel's file and a picture of them sewn together, as FILE.zip.
    """
    mirrored = is_mirrored(template.route) if mirror is None else mirror
    own_profile = read_file(profile) if profile else None

    def settings_of(panel: Panel) -> PrintSettings:
        width = (panel.tab_mm or DEFAULT_TAB_MM) if tab_mm is None else tab_mm
        return PrintSettings(
            panel.dpi if dpi is None else dpi,
            mirrored,
            cut_line,
            Carrier(tab, width if tab != "none" else 0.0, marks),
            own_profile,
            intent,
        )

    paper = None if sheet.lower() == "none" else paper_size(sheet)

    def plan_of(size_mm: tuple[float, float]) -> SheetPlan:
        assert paper is not None, "sheets are planned where there is a paper"
        return plan_sheets(size_mm, paper, margin_mm, overlap_mm)

    if panel is None:
        designs = linked_designs(template, lambda each: _design(template, each, art, placement))
        title = Path(click.get_current_context().params["art"]).stem
        names = write_set(template, designs, lambda _: art, settings_of, title, output, plan_of if paper else None)
        click.echo(f"{output}: {len(names)} files, {'mirrored' if mirrored else 'not mirrored'}")
        return
    settings = settings_of(panel)
    check_ending(output)
    print_image = make_print(_design(template, panel, art, placement), lambda _: art, settings)
    summary = (
        f"{print_image.px[0]} × {print_image.px[1]} px, {settings.dpi:g} dpi, {'mirrored' if mirrored else 'not mirrored'}"
    )
    if paper is None:
        write_print(print_image, output)
    else:
        plan = plan_of(print_image.size_mm)
        write_sheets(print_image, plan, output, output.stem)
        summary += f", {plan.sheets} sheet{'s' if plan.sheets > 1 else ''} of {plan.paper_mm[0]:g} × {plan.paper_mm[1]:g} mm"
    click.echo(f"{output}: {summary}")


def _design(template: Template, panel: Panel, art: Artwork, placement: Placement) -> Design:
    return Design(template, panel, (Piece("art", art.facts.size, placement),))
