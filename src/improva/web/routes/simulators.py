"""The simulated printer and the simulated provider's upload check."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Any

from ...app.errors import NotFoundError
from ...simulators.printer import INKS, PrinterState, SimulatedPrinter
from ...simulators.upload_desk import UploadRules, judge_upload
from ..context import services
from ..routing import Routes
from ..schemas.common import PairPath, PanelQuery
from ..schemas.simulators import ActionPath, HandOverIn, PrintedOut, PrinterOut, UploadAnswerOut

api = Routes("simulated")

PRINTER_AT = "/api/simulated-printer"


def printer_out(printer: SimulatedPrinter, state: PrinterState) -> PrinterOut:
    """Return the printer's state for the answer."""
    ink = {name: round(ml, 2) for name, ml in zip(INKS, state.ink_ml, strict=True)}
    return PrinterOut(
        sheets=state.sheets,
        ink_ml=ink,
        low=state.low,
        jammed=state.jammed,
        jam_next=state.jam_next,
        printed=list(state.printed),
        tray=str(printer.tray),
    )


def _printer() -> SimulatedPrinter:
    return SimulatedPrinter(services.store.database.folder.resolve())


def _made(url: str) -> tuple[str, Path]:
    file = services.store.made_files.named(url.rsplit("/", 1)[-1])
    if file is None:
        raise NotFoundError("This file is no longer kept: make it again.")
    return file


@api.get(PRINTER_AT, responses={200: PrinterOut})
def get_simulated_printer() -> dict[str, Any]:
    """Return the state of the simulated printer."""
    printer = _printer()
    return printer_out(printer, printer.state()).model_dump()


@api.post(f"{PRINTER_AT}/<action>", responses={200: PrinterOut})
def tend_simulated_printer(path: ActionPath) -> dict[str, Any]:
    """Refill the simulated printer, clear a jam, or cause one at the next print."""
    printer = _printer()
    do = {"refill": printer.refill, "clear": printer.clear_jam, "jam": printer.jam_at_next}[path.action]
    return printer_out(printer, do()).model_dump()


@api.post(f"{PRINTER_AT}/queue", responses={200: PrintedOut})
def print_on_simulated_printer(body: HandOverIn) -> dict[str, Any]:
    """Print a made file on the simulated printer."""
    printer, (name, path) = _printer(), _made(body.url)
    used = printer.print(path, name, body.copies)
    return PrintedOut(
        used_sheets=used.sheets, used_ink_ml=round(sum(used.ink_ml), 2), printer=printer_out(printer, printer.state())
    ).model_dump()


@api.post("/api/pairs/<int:artwork_id>/<template_id>/simulated-upload", responses={200: UploadAnswerOut})
def upload_to_simulated_provider(path: PairPath, query: PanelQuery, body: HandOverIn) -> dict[str, Any]:
    """Upload a made file to the simulated provider."""
    panel = services.blanks.get(path.template_id).panel(query.panel)
    rules = UploadRules()
    answer = judge_upload(_made(body.url)[1], panel, rules)
    rules_text = [f"at least {rules.least_dpi:.0f} dpi", f"up to {rules.most_mb:.0f} MB", "PNG, JPEG or TIFF", "RGB"]
    return UploadAnswerOut(**asdict(answer), rules=rules_text).model_dump()
