"""A pair's print files: planned, made by jobs, and stored."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ..core.design import PanelContent
from ..core.errors import OutputError, TemplateError
from ..core.mockup.render import encode
from ..core.output import (
    Carrier,
    PrintSettings,
    SheetPlan,
    carries,
    make_print,
    marks_of,
    plan_sheets,
    print_name,
    set_name,
    tab_of,
)
from ..core.progress import Progress
from ..core.sewing.assembly_picture import assembly
from ..core.sewing.seams import Follow
from ..core.template import Box, Panel
from ..io.print_file import write_print
from ..io.print_sets import assembly_name, write_zip
from ..io.sheet_file import write_sheets
from ..stages import versions
from ..store.database import key_of
from ..store.models.printing import PrintingModel
from .made_files import MadeFile, keep_file
from .pair import Pair, plain
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


def _name(pair: Pair, panel: Panel, printing: PrintingModel, settings: PrintSettings, sheets: SheetPlan | None) -> str:
    ending = "pdf" if sheets else printing.format
    more = [printing.paper.lower()] if sheets else []
    return print_name(
        pair.art.title, pair.template, panel, settings.dpi, settings.mirror, ending, settings.file_mm(panel), *more
    )


def _sheets(panel: Panel, printing: PrintingModel, settings: PrintSettings) -> SheetPlan | None:
    paper = printing.paper_mm
    return plan_sheets(settings.file_mm(panel), paper, printing.margin_mm, printing.overlap_mm) if paper else None


def plan_of(services: Services, pair: Pair, panel: Panel, printing: PrintingModel) -> PrintPlan:
    """Plan a panel's print file; if it cannot be made, ``problem`` says why."""
    problem, sheets = None, None
    try:
        settings = settings_of(services, pair, panel, printing)
        sheets = _sheets(panel, printing, settings)
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
        name=_name(pair, panel, printing, settings, sheets),
        paper_mm=sheets.paper_mm if sheets else None,
        sheets=[part.box for part in sheets.parts] if sheets else [],
        problem=problem,
        tab=[on_file(*point) for point in tab_of(panel, settings.carrier)],
        marks=[(*on_file(a, b), *on_file(c, d)) for a, b, c, d in marks_of(panel, settings.carrier)],
    )


def printed_content(pair: Pair, panel: Panel) -> PanelContent:
    """Return the content printed on a panel. Raises :class:`TemplateError` where it is empty."""
    content = pair.content(panel)
    if content is None or panel not in pair.printed:
        raise TemplateError(f"Nothing is printed on this {panel.title.lower()}: place the artwork on it first.")
    return content


def make_side(services: Services, pair: Pair, panel: Panel, printing: PrintingModel, progress: Progress) -> MadeFile:
    """Return one panel's print file: key, name, path. It is made unless it exists.

    Raises:
        TemplateError: nothing is printed on the panel.
        OutputError, ArtworkError, PlacementError, Stopped: it cannot be made.
    """
    content = printed_content(pair, panel)
    settings = settings_of(services, pair, panel, printing)
    sheets = _sheets(panel, printing, settings)
    name = _name(pair, panel, printing, settings, sheets)
    profile = services.store.blanks.file(pair.template.id, "profile") if printing.own_profile else None
    made_as = printing.model_dump(exclude={"copies", "notes"})
    key = key_of(
        "print",
        versions("print_files"),
        pair.subject,
        plain({panel.id: content}),
        name,
        made_as,
        pair.pieces_on(panel).key,
        profile.sha256 if profile else None,
        pair.placement_key if isinstance(content, Follow) else None,
    )
    open_art = pair.opener(services.artworks.open(pair.art), services.artworks.open)

    def make(path: Path) -> None:
        print_image = make_print(pair.design(panel, content), open_art, settings)
        if sheets:
            write_sheets(print_image, sheets, path, name.removesuffix(".pdf"), progress)
        else:
            write_print(print_image, path, progress)

    return keep_file(services, pair, "print", key, name, make)


def make_set(services: Services, pair: Pair, printing: PrintingModel, progress: Progress) -> MadeFile:
    """Return the files of all printed panels in one ZIP: key, name, path. It is made unless it exists.

    Raises :class:`TemplateError` where nothing is printed, and what the renderer and the writers raise.
    """
    panels = pair.printed
    if not panels:
        raise TemplateError("Nothing is printed on this blank: place the artwork on a side first.")
    sides = []
    for i, panel in enumerate(panels):
        sides.append(make_side(services, pair, panel, printing, progress.part(i / len(panels), (i + 0.9) / len(panels))))
    name = set_name(pair.art.title, pair.template, printing.dpi or panels[0].dpi, pair.mirrored, "zip")
    key = key_of("set", [side[0] for side in sides], name)

    def pack(path: Path) -> None:
        write_zip(path, [(inside, file) for _, inside, file in sides], _assembly(services, pair))

    return keep_file(services, pair, "print", key, name, pack)


def _assembly(services: Services, pair: Pair) -> list[tuple[str, bytes]]:
    """Return a picture of the panels sewn together, for a sewn blank."""
    if not pair.template.faces:
        return []
    designs = {panel.id: pair.design(panel, pair.content(panel)) for panel in pair.template.panels}
    open_art = pair.opener(services.artworks.proxy(pair.art), services.artworks.proxy)
    picture = assembly(pair.template, designs, open_art, pair.corrections)
    return [(assembly_name(pair.art.title, pair.template), encode(picture, ".png"))]


def print_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job that makes the print file of one panel or of all."""
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    printing = PrintingModel.model_validate(parameters["printing"])
    if parameters["panel"] is None:
        return [make_set(services, pair, printing, progress)[0]]
    return [make_side(services, pair, pair.template.panel(parameters["panel"]), printing, progress)[0]]
