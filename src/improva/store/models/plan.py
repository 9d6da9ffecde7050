"""The seller's settings of the plan, as stored."""

from __future__ import annotations

from datetime import date

from pydantic import Field

from ...core.plan import KINDS, Minutes
from .base import StoredModel

_FIRST = Minutes()


class PlanModel(StoredModel):
    """Minutes of work a day, and how long each kind of work takes for one piece, in minutes."""

    minutes_a_day: float = Field(default=120, ge=1, le=1440)
    weekends: bool = False
    start: date | None = Field(default=None, description="The first day; today where there is none")
    print: float = Field(default=_FIRST.print, ge=0, le=600)
    press: float = Field(default=_FIRST.press, ge=0, le=600, description="Handling of a blank beside its time under heat")
    order: float = Field(default=_FIRST.order, ge=0, le=600)
    fix: float = Field(default=_FIRST.fix, ge=0, le=600)
    picture: float = Field(default=_FIRST.picture, ge=0, le=600)
    list: float = Field(default=_FIRST.list, ge=0, le=600)

    def minutes(self) -> Minutes:
        """Return the core's value."""
        return Minutes(**{kind: getattr(self, kind) for kind in KINDS})
