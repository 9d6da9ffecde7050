"""Tasks spread over days, pressing in batches, and the days of samples."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from improva.core.errors import ListingError
from improva.core.plan import Heat, Task, expected_on, plan_days, press_batches
from improva.core.providers import Sample

FRIDAY = date(2026, 11, 27)
CUP = Heat("Tumbler press", 196, 170, "light")
FLAG = Heat("Heat press", 199, 60, "medium")


def task(kind: str = "list", count: int = 1, minutes: float = 10, heat: Heat | None = None, title: str = "Tarn on mug") -> Task:
    return Task(kind, 1, "mug", title, count, minutes, "", heat)  # type: ignore[arg-type]


def test_buyers_come_first_and_a_day_holds_what_fits() -> None:
    days = plan_days([task("list", 1, 10), task("fix", 1, 5), task("print", 4, 20)], FRIDAY, 60)
    assert [[(t.kind, t.count) for t in day.tasks] for day in days] == [[("print", 3)], [("print", 1), ("fix", 1), ("list", 1)]]
    assert [day.minutes for day in days] == [60, 35]
    assert [day.date for day in days] == [FRIDAY, FRIDAY + timedelta(days=3)], "no work on Saturday and Sunday"


def test_weekends_are_worked_on_request() -> None:
    days = plan_days([task("list", 3, 60)], FRIDAY, 60, weekends=True)
    assert [day.date.day for day in days] == [27, 28, 29]
    assert plan_days([task()], FRIDAY + timedelta(days=1), 60)[0].date == date(2026, 11, 30)


def test_a_piece_longer_than_a_day_has_a_day_to_itself() -> None:
    days = plan_days([task("fix", 2, 90), task("list", 1, 10)], FRIDAY, 60)
    assert [[t.count for t in day.tasks] for day in days] == [[1], [1], [1]]


@given(
    st.lists(st.tuples(st.sampled_from(["print", "fix", "list"]), st.integers(1, 30), st.floats(0, 50)), max_size=12),
    st.floats(5, 300),
)
def test_no_piece_is_lost_and_no_day_is_too_full(work: list[tuple[str, int, float]], a_day: float) -> None:
    tasks = [task(kind, count, minutes, title=f"{i}") for i, (kind, count, minutes) in enumerate(work)]
    try:
        days = plan_days(tasks, FRIDAY, a_day)
    except ListingError:
        assert sum(t.minutes for t in tasks) > 100 * a_day
        return
    planned: dict[str, int] = {}
    for day in days:
        assert day.date.weekday() < 5 and day.tasks
        assert day.minutes <= a_day + 1e-6 or sum(t.count for t in day.tasks if t.minutes > 1e-6) == 1
        for each in day.tasks:
            planned[each.title] = planned.get(each.title, 0) + each.count
    assert planned == {t.title: t.count for t in tasks}


def test_endless_work_and_days_without_minutes_are_refused() -> None:
    with pytest.raises(ListingError, match="400 days"):
        plan_days([task("list", 900, 60)], FRIDAY, 60)
    with pytest.raises(ListingError, match="minutes of work a day"):
        plan_days([], FRIDAY, 0)


def test_pressing_is_grouped_by_heat_with_its_total_minutes() -> None:
    tasks = [
        task("press", 2, 6, CUP),
        task("press", 1, 4, FLAG, "Tarn on flag"),
        task("press", 3, 6, CUP, "Pass on tumbler"),
        task("list"),
    ]
    batches = press_batches(tasks)
    assert [(b.heat, b.count, b.minutes) for b in batches] == [(FLAG, 1, 4), (CUP, 5, 30)]
    order = [t.heat for day in plan_days(tasks, FRIDAY, 600) for t in day.tasks if t.heat]
    assert order == [FLAG, CUP, CUP], "a press is set up once for each batch"


def test_a_sample_is_expected_after_the_usual_days() -> None:
    """Five days to ship and nine in all: common practice, no published source."""
    new = Sample("Print works", "2026-11-20")
    assert (expected := expected_on(new, [new])) and (expected.day, expected.own) == (date(2026, 11, 29), False)
    sent = Sample("Print works", "2026-11-20", "2026-11-26")
    assert (expected := expected_on(sent, [sent])) and expected.day == date(2026, 11, 30)
    slow = Sample("Print works", "2026-10-01", "2026-10-08", "2026-10-15")
    assert (expected := expected_on(new, [new, slow])) and (expected.day, expected.own) == (date(2026, 12, 4), True)
    assert (expected := expected_on(sent, [sent, slow])) and expected.day == date(2026, 12, 3)
    assert expected_on(slow, [slow]) is None
