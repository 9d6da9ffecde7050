"""Spread tasks over days."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

from ..errors import ListingError
from .tasks import Task, in_order

MOST_DAYS = 400
SATURDAY = 5


@dataclass(frozen=True)
class Day:
    """The tasks of a day."""

    date: date
    tasks: tuple[Task, ...]

    @property
    def minutes(self) -> float:
        """Return the minutes of its tasks."""
        return sum(task.minutes for task in self.tasks)


def plan_days(tasks: Iterable[Task], start: date, minutes_a_day: float, weekends: bool = False) -> list[Day]:
    """Spread tasks over days, in the order of work.

    Pieces of a task that do not fit in a day go to the next one. A single piece that is longer than a day has one to itself.

    Raises:
        ListingError: a day has no minutes, or the work takes more than :data:`MOST_DAYS` days.
    """
    if not 1 <= minutes_a_day <= 24 * 60:
        raise ListingError(f"{minutes_a_day:g} minutes of work a day cannot be planned: use 1 to 1440.")
    waiting, days, at = in_order(tasks), list[Day](), start
    waiting.reverse()
    while waiting:
        if not weekends:
            while at.weekday() >= SATURDAY:
                at += timedelta(days=1)
        left, taken = minutes_a_day, list[Task]()
        while waiting:
            task = waiting.pop()
            fits = task.count if task.minutes <= left + 1e-9 else int((left + 1e-9) // task.minutes_each)
            count = max(fits, 0 if taken else 1)
            if count:
                taken.append(task.part(count))
                left = max(0.0, left - count * task.minutes_each)
            if count < task.count:
                waiting.append(task.part(task.count - count))
                break
        days.append(Day(at, tuple(taken)))
        if len(days) > MOST_DAYS:
            raise ListingError(f"This work takes more than {MOST_DAYS} days: plan more minutes a day.")
        at += timedelta(days=1)
    return days
