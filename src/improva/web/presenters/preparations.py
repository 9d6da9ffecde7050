"""Response models of preparations."""

from __future__ import annotations

from typing import Any

from ...app.edits import edit_key
from ...app.preparations import NECK_MM, report_of
from ...app.services import Services
from ...core.colour import contrast
from ...core.preparation import Preparation
from ..schemas.preparations import OriginIn, PreparationOut, PreparationReportOut, StepIn
from .artworks import artwork_out

WHITE = "#ffffff"


def preparation_report_out(report: dict[str, Any]) -> PreparationReportOut:
    """Return the findings on a prepared picture."""
    swatches = [{**swatch, "on_white": round(contrast(swatch["colour"], WHITE), 2)} for swatch in report["palette"]]
    return PreparationReportOut(**{**report, "neck_mm": NECK_MM, "palette": swatches})


def preparation_out(services: Services, artwork_id: int) -> PreparationOut:
    """Return the response of an artwork with its preparation."""
    row = services.artworks.imported(artwork_id)
    prepared = services.artworks.preparations.prepared(row)
    if prepared.sha256 != row.sha256:
        report = services.artworks.preparations.make(row, row.preparation).report
    else:
        report = report_of(services.artworks.preparations.preview(row, Preparation(width_mm=row.preparation.width_mm)))
        report["px"] = list(row.facts.px)
    licence = services.store.origins.licence(artwork_id)
    return PreparationOut(
        artwork=artwork_out(prepared),
        original_px=row.facts.px,
        original_mm=row.facts.size.claimed_mm,
        steps=[StepIn(**step.as_dict()) for step in row.preparation.steps],
        width_mm=row.preparation.width_mm,
        edit_key=edit_key(row.preparation.as_dict()),
        can_undo=row.step > 0,
        can_redo=row.step < row.last_step,
        report=preparation_report_out(report),
        origin=OriginIn(**row.origin.as_dict()),
        altered=row.altered,
        licence_file=licence[1] if licence else None,
    )
