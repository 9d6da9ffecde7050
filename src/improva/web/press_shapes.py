"""What the Press station is told, and tells."""

from __future__ import annotations

from dataclasses import asdict
from typing import Literal

from pydantic import Field

from ..core.press import Figures
from .shapes import PanelQuery, Shape

MethodName = Literal["tumbler", "flat", "mug"]
PressureName = Literal["light", "medium", "firm"]
ResultName = Literal["good", "usable", "spoiled"]


class PressQuery(PanelQuery):
    """Which press and finish; the blank's usual ones where not given."""

    method: MethodName | None = None
    press: str = Field(default="", max_length=80)
    finish: str = Field(default="", max_length=40)
    by: Literal["", "maker", "log"] = Field(default="", description="Whose figures; the maker's win where they are known")


class FiguresBody(Shape):
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
        """The core's value. Raises :class:`BadPress`."""
        return Figures(**self.model_dump())

    @classmethod
    def of(cls, figures: Figures) -> FiguresBody:
        """From the core's value."""
        return cls(**asdict(figures))


class MakerBody(Shape):
    """The maker's figures; null takes them away."""

    figures: FiguresBody | None


class PressBody(Shape):
    """A press of the seller's."""

    name: str = Field(min_length=1, max_length=80)
    method: MethodName
    platen_mm: tuple[float, float]


class PressingBody(Shape):
    """A pressing for the log."""

    on: str = Field(pattern=r"^\d{4}-\d{2}-\d{2}$")
    figures: FiguresBody
    result: ResultName
    faults: list[str] = Field(default_factory=list, max_length=12)
    note: str = Field(default="", max_length=2000)


class StepShape(Shape):
    """One step of the plan."""

    do: str
    kind: Literal["ready", "press", "peek", "again", "if-pale"]
    lie: str
    seconds: float
    temperature_c: float | None
    temperature_f: float | None
    pressure: str
    box: tuple[float, float, float, float] | None = Field(description="What lies under the platen, in mm of the print")


class LogEntry(PressingBody):
    """A pressing in the log."""

    id: int
    photo: bool
    counts: bool = Field(description="Whether the suggestion is drawn from it")


class CauseShape(Shape):
    """A cause of a fault, and what to do."""

    why: str
    do: str


class FaultShape(Shape):
    """A fault with its causes in their order."""

    id: str
    title: str
    looks: str
    causes: list[CauseShape]


class PressState(Shape):
    """Everything about pressing a pair."""

    method: MethodName
    methods: dict[str, str] = Field(description="Titles of the presses that this blank goes into")
    press: str
    presses: list[PressBody]
    finish: str
    finishes: list[str]
    by: Literal["maker", "log"]
    figures: FiguresBody = Field(description="Those that are pressed by")
    suggested: FiguresBody | None = Field(description="What the log suggests, where there is one")
    why: list[str] = Field(description="Why the log suggests it")
    rule: str
    common: FiguresBody
    maker: FiguresBody | None
    steps: list[StepShape]
    total_s: float
    print_mm: tuple[float, float]
    cautions: list[str]
    faults: list[FaultShape]
    log: list[LogEntry]
