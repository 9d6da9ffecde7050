"""Response models of the plan of the work."""

from __future__ import annotations

from ...app.plan import Plan, SampleOnItsWay
from ...core.plan import Day, PressBatch, Task
from ..schemas.plan import ExpectedSampleOut, PlanDayOut, PlanOut, PlanTaskOut, PressBatchOut


def _task(task: Task) -> PlanTaskOut:
    return PlanTaskOut(
        kind=task.kind,
        artwork_id=task.artwork_id,
        template_id=task.template_id,
        title=task.title,
        count=task.count,
        minutes=round(task.minutes, 1),
        why=task.why,
        heat=task.heat.title if task.heat else "",
    )


def _day(day: Day) -> PlanDayOut:
    return PlanDayOut(date=day.date, minutes=round(day.minutes, 1), tasks=[_task(task) for task in day.tasks])


def _batch(batch: PressBatch) -> PressBatchOut:
    heat = batch.heat
    return PressBatchOut(
        method=heat.method,
        temperature_c=heat.temperature_c,
        seconds=heat.seconds,
        pressure=heat.pressure,
        count=batch.count,
        minutes=round(batch.minutes, 1),
        titles=[f"{task.count} × {task.title}" for task in batch.tasks],
    )


def _sample(each: SampleOnItsWay) -> ExpectedSampleOut:
    sample = each.row.sample
    return ExpectedSampleOut(
        id=each.row.id,
        artwork_id=each.row.artwork_id,
        template_id=each.row.template_id,
        title=each.title,
        provider=sample.provider,
        ordered=sample.ordered,
        shipped=sample.shipped,
        expected=each.expected.day,
        own=each.expected.own,
    )


def plan_out(plan: Plan) -> PlanOut:
    """Return a plan's response."""
    return PlanOut(
        settings=plan.settings,
        days=[_day(day) for day in plan.days],
        batches=[_batch(batch) for batch in plan.batches],
        samples=[_sample(each) for each in plan.samples],
        unchecked=plan.unchecked,
    )
