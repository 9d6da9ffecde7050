"""A pair's print settings as stored."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...core.output import paper_size
from ...core.output.carrier import MOST_TAB_MM
from ...core.output.settings import DPI_LIMITS
from .base import StoredModel

Size = tuple[float, float]


IntentName = Literal["relative", "perceptual", "saturation", "absolute"]


class PrintingModel(StoredModel):
    """A pair's print settings.

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
        """Return the paper's size, or None. Raises :class:`OutputError`."""
        return None if self.paper == "none" else paper_size(self.paper)
