"""Handing files over: to the simulated printer, and to the simulated provider's desk."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Any, Literal

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ..stand_ins.printer import INKS, PrinterState, SimulatedPrinter
from ..stand_ins.upload_desk import UploadRules, judge_upload
from .desk import Desk
from .parts import part
from .problems import NotHere
from .shapes import PairPath, PanelQuery, Shape

PRINTER_AT = "/api/simulated-printer"


class PrinterShape(Shape):
    """How the simulated printer stands."""

    sheets: int
    ink_ml: dict[str, float]
    low: list[str]
    jammed: bool
    jam_next: bool
    printed: list[str]
    tray: str = Field(description="The folder it prints to")


class HandBody(Shape):
    """Which made file, by its address."""

    url: str = Field(pattern=r"^/api/files/[0-9a-f]+$")
    copies: int = Field(default=1, ge=1, le=1000)


class PrintedShape(Shape):
    """What a printing used."""

    used_sheets: int
    used_ink_ml: float
    printer: PrinterShape


class DeskAnswer(Shape):
    """The simulated desk's answer."""

    accepted: bool
    reasons: list[str]
    seen: list[str]
    rules: list[str]


class DeedPath(BaseModel):
    """What is done at the printer."""

    deed: Literal["refill", "clear", "jam"]


def printer_shape(printer: SimulatedPrinter, state: PrinterState) -> PrinterShape:
    """The printer as it is answered."""
    ink = {name: round(ml, 2) for name, ml in zip(INKS, state.ink_ml, strict=True)}
    return PrinterShape(sheets=state.sheets, ink_ml=ink, low=state.low, jammed=state.jammed, jam_next=state.jam_next,
                        printed=list(state.printed), tray=str(printer.tray))  # fmt: skip


def blueprint(desk: Desk) -> APIBlueprint:
    """The addresses of the stand-ins."""
    api = part(desk, "handing_over", "simulated")
    printer = SimulatedPrinter(desk.database.folder.resolve())

    def made(url: str) -> tuple[str, Path]:
        found = desk.made.named(url.rsplit("/", 1)[-1])
        if found is None:
            raise NotHere("This file is no longer kept: make it again.")
        return found

    @api.get(PRINTER_AT, responses={200: PrinterShape})
    def state() -> dict[str, Any]:
        """How the simulated printer stands."""
        return printer_shape(printer, printer.state()).model_dump()

    @api.post(f"{PRINTER_AT}/<deed>", responses={200: PrinterShape})
    def tend(path: DeedPath) -> dict[str, Any]:
        """Refill it, clear a jam, or let the next printing jam."""
        do = {"refill": printer.refill, "clear": printer.clear_jam, "jam": printer.jam_at_next}[path.deed]
        return printer_shape(printer, do()).model_dump()

    @api.post(f"{PRINTER_AT}/queue", responses={200: PrintedShape})
    def queue(body: HandBody) -> dict[str, Any]:
        """Print a made file on the simulated printer."""
        name, path = made(body.url)
        used = printer.print(path, name, body.copies)
        return PrintedShape(used_sheets=used.sheets, used_ink_ml=round(sum(used.ink_ml), 2),
                            printer=printer_shape(printer, printer.state())).model_dump()  # fmt: skip

    @api.post("/api/pairs/<int:artwork_id>/<template_id>/simulated-upload", responses={200: DeskAnswer})
    def upload(path: PairPath, query: PanelQuery, body: HandBody) -> dict[str, Any]:
        """Bring a made file to the simulated provider's desk."""
        panel = desk.template(path.template_id).panel(query.panel)
        rules = UploadRules()
        answer = judge_upload(made(body.url)[1], panel, rules)
        told = [f"at least {rules.least_dpi:.0f} dpi", f"up to {rules.most_mb:.0f} MB", "PNG, JPEG or TIFF", "RGB"]
        return DeskAnswer(**asdict(answer), rules=told).model_dump()

    return api
