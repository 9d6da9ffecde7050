"""How print files are asked for, and what is said of them before they are made."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...store.models.printing import IntentName, PrintingModel, Size
from .common import In, MadeFileOut, Out, PanelQuery

PROOF_PX = 1200


class SheetOut(Out):
    """One sheet: its number, and its part of the file in mm."""

    number: int
    box: tuple[float, float, float, float]


class PrintPlanOut(Out):
    """What will come out: the file's true size, where the print lies on it, and its sheets."""

    file_mm: Size
    file_px: tuple[int, int]
    print_box: tuple[float, float, float, float] = Field(description="The print's place in the file, in mm")
    name: str
    paper_mm: Size | None
    sheets: list[SheetOut] = Field(description="Empty where the file is not cut into sheets")
    tab: list[Size] = Field(description="The tab's corners on the file, in mm")
    marks: list[tuple[float, float, float, float]] = Field(description="Trim marks on the file, in mm")
    problem: str | None


class PrintStateOut(Out):
    """How a pair's panel is printed, as it is answered."""

    printing: PrintingModel
    plan: PrintPlanOut
    papers: dict[str, Size] = Field(description="Papers by name, in mm")
    can_tab: bool = Field(description="Whether its ends are straight")
    has_profile: bool


class JobOut(Out):
    """Long work: how far it is, and what came of it."""

    id: int
    kind: str
    title: str
    state: Literal["queued", "running", "done", "failed", "stopped"]
    stopping: bool
    share: float
    problem: str | None
    files: list[MadeFileOut]


class PrintJobIn(In):
    """Which files are wanted: the side in front, or all sides in one ZIP."""

    sides: Literal["this", "all"] = "this"


class ProofQuery(PanelQuery):
    """How the soft proof is looked at."""

    paper: bool = Field(default=False, description="White as the paper's own")
    intent: IntentName = "relative"
    px: int = Field(default=PROOF_PX, ge=64, le=2000)


class JobPath(BaseModel):
    """Which job."""

    job_id: int


class JobListOut(Out):
    """Jobs, the newest first."""

    jobs: list[JobOut]


class PrintingIn(In, PrintingModel):
    """How print files are made, as a request sends it."""
