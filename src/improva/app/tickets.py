"""A pair's job ticket."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from ..core.output import slug
from ..core.press import CAUTIONS, METHODS
from ..core.units import fahrenheit
from ..io.ticket import Ticket, TicketSide, write_ticket
from .pair import Pair
from .press import PressChoice, press_setup
from .print_plans import plan_of, printing_of
from .services import Services

TICKET_PX = (900, 900)


def _side(services: Services, pair: Pair, panel_id: str) -> TicketSide:
    panel = pair.template.panel(panel_id)
    printing = printing_of(pair)
    plan = plan_of(services, pair, panel, printing)
    content = pair.content(panel)
    assert content is not None, "only printed panels are on a ticket"
    seen = services.preflight.subject(pair, panel, content)
    (x, y, w, h), field = seen.placed.box, seen.field
    if seen.linked is not None:
        across, down = zip(*seen.placed.corners(), strict=True)
        x, y, w, h = min(across), min(down), max(across) - min(across), max(down) - min(down)
    edges = (x, y, field.trim_mm[0] - x - w, field.trim_mm[1] - y - h)
    return TicketSide(panel.title, plan.name, plan.file_mm, plan.file_px, printing.dpi or panel.dpi, edges)


def ticket_of(services: Services, pair: Pair) -> Ticket:
    """Return the content of a pair's ticket; press settings only where the seller presses it."""
    template, printing = pair.template, printing_of(pair)
    info = services.scenes.first(template)
    colours = tuple(
        (region.title, pair.row.colours.get(region.id) or region.default or "")
        for region in info.regions
        if region.panel is None and region.colours
    )
    steps: list[str] = []
    settings = ""
    if pair.mirrored:
        setup = press_setup(services.store, template, PressChoice())
        figures = setup.figures
        settings = (
            f"{METHODS[setup.method]}, {setup.finish or template.kind}: {figures.temperature_c:.0f} °C "
            f"({fahrenheit(figures.temperature_c):.0f} °F), {figures.pressure} pressure. {figures.note}"
        )
        steps = [
            f"{s.do}{f' {s.seconds:g} s' if s.seconds else ''}" for s in setup.steps if s.kind in ("ready", "press", "peek")
        ]
    return Ticket(
        pair.art.title,
        template.title,
        template.substrate,
        colours,
        "pressed here: the file is mirrored" if pair.mirrored else "printed by a provider: not mirrored",
        printing.copies,
        tuple(_side(services, pair, p.id) for p in pair.printed),
        settings,
        tuple(steps),
        CAUTIONS[:3] if steps else (),
        printing.notes,
        date.today().isoformat(),
        services.previews.mockup(pair, pair.placements, info, pair.row.angle, pair.row.colours, TICKET_PX, close=info.close),
    )


def ticket_name(pair: Pair) -> str:
    """Return the ticket's file name, for example ``summit-line_tumbler-20oz-straight_ticket.pdf``."""
    return f"{slug(pair.art.title)}_{pair.template.id}_ticket.pdf"


def made_ticket(services: Services, pair: Pair, folder: Path) -> Path:
    """Write a pair's ticket into a folder."""
    path = folder / ticket_name(pair)
    write_ticket(ticket_of(services, pair), path)
    return path
