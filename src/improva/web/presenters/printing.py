"""Response model of print settings."""

from __future__ import annotations

from dataclasses import asdict

from ...app.edits import edit_key
from ...app.pair import Pair
from ...app.print_plans import PrintPlan, plan_of, printing_of
from ...app.services import Services
from ...core.output import PAPERS_MM, carries
from ...core.template import Panel
from ..schemas.printing import PrintPlanOut, PrintStateOut, SheetOut


def printing_out(services: Services, pair: Pair, panel: Panel) -> PrintStateOut:
    """Return the print settings and plan of a panel."""
    settings = printing_of(pair)
    return PrintStateOut(
        printing=settings,
        edit_key=edit_key(settings.model_dump()),
        plan=_plan(plan_of(services, pair, panel, settings)),
        papers=PAPERS_MM,
        can_tab=carries(panel),
        has_profile=services.blanks.profile(pair.template) is not None,
    )


def _plan(plan: PrintPlan) -> PrintPlanOut:
    sheets = [SheetOut(number=i, box=box) for i, box in enumerate(plan.sheets, 1)]
    return PrintPlanOut(**{**asdict(plan), "sheets": sheets})
