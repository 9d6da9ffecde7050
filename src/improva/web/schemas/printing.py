"""Request and response models of print files."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...store.models.base import RowId
from ...store.models.printing import IntentName, PrintingModel, Size
from .common import In, MadeFileOut, Out, PanelQuery

PROOF_PX = 1200


class SheetOut(Out):
    """One sheet: its number, and its part of the file in mm."""

    number: int
    box: tuple[float, float, float, float]


class PrintPlanOut(Out):
    """The planned file: its true size, the print's position on it, and its sheets."""

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
    """The print settings and plan of a panel."""

    printing: PrintingModel
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    plan: PrintPlanOut
    papers: dict[str, Size] = Field(description="Papers by name, in mm")
    can_tab: bool = Field(description="Whether its ends are straight")
    has_profile: bool


class JobOut(Out):
    """A job: its progress and its files."""

    id: RowId
    kind: str
    title: str
    state: Literal["queued", "running", "done", "failed", "stopped"]
    stopping: bool
    share: float
    problem: str | None
    files: list[MadeFileOut]


class PrintJobIn(In):
    """The files to make: of the selected panel, or of all panels in one ZIP."""

    sides: Literal["this", "all"] = "this"


class ProofQuery(PanelQuery):
    """Options of a soft proof."""

    paper: bool = Field(default=False, description="White as the paper's own")
    intent: IntentName = "relative"
    px: int = Field(default=PROOF_PX, ge=64, le=2000)


class JobPath(BaseModel):
    """Path of a job."""

    job_id: RowId


class JobListOut(Out):
    """Jobs, the newest first."""

    jobs: list[JobOut]


class PrintingIn(In, PrintingModel):
    """Print settings."""
