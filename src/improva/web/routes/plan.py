"""The plan of the work over all pairs, orders and samples."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any

from flask import Response

from ...app.plan import Plan, make_plan, plan_settings
from ...io.plan_files import plan_calendar, plan_csv
from ..context import services
from ..presenters.plan import plan_out
from ..routing import Routes, binary
from ..schemas.plan import PlanOut, PlanSettingsIn

api = Routes("plan", "/api/plan")


def _plan() -> Plan:
    return make_plan(services, plan_settings(services), date.today())


def _file(text: str, kind: str, name: str) -> Response:
    answer = Response(text, content_type=f"{kind}; charset=utf-8")
    answer.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@api.get("", responses={200: PlanOut})
def get_plan() -> dict[str, Any]:
    """Return the plan from today, or from the day that the settings name. No check is run."""
    return plan_out(_plan()).model_dump(mode="json")


@api.put("/settings", responses={200: PlanOut})
def put_plan_settings(body: PlanSettingsIn) -> dict[str, Any]:
    """Set the minutes of work a day, and how long each kind of work takes.

    Raises :class:`ListingError` where the work would take more than 400 days.
    """
    plan = make_plan(services, body, date.today())
    services.store.selling.keep_plan(body.model_dump(mode="json"))
    return plan_out(plan).model_dump(mode="json")


@api.get("/plan.csv", responses={200: binary("text/csv")})
def get_plan_table() -> Response:
    """Return the plan as a table."""
    plan = _plan()
    return _file(plan_csv(plan.days, [each.day for each in plan.samples]), "text/csv", "plan.csv")


@api.get("/plan.ics", responses={200: binary("text/calendar")})
def get_plan_calendar() -> Response:
    """Return the plan as iCalendar, for the calendar of a computer or a phone."""
    plan = _plan()
    text = plan_calendar(plan.days, [each.day for each in plan.samples], datetime.now(UTC))
    return _file(text, "text/calendar", "plan.ics")
