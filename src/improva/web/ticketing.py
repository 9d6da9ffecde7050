"""A pair's job ticket, put together from what was decided."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from ..core.output import slug
from ..core.output.ticket import Ticket, TicketSide, write_ticket
from ..core.press import CAUTIONS, METHODS
from ..core.units import fahrenheit
from .desk import Desk
from .exporting import plan_of, printing_of
from .press_shapes import PressQuery
from .pressing import press_state
from .work import Work

TICKET_PX = (900, 900)


def _side(desk: Desk, work: Work, panel_id: str) -> TicketSide:
    panel = work.template.panel(panel_id)
    asked = printing_of(work)
    plan = plan_of(desk, work, panel, asked)
    laying = work.laying(panel)
    assert laying is not None, "only printed panels are on a ticket"
    seen = desk.subject(work, panel, laying)
    (x, y, w, h), field = seen.placed.box, seen.field
    if seen.led is not None:
        across, down = zip(*seen.placed.corners(), strict=True)
        x, y, w, h = min(across), min(down), max(across) - min(across), max(down) - min(down)
    edges = (x, y, field.trim_mm[0] - x - w, field.trim_mm[1] - y - h)
    return TicketSide(panel.title, plan.name, plan.file_mm, plan.file_px, asked.dpi or panel.dpi, edges)


def ticket_of(desk: Desk, work: Work) -> Ticket:
    """What a pair's ticket says; press settings only where the seller presses it."""
    template, asked = work.template, printing_of(work)
    info = desk.first_scene(template)
    colours = tuple(
        (region.title, work.row.colours.get(region.id) or region.default or "")
        for region in info.regions
        if region.panel is None and region.colours
    )
    steps: list[str] = []
    settings = ""
    if work.mirrored:
        state = press_state(desk, template, PressQuery())
        figures = state.figures
        settings = (
            f"{METHODS[state.method]}, {state.finish or template.kind}: {figures.temperature_c:.0f} °C "
            f"({fahrenheit(figures.temperature_c):.0f} °F), {figures.pressure} pressure. {figures.note}"
        )
        steps = [
            f"{s.do}{f' {s.seconds:g} s' if s.seconds else ''}" for s in state.steps if s.kind in ("ready", "press", "peek")
        ]
    return Ticket(
        work.art.title, template.title, template.substrate, colours,
        "pressed here: the file is mirrored" if work.mirrored else "printed by a provider: not mirrored",
        asked.copies, tuple(_side(desk, work, p.id) for p in work.printed), settings, tuple(steps),
        CAUTIONS[:3] if steps else (), asked.notes, date.today().isoformat(),
        desk.look(work, work.placings, info, work.row.angle, work.row.colours, TICKET_PX, close=info.close),
    )  # fmt: skip


def ticket_name(work: Work) -> str:
    """For example ``summit-line_tumbler-20oz-straight_ticket.pdf``."""
    return f"{slug(work.art.title)}_{work.template.id}_ticket.pdf"


def made_ticket(desk: Desk, work: Work, folder: Path) -> Path:
    """A pair's ticket, written into a folder."""
    path = folder / ticket_name(work)
    write_ticket(ticket_of(desk, work), path)
    return path
