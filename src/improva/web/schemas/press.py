"""Request and response models of pressing."""

from __future__ import annotations

from dataclasses import asdict
from typing import Literal

from pydantic import BaseModel, Field

from ...app.press import PressChoice
from ...core.press import Figures
from ...store.models.base import RowId
from .common import In, Out, PanelQuery

MethodName = Literal["tumbler", "flat", "mug"]
PressureName = Literal["light", "medium", "firm"]
ResultName = Literal["good", "usable", "spoiled"]


class PressQuery(PanelQuery):
    """The chosen press and finish; the blank's usual ones by default."""

    method: MethodName | None = None
    press: str = Field(default="", max_length=80)
    finish: str = Field(default="", max_length=40)
    by: Literal["", "maker", "log"] = Field(default="", description="Whose figures; the maker's win where they are known")

    def to_choice(self) -> PressChoice:
        """Return the application's value."""
        return PressChoice(self.method, self.press, self.finish, self.by, self.panel)


class FiguresIn(In):
    """Settings of a press."""

    temperature_c: float
    main_s: float
    pressure: PressureName = "light"
    side_s: float = 0
    end_s: float = 0
    again_s: float = 40
    source: Literal["maker", "log", "practice"] = "maker"
    note: str = Field(default="", max_length=400)

    def to_core(self) -> Figures:
        """The core's value. Raises :class:`PressError`."""
        return Figures(**self.model_dump())

    @classmethod
    def of(cls, figures: Figures) -> FiguresIn:
        """From the core's value."""
        return cls(**asdict(figures))


class MakerIn(In):
    """The maker's figures; null removes them."""

    figures: FiguresIn | None


class PressIn(In):
    """One of the seller's presses."""

    name: str = Field(min_length=1, max_length=80)
    method: MethodName
    platen_mm: tuple[float, float]


class PressingIn(In):
    """A pressing for the log."""

    on: str = Field(pattern=r"^\d{4}-\d{2}-\d{2}$")
    figures: FiguresIn
    result: ResultName
    faults: list[str] = Field(default_factory=list, max_length=12)
    note: str = Field(default="", max_length=2000)


class PressStepOut(Out):
    """One step of the plan."""

    do: str
    kind: Literal["ready", "press", "peek", "again", "if-pale"]
    lie: str
    seconds: float
    temperature_c: float | None
    temperature_f: float | None
    pressure: str
    box: tuple[float, float, float, float] | None = Field(description="What lies under the platen, in mm of the print")


class LogEntryOut(PressingIn):
    """A pressing in the log."""

    id: RowId
    photo: bool
    counts: bool = Field(description="Whether the suggestion is drawn from it")


class CauseOut(Out):
    """A cause of a fault, and what to do."""

    why: str
    do: str


class FaultOut(Out):
    """A fault with its causes in their order."""

    id: str
    title: str
    looks: str
    causes: list[CauseOut]


class PressStateOut(Out):
    """The pressing plan of a pair, with presses, faults and log."""

    method: MethodName
    methods: dict[str, str] = Field(description="Titles of the presses that this blank goes into")
    press: str
    presses: list[PressIn]
    finish: str
    finishes: list[str]
    by: Literal["maker", "log"]
    figures: FiguresIn = Field(description="Those that are pressed by")
    suggested: FiguresIn | None = Field(description="What the log suggests, where there is one")
    why: list[str] = Field(description="Why the log suggests it")
    rule: str
    common: FiguresIn
    maker: FiguresIn | None
    steps: list[PressStepOut]
    total_s: float
    print_mm: tuple[float, float]
    cautions: list[str]
    faults: list[FaultOut]
    log: list[LogEntryOut]


class PressingPath(BaseModel):
    """Path of a log entry."""

    pressing_id: RowId
