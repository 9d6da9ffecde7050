"""The gang sheet: prints of several pairs on one sheet or roll."""

from __future__ import annotations

from typing import Any

from ...app.edits import editing
from ...app.gang_sheets import NO_PAIR, SETTING, GangPrints, stored_gang_sheet
from ..context import jobs, services
from ..presenters.gang_sheet import gang_sheet_out
from ..presenters.jobs import job_out
from ..routing import Routes
from ..schemas.common import EditQuery
from ..schemas.gang_sheet import GangIn, GangStateOut
from ..schemas.printing import JobOut

api = Routes("printing", "/api/gang")


@api.get("", responses={200: GangStateOut})
def get_gang_sheet() -> dict[str, Any]:
    """Return the items of the gang sheet and their layout."""
    return gang_sheet_out(services, jobs).model_dump()


@api.put("", responses={200: GangStateOut})
def set_gang_sheet(query: EditQuery, body: GangIn) -> dict[str, Any]:
    """Set the items and the size of the gang sheet."""
    database, edited = services.store.database, body.model_dump()
    with editing(database, query.based_on, lambda: stored_gang_sheet(services).model_dump(), edited):
        database.keep_setting(SETTING, edited)
    return get_gang_sheet()


@api.post("/job", responses={200: JobOut})
def make_gang_sheet() -> dict[str, Any]:
    """Start a job that makes the gang sheet's file."""
    prints = GangPrints(services, stored_gang_sheet(services))
    plan = prints.plan()
    body = prints.body.model_copy(update={"items": [item for _, item in prints.pairs]})
    parameters = {"gang": body.model_dump(), "of": [pair.placement_key for pair, _ in prints.pairs]}
    return job_out(services, jobs.start("gang", parameters, f"Gang sheet of {len(plan.puts)} prints", *NO_PAIR)).model_dump()
