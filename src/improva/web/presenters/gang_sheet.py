"""Response model of the gang sheet."""

from __future__ import annotations

from urllib.parse import quote, urlencode

from ...app.edits import edit_key
from ...app.gang_sheets import NO_PAIR, GangPrints, stored_gang_sheet
from ...app.pair import Pair
from ...app.services import Services
from ...core.errors import OutputError
from ...jobs.dispatcher import JobDispatcher
from ...store.models.gang_sheet import GangItemModel
from ..schemas.gang_sheet import GangItemOut, GangPlaceOut, GangStateOut
from .jobs import job_out


def gang_sheet_out(services: Services, jobs: JobDispatcher) -> GangStateOut:
    """Return the gang sheet's response."""
    prints = GangPrints(services, stored_gang_sheet(services))
    plan, problem = None, None
    try:
        plan = prints.plan()
    except OutputError as wrong:
        problem = str(wrong) if prints.pairs else None
    items = [
        GangItemOut(
            **item.model_dump(),
            title=pair.title,
            size_mm=prints.size(pair, item),
            print_box=prints.settings(pair, item).print_box(pair.template.panel(item.panel)),
            picture=_picture(pair, item),
            mirrored=pair.mirrored,
        )
        for pair, item in prints.pairs
    ]
    body = prints.body.model_copy(update={"items": [item for _, item in prints.pairs]})
    puts = [GangPlaceOut(item=p.item, sheet=p.sheet, box=p.box, turned=p.turned) for p in plan.puts] if plan else []
    return GangStateOut(
        gang=body,
        edit_key=edit_key(stored_gang_sheet(services).model_dump()),
        items=items,
        puts=puts,
        sheets_mm=list(plan.sheets_mm) if plan else [],
        waste=plan.waste if plan else 0.0,
        problem=problem,
        jobs=[job_out(services, row) for row in jobs.table.of_pair(*NO_PAIR, most=4)],
    )


def _picture(pair: Pair, item: GangItemModel) -> str:
    query = urlencode({"panel": item.panel, "width": 400, "of": pair.placement_key[:12]})
    return f"/api/pairs/{pair.art.id}/{quote(pair.template.id)}/flat?{query}"
