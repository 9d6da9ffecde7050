"""The seller's work as a plan: tasks spread over days, pressing in batches, and samples on their way."""

from .days import Day, plan_days
from .samples import Expected, expected_on
from .tasks import KINDS, Heat, Kind, Minutes, PressBatch, Task, press_batches

__all__ = [
    "KINDS",
    "Day",
    "Expected",
    "Heat",
    "Kind",
    "Minutes",
    "PressBatch",
    "Task",
    "expected_on",
    "plan_days",
    "press_batches",
]
