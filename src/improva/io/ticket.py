"""The job ticket: one page for whoever prints and presses."""

from __future__ import annotations

import io
from dataclasses import dataclass
from html import escape
from pathlib import Path

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import letter
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Frame, Image, KeepInFrame, ListFlowable, Paragraph, Spacer, Table, TableStyle

from ..core.units import inches
from .atomic import atomic_path

INK, SOFT, RULE = HexColor("#23211e"), HexColor("#6b655b"), HexColor("#bdb5a6")
RULED = TableStyle(
    [
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LINEBELOW", (0, 0), (-1, -1), 0.4, RULE),
        ("LEFTPADDING", (0, 0), (-1, -1), 0),
    ]
)
MARGIN_MM = 14.0
PICTURE_MM = (84.0, 84.0)


@dataclass(frozen=True)
class TicketSide:
    """One printed side: its file, and the artwork's distances from the trim's edges in mm.

    ``edges_mm`` are left, top, right, bottom; less than nothing where it runs past the trim.
    """

    title: str
    file_name: str
    size_mm: tuple[float, float]
    px: tuple[int, int]
    dpi: float
    edges_mm: tuple[float, float, float, float]


@dataclass(frozen=True)
class Ticket:
    """The contents of a ticket. ``picture`` is a JPEG of the finished product."""

    title: str
    blank: str
    made_of: str
    colours: tuple[tuple[str, str], ...]
    route: str
    count: int
    sides: tuple[TicketSide, ...]
    settings: str
    steps: tuple[str, ...]
    cautions: tuple[str, ...]
    notes: str
    on: str
    picture: bytes


def _fonts() -> None:
    if "Ticket" not in pdfmetrics.getRegisteredFontNames():  # the faces that come with ReportLab, under an open licence
        pdfmetrics.registerFont(TTFont("Ticket", "Vera.ttf"))
        pdfmetrics.registerFont(TTFont("Ticket-Bold", "VeraBd.ttf"))


def _style(size: float, bold: bool = False, colour: HexColor = INK, after: float = 0) -> ParagraphStyle:
    return ParagraphStyle(
        f"t{size}{bold}",
        fontName="Ticket-Bold" if bold else "Ticket",
        fontSize=size,
        leading=1.3 * size,
        textColor=colour,
        spaceAfter=after,
    )


def _both(value_mm: float) -> str:
    return f"{inches(value_mm):.2f} in ({value_mm:.1f} mm)"


def _facts(ticket: Ticket) -> Table:
    small, strong = _style(8, colour=SOFT), _style(9)
    rows = [
        ("Blank", ticket.blank),
        ("Made of", ticket.made_of),
        *ticket.colours,
        ("Way", ticket.route),
        ("Copies", str(ticket.count)),
        ("Date", ticket.on),
    ]
    cells = [[Paragraph(escape(name), small), Paragraph(escape(value), strong)] for name, value in rows if value]
    return Table(cells, colWidths=[20 * mm, None], style=RULED)


def _sides(ticket: Ticket) -> Table:
    head, small = _style(7.5, colour=SOFT), _style(8)
    cells = [[Paragraph(t, head) for t in ("Side", "File", "Size", "Artwork from the edges")]]
    for side in ticket.sides:
        left, top, right, bottom = (f"{round(inches(v), 2) + 0.0:.2f} in ({round(v, 1) + 0.0:.1f} mm)" for v in side.edges_mm)
        cells.append(
            [
                Paragraph(escape(side.title), small),
                Paragraph(escape(side.file_name) + f"<br/>{side.px[0]} × {side.px[1]} px at {side.dpi:g} dpi", small),
                Paragraph("<br/>× ".join(_both(v) for v in side.size_mm), small),
                Paragraph(f"left {left}<br/>top {top}<br/>right {right}<br/>bottom {bottom}", small),
            ]
        )
    return Table(cells, colWidths=[20 * mm, 72 * mm, 40 * mm, None], repeatRows=1, style=RULED)


def _story(ticket: Ticket, width: float) -> list[Flowable]:
    w, h = ImageReader(io.BytesIO(ticket.picture)).getSize()
    scale = min(PICTURE_MM[0] * mm / w, PICTURE_MM[1] * mm / h)
    picture = Image(io.BytesIO(ticket.picture), w * scale, h * scale)
    top = Table([[picture, _facts(ticket)]], colWidths=[PICTURE_MM[0] * mm + 4 * mm, width - PICTURE_MM[0] * mm - 4 * mm])
    top.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0)]))
    heading = _style(10, bold=True, after=2)
    story: list[Flowable] = [
        Paragraph("Job ticket", _style(8, colour=SOFT)),
        Paragraph(escape(ticket.title), _style(17, bold=True, after=6)),
        top,
        Spacer(1, 4 * mm),
        Paragraph("Print", heading),
        _sides(ticket),
    ]
    if ticket.steps:
        items = [Paragraph(escape(step), _style(8)) for step in ticket.steps]
        story += [
            Spacer(1, 4 * mm),
            Paragraph("Press", heading),
            Paragraph(escape(ticket.settings), _style(8, after=2)),
            ListFlowable(items, bulletType="1", bulletFontName="Ticket", bulletFontSize=8, leftIndent=14),
        ]
        story.append(Paragraph(" ".join(escape(line) for line in ticket.cautions), _style(7, colour=SOFT)))
    if ticket.notes:
        story += [
            Spacer(1, 4 * mm),
            Paragraph("Notes", heading),
            Paragraph(escape(ticket.notes).replace("\n", "<br/>"), _style(9)),
        ]
    return story


def write_ticket(ticket: Ticket, path: Path) -> None:
    """Write a ticket as a PDF of one letter page; long contents are set smaller.

    Raises:
        OutputError: the folder or disk cannot be written.
    """
    _fonts()
    width, height = letter[0] - 2 * MARGIN_MM * mm, letter[1] - 2 * MARGIN_MM * mm
    with atomic_path(path) as temporary:
        canvas = Canvas(str(temporary), pagesize=letter, invariant=True)
        canvas.setTitle(f"Job ticket: {ticket.title}")
        frame = Frame(MARGIN_MM * mm, MARGIN_MM * mm, width, height, 0, 0, 0, 0)
        frame.addFromList([KeepInFrame(width, height, _story(ticket, width), mode="shrink")], canvas)
        canvas.save()
