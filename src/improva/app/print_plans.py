"""Plans of print files: settings, size, name and sheets, before anything is made."""

from __future__ import annotations

from dataclasses import dataclass

from ..core.errors import OutputError
from ..core.output import (
    Carrier,
    PrintSettings,
    SheetPlan,
    carries,
    marks_of,
    plan_sheets,
    print_name,
    tab_of,
)
from ..core.template import Box, Panel
from ..store.models.printing import PrintingModel
from .pair import Pair
from .services import Services


@dataclass(frozen=True)
class PrintPlan:
    """What a panel's print file will be; lengths in mm.

    Attributes:
        file_mm, file_px: the file's true size.
        print_box: the print's place in the file: x, y, width, height.
        name: the file's name.
        paper_mm: of each sheet; None where the file is not cut into sheets.
        sheets: each sheet's part of the file: x, y, width, height.
        tab: the tab's corners on the file.
        marks: trim marks on the file, from point to point.
        problem: why the file cannot be made, or None.
    """

    file_mm: tuple[float, float]
    file_px: tuple[int, int]
    print_box: Box
    name: str
    paper_mm: tuple[float, float] | None
    sheets: list[Box]
    tab: list[tuple[float, float]]
    marks: list[Box]
    problem: str | None


def printing_of(pair: Pair) -> PrintingModel:
    """Return a pair's print settings: stored ones, else its blank's suggestion."""
    tab = next((p.tab_mm for p in pair.template.panels if p.tab_mm), None)
    first = {"tab_mm": tab} if tab else {}
    return PrintingModel.model_validate({**first, **pair.row.printing})


def settings_of(services: Services, pair: Pair, panel: Panel, printing: PrintingModel) -> PrintSettings:
    """Return the core's settings for a panel. Raises :class:`OutputError` where a chosen profile is missing."""
    profile = services.blanks.profile(pair.template) if printing.own_profile else None
    if printing.own_profile and profile is None:
        raise OutputError("This blank has no ICC profile yet: add the printer's on the shelf of blanks, or keep sRGB.")
    tab_mm = printing.tab_mm if printing.tab != "none" else 0.0
    carrier = Carrier(printing.tab, tab_mm, printing.marks) if carries(panel) else Carrier()
    return PrintSettings(printing.dpi or panel.dpi, pair.mirrored, printing.cut_line, carrier, profile, printing.intent)


def file_name_of(pair: Pair, panel: Panel, printing: PrintingModel, settings: PrintSettings, sheets: SheetPlan | None) -> str:
    """Return the name of a panel's print file."""
    ending = "pdf" if sheets else printing.format
    more = [printing.paper.lower()] if sheets else []
    return print_name(
        pair.art.title, pair.template, panel, settings.dpi, settings.mirror, ending, settings.file_mm(panel), *more
    )


def sheets_of(panel: Panel, printing: PrintingModel, settings: PrintSettings) -> SheetPlan | None:
    """Return the sheets that a print file is split into; None for a whole file."""
    paper = printing.paper_mm
    return plan_sheets(settings.file_mm(panel), paper, printing.margin_mm, printing.overlap_mm) if paper else None


def plan_of(services: Services, pair: Pair, panel: Panel, printing: PrintingModel) -> PrintPlan:
    """Plan a panel's print file; if it cannot be made, ``problem`` says why."""
    problem, sheets = None, None
    try:
        settings = settings_of(services, pair, panel, printing)
        sheets = sheets_of(panel, printing, settings)
        settings.art_px(panel)
    except OutputError as wrong:
        problem = str(wrong)
        settings = PrintSettings(panel.dpi, pair.mirrored)
    width = settings.file_mm(panel)[0]
    left, top, *_ = settings.margins_mm(panel)

    def on_file(x: float, y: float) -> tuple[float, float]:
        x, y = x + panel.bleed_mm + left, y + panel.bleed_mm + top
        return (width - x if settings.mirror else x), y

    return PrintPlan(
        file_mm=settings.file_mm(panel),
        file_px=settings.file_px(panel),
        print_box=settings.print_box(panel),
        name=file_name_of(pair, panel, printing, settings, sheets),
        paper_mm=sheets.paper_mm if sheets else None,
        sheets=[part.box for part in sheets.parts] if sheets else [],
        problem=problem,
        tab=[on_file(*point) for point in tab_of(panel, settings.carrier)],
        marks=[(*on_file(a, b), *on_file(c, d)) for a, b, c, d in marks_of(panel, settings.carrier)],
    )
