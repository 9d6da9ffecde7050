"""How print files are asked for, and what is said of them before they are made."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..core.output import paper_size
from ..core.output.carrier import MOST_TAB_MM
from ..core.output.settings import DPI_LIMITS
from .shapes import MadeFile, Shape

Size = tuple[float, float]


IntentName = Literal["relative", "perceptual", "saturation", "absolute"]


class PrintingBody(Shape):
    """How a pair's print files are made.

    ``paper`` is ``none``, the name of a paper, or its size as ``330x482mm``.
    """

    format: Literal["png", "tif", "pdf", "jpg"] = "png"
    dpi: float | None = Field(default=None, ge=DPI_LIMITS[0], le=DPI_LIMITS[1], description="The panel's own where null")
    cut_line: bool = False
    tab: Literal["none", "left", "right"] = "none"
    tab_mm: float = Field(default=6.35, ge=0, le=MOST_TAB_MM)
    marks: bool = False
    own_profile: bool = Field(default=False, description="Convert to the blank's own ICC profile")
    intent: IntentName = "relative"
    paper: str = Field(default="none", max_length=40)
    margin_mm: float = Field(default=5.0, ge=0, le=100)
    overlap_mm: float = Field(default=10.0, ge=0, le=200)
    copies: int = Field(default=1, ge=1, le=10_000)
    notes: str = Field(default="", max_length=2000)

    @property
    def paper_mm(self) -> Size | None:
        """The paper's size, or None. Raises :class:`BadOutput`."""
        return None if self.paper == "none" else paper_size(self.paper)


class SheetShape(Shape):
    """One sheet: its number, and its part of the file in mm."""

    number: int
    box: tuple[float, float, float, float]


class PrintPlan(Shape):
    """What will come out: the file's true size, where the print lies on it, and its sheets."""

    file_mm: Size
    file_px: tuple[int, int]
    print_box: tuple[float, float, float, float] = Field(description="The print's place in the file, in mm")
    name: str
    paper_mm: Size | None
    sheets: list[SheetShape] = Field(description="Empty where the file is not cut into sheets")
    tab: list[Size] = Field(description="The tab's corners on the file, in mm")
    marks: list[tuple[float, float, float, float]] = Field(description="Trim marks on the file, in mm")
    problem: str | None


class PrintState(Shape):
    """How a pair's panel is printed, as it is answered."""

    printing: PrintingBody
    plan: PrintPlan
    papers: dict[str, Size] = Field(description="Papers by name, in mm")
    can_tab: bool = Field(description="Whether its ends are straight")
    has_profile: bool


class JobShape(Shape):
    """Long work: how far it is, and what came of it."""

    id: int
    kind: str
    title: str
    state: Literal["queued", "running", "done", "failed", "stopped"]
    stopping: bool
    share: float
    problem: str | None
    files: list[MadeFile]
