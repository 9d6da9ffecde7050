"""What a check says: measured, limit, a sentence, and a mend where one can be computed."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from ..template import Box

Status = Literal["pass", "warn", "fail"]
_ORDER: tuple[Status, ...] = ("pass", "warn", "fail")


@dataclass(frozen=True)
class Fix:
    """A mend: what the button says, and the values of the placing it changes."""

    label: str
    placing: dict[str, Any]


@dataclass(frozen=True)
class Verdict:
    """The answer of one check.

    Attributes:
        measured, limit: numbers in ``unit``; None where the check has nothing to measure.
        where: boxes on the flat that the finding is about, in mm from the trim's corner.
    """

    id: str
    title: str
    status: Status
    measured: float | None
    limit: float | None
    unit: str
    message: str
    fix: Fix | None = None
    where: tuple[Box, ...] = field(default=())


def worst(statuses: list[Status]) -> Status:
    """The gravest of some statuses; *pass* where there are none."""
    return max(statuses, key=_ORDER.index, default="pass")
