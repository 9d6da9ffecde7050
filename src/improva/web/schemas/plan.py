"""Request and response models of the plan of the work."""

from __future__ import annotations

from datetime import date

from pydantic import Field

from ...core.plan import Kind
from ...store.models.plan import PlanModel
from .common import In, Out


class PlanSettingsIn(In, PlanModel):
    """Minutes of work a day, and how long each kind of work takes."""


class PlanTaskOut(Out):
    """Some pieces of the same work on one pair."""

    kind: Kind
    artwork_id: int
    template_id: str
    title: str
    count: int
    minutes: float
    why: str = Field(description="What is to be fixed, or whose orders they are")
    heat: str = Field(description="How it is pressed; empty for other work")


class PlanDayOut(Out):
    """The tasks of a day."""

    date: date
    minutes: float
    tasks: list[PlanTaskOut]


class PressBatchOut(Out):
    """Pieces that are pressed one after another at the same heat."""

    method: str
    temperature_c: float
    seconds: float = Field(description="Under heat in all, for one piece")
    pressure: str
    count: int
    minutes: float = Field(description="Of all pieces, with their handling")
    titles: list[str]


class ExpectedSampleOut(Out):
    """A sample on its way."""

    id: int
    artwork_id: int
    template_id: str
    title: str
    provider: str
    ordered: str
    shipped: str
    expected: date
    own: bool = Field(description="Whether the day follows from earlier samples of this provider")


class PlanOut(Out):
    """The plan of the work over all pairs, orders and samples."""

    settings: PlanModel
    days: list[PlanDayOut]
    batches: list[PressBatchOut]
    samples: list[ExpectedSampleOut]
    unchecked: int = Field(description="Pairs whose checks have not run yet; they are not in the plan")
