"""How a print file is made: density, the way it reads, and the paper round a wrap."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal, get_args

from ..errors import BadOutput
from ..template import Box, Panel
from ..units import finite
from .profile import INTENTS, Intent

DPI_LIMITS = (36.0, 1200.0)
MAX_PRINT_PX = 600_000_000
MOST_TAB_MM = 60.0
MARKS_MM = 6.0
"""Height of the paper above and below a wrap that carries its trim marks."""

TabSide = Literal["none", "left", "right"]


@dataclass(frozen=True)
class Carrier:
    """Paper round a wrap: a white tab past one end that carries the tape, and trim marks above and below.

    ``tab`` is the side on the print as it is seen on the cup; the other end is trimmed flush, so that the seam butts.
    """

    tab: TabSide = "none"
    tab_mm: float = 0.0
    marks: bool = False

    def __post_init__(self) -> None:
        if self.tab not in get_args(TabSide):
            raise BadOutput(f"A tab on the side '{self.tab}' is not known: choose none, left or right.")
        if not 0 <= finite(self.tab_mm, "tab") <= MOST_TAB_MM:
            raise BadOutput(f"A tab of {self.tab_mm:g} mm cannot be made: use 0 to {MOST_TAB_MM:g} mm.")

    @property
    def margins_mm(self) -> tuple[float, float, float, float]:
        """Paper added left, top, right and below."""
        end = MARKS_MM if self.marks else 0.0
        return self.tab_mm * (self.tab == "left"), end, self.tab_mm * (self.tab == "right"), end

    def check(self, panel: Panel) -> None:
        """Raise :class:`BadOutput` where a panel's print does not end straight."""
        if any(self.margins_mm) and panel.shape != "rectangle":
            raise BadOutput(f"{panel.title} is cut along a curved line: a tab and trim marks need straight ends.")


@dataclass(frozen=True)
class PrintSettings:
    """How a panel's print file is made.

    Attributes:
        mirror: for pressing oneself: the paper is laid face down.
        cut_line: draw the trim's outline, for what is cut out by hand.
        profile, intent: the printer's ICC profile to which colours are converted, and how; None keeps sRGB.
    """

    dpi: float = 300.0
    mirror: bool = False
    cut_line: bool = False
    carrier: Carrier = field(default_factory=Carrier)
    profile: bytes | None = None
    intent: Intent = "relative"

    def __post_init__(self) -> None:
        if not DPI_LIMITS[0] <= self.dpi <= DPI_LIMITS[1]:
            raise BadOutput(f"{self.dpi:g} dpi cannot be made: ask for {DPI_LIMITS[0]:g} to {DPI_LIMITS[1]:g}.")
        if self.intent not in INTENTS:
            raise BadOutput(f"The intent '{self.intent}' is not known: choose one of {', '.join(INTENTS)}.")

    def art_px(self, panel: Panel) -> tuple[int, int]:
        """Pixels of the panel's print. Raises :class:`BadOutput` if they are too many for one file."""
        w, h = panel.file_px(self.dpi)
        if w * h > MAX_PRINT_PX:
            raise BadOutput(f"{w} × {h} px is more than can be printed in one file: ask for fewer dpi.")
        return w, h

    def margins_px(self, panel: Panel) -> tuple[int, int, int, int]:
        """Paper added left, top, right and below, before the file is mirrored."""
        w, h = panel.file_px(self.dpi)
        across, down = w / panel.file_mm[0], h / panel.file_mm[1]
        left, top, right, below = self.carrier.margins_mm
        return round(left * across), round(top * down), round(right * across), round(below * down)

    def file_px(self, panel: Panel) -> tuple[int, int]:
        """Pixels of the file, with the paper round the print."""
        w, h = panel.file_px(self.dpi)
        left, top, right, below = self.margins_px(panel)
        return w + left + right, h + top + below

    def print_box(self, panel: Panel) -> Box:
        """Where the print, bleed included, lies on the file as it is written: in mm from its top left corner."""
        left, top, right, _ = self.carrier.margins_mm
        return right if self.mirror else left, top, *panel.file_mm

    def file_mm(self, panel: Panel) -> tuple[float, float]:
        """Width and height of the file, with the paper round the print."""
        left, top, right, below = self.carrier.margins_mm
        return panel.file_mm[0] + left + right, panel.file_mm[1] + top + below
