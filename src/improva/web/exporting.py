"""A pair's print files: planned, made as jobs, and kept."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..core.design import Laying
from ..core.errors import BadOutput, BadTemplate
from ..core.mockup.picture import encode
from ..core.output import (
    Carrier,
    PrintSettings,
    SheetPlan,
    Watch,
    carries,
    make_print,
    marks_of,
    plan_sheets,
    print_name,
    set_name,
    tab_of,
    write_print,
    write_sheets,
)
from ..core.output.sets import assembly_name, write_zip
from ..core.sewing.picture import assembly
from ..core.sewing.seams import Follow
from ..core.template import Panel
from ..store import MadeRow
from ..store.database import key_of
from .desk import Desk
from .print_shapes import PrintingBody, PrintPlan, SheetShape
from .work import Work, plain


def printing_of(work: Work) -> PrintingBody:
    """How a pair's files are made: as it was decided, or as its blank suggests."""
    tab = next((p.tab_mm for p in work.template.panels if p.tab_mm), None)
    first = {"tab_mm": tab} if tab else {}
    return PrintingBody.model_validate({**first, **work.row.printing})


def settings_of(desk: Desk, work: Work, panel: Panel, asked: PrintingBody) -> PrintSettings:
    """The core's settings for a panel. Raises :class:`BadOutput` where a profile is wanted that is not there."""
    profile = desk.profile(work.template) if asked.own_profile else None
    if asked.own_profile and profile is None:
        raise BadOutput("This blank has no ICC profile yet: add the printer's on the shelf of blanks, or keep sRGB.")
    tab_mm = asked.tab_mm if asked.tab != "none" else 0.0
    carrier = Carrier(asked.tab, tab_mm, asked.marks) if carries(panel) else Carrier()
    return PrintSettings(asked.dpi or panel.dpi, work.mirrored, asked.cut_line, carrier, profile, asked.intent)


def _name(work: Work, panel: Panel, asked: PrintingBody, settings: PrintSettings, sheets: SheetPlan | None) -> str:
    ending = "pdf" if sheets else asked.format
    more = [asked.paper.lower()] if sheets else []
    return print_name(
        work.art.title, work.template, panel, settings.dpi, settings.mirror, ending, settings.file_mm(panel), *more
    )


def _sheets(panel: Panel, asked: PrintingBody, settings: PrintSettings) -> SheetPlan | None:
    paper = asked.paper_mm
    return plan_sheets(settings.file_mm(panel), paper, asked.margin_mm, asked.overlap_mm) if paper else None


def plan_of(desk: Desk, work: Work, panel: Panel, asked: PrintingBody) -> PrintPlan:
    """What will come out of a panel; what cannot be is told in its ``problem``."""
    problem, sheets = None, None
    try:
        settings = settings_of(desk, work, panel, asked)
        sheets = _sheets(panel, asked, settings)
        settings.art_px(panel)
    except BadOutput as wrong:
        problem = str(wrong)
        settings = PrintSettings(panel.dpi, work.mirrored)
    width = settings.file_mm(panel)[0]
    left, top, *_ = settings.margins_mm(panel)

    def on_file(x: float, y: float) -> tuple[float, float]:
        x, y = x + panel.bleed_mm + left, y + panel.bleed_mm + top
        return (width - x if settings.mirror else x), y

    shown = [SheetShape(number=i, box=part.box) for i, part in enumerate(sheets.parts, 1)] if sheets else []
    return PrintPlan(
        file_mm=settings.file_mm(panel), file_px=settings.file_px(panel), print_box=settings.print_box(panel),
        name=_name(work, panel, asked, settings, sheets), paper_mm=sheets.paper_mm if sheets else None,
        sheets=shown, problem=problem, tab=[on_file(*point) for point in tab_of(panel, settings.carrier)],
        marks=[(*on_file(a, b), *on_file(c, d)) for a, b, c, d in marks_of(panel, settings.carrier)],
    )  # fmt: skip


def printed_laying(work: Work, panel: Panel) -> Laying:
    """What is printed on a panel. Raises :class:`BadTemplate` where nothing is."""
    laying = work.laying(panel)
    if laying is None or panel not in work.printed:
        raise BadTemplate(f"Nothing is printed on this {panel.title.lower()}: lay the artwork on it first.")
    return laying


def make_side(desk: Desk, work: Work, panel: Panel, asked: PrintingBody, watch: Watch) -> tuple[str, str, Path]:
    """One panel's print file, made now if it is not kept: key, name, path.

    Raises:
        BadTemplate: nothing is printed on the panel.
        BadOutput, BadArtwork, BadPlacing, Stopped: it cannot be made.
    """
    laying = printed_laying(work, panel)
    settings = settings_of(desk, work, panel, asked)
    sheets = _sheets(panel, asked, settings)
    name = _name(work, panel, asked, settings, sheets)
    profile = desk.blanks.file(work.template.id, "profile") if asked.own_profile else None
    made_as = asked.model_dump(exclude={"copies", "notes"})
    key = key_of("print", work.subject, plain({panel.id: laying}), name, made_as, work.laid_on(panel).key,
                 profile.sha256 if profile else None, work.placing_key if isinstance(laying, Follow) else None)  # fmt: skip
    open_art = work.opener(desk.original(work.art), desk.original)

    def make(path: Path) -> None:
        made = make_print(work.design(panel, laying), open_art, settings)
        if sheets:
            write_sheets(made, sheets, path, name.removesuffix(".pdf"), watch)
        else:
            write_print(made, path, watch)

    return key, name, desk.keep(MadeRow(key, "print", work.placing_key, name), work, make)


def make_set(desk: Desk, work: Work, asked: PrintingBody, watch: Watch) -> str:
    """Every printed panel's file in one ZIP, made now if it is not kept; answers with its key."""
    panels = work.printed
    if not panels:
        raise BadTemplate("Nothing is printed on this blank: lay the artwork on a side first.")
    sides = []
    for i, panel in enumerate(panels):
        sides.append(make_side(desk, work, panel, asked, watch.part(i / len(panels), (i + 0.9) / len(panels))))
    name = set_name(work.art.title, work.template, asked.dpi or panels[0].dpi, work.mirrored, "zip")
    key = key_of("set", [side[0] for side in sides], name)

    def pack(path: Path) -> None:
        write_zip(path, [(inside, file) for _, inside, file in sides], _assembly(desk, work))

    desk.keep(MadeRow(key, "print", work.placing_key, name), work, pack)
    return key


def _assembly(desk: Desk, work: Work) -> list[tuple[str, bytes]]:
    """A picture of the panels sewn together, where the blank is sewn."""
    if not work.template.faces:
        return []
    designs = {panel.id: work.design(panel, work.laying(panel)) for panel in work.template.panels}
    open_art = work.opener(desk.proxy(work.art), desk.proxy)
    picture = assembly(work.template, designs, open_art, work.corrections)
    return [(assembly_name(work.art.title, work.template), encode(picture, ".png"))]


def print_job(desk: Desk, asked: dict[str, Any], watch: Watch) -> list[str]:
    """Do a job of printing: one side, or all of them."""
    work = desk.work(asked["artwork_id"], asked["template_id"])
    printing = PrintingBody.model_validate(asked["printing"])
    if asked["panel"] is None:
        return [make_set(desk, work, printing, watch)]
    return [make_side(desk, work, work.template.panel(asked["panel"]), printing, watch)[0]]
