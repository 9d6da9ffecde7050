"""Settings of a print file: resolution, mirroring, colours, and the paper around a wrap."""

from __future__ import annotations

from dataclasses import dataclass, field

from ..errors import OutputError
from ..template import Box, Panel
from .carrier import Carrier, Margins, margins_mm
from .profile import INTENTS, Intent, check_rgb

DPI_LIMITS = (36.0, 1200.0)
MAX_PRINT_PX = 600_000_000


@dataclass(frozen=True)
class PrintSettings:
    """Settings of a panel's print file.

    Attributes:
        mirror: turn left and right round; see :func:`improva.core.output.mirror.is_mirrored`.
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
            raise OutputError(f"{self.dpi:g} dpi cannot be made: ask for {DPI_LIMITS[0]:g} to {DPI_LIMITS[1]:g}.")
        if self.intent not in INTENTS:
            raise OutputError(f"The intent '{self.intent}' is not known: choose one of {', '.join(INTENTS)}.")
        if self.profile is not None:
            check_rgb(self.profile)

    def art_px(self, panel: Panel) -> tuple[int, int]:
        """Return the pixels of the panel's print. Raises :class:`OutputError` if one file cannot hold them."""
        w, h = panel.file_px(self.dpi)
        if w * h > MAX_PRINT_PX:
            raise OutputError(f"{w} × {h} px is more than can be printed in one file: ask for fewer dpi.")
        return w, h

    def margins_mm(self, panel: Panel) -> Margins:
        """Return the paper left, top, right and below the print, before mirroring."""
        return margins_mm(panel, self.carrier)

    def margins_px(self, panel: Panel) -> tuple[int, int, int, int]:
        """Return the paper left, top, right and below in pixels, before mirroring."""
        w, h = panel.file_px(self.dpi)
        across, down = w / panel.file_mm[0], h / panel.file_mm[1]
        left, top, right, below = self.margins_mm(panel)
        return round(left * across), round(top * down), round(right * across), round(below * down)

    def file_px(self, panel: Panel) -> tuple[int, int]:
        """Return the pixels of the file, with the paper around the print."""
        w, h = panel.file_px(self.dpi)
        left, top, right, below = self.margins_px(panel)
        return w + left + right, h + top + below

    def print_box(self, panel: Panel) -> Box:
        """Return the box of the print, bleed included, in the written file, in mm from its top left corner."""
        left, top, right, _ = self.margins_mm(panel)
        return right if self.mirror else left, top, *panel.file_mm

    def file_mm(self, panel: Panel) -> tuple[float, float]:
        """Return width and height of the file, with the paper around the print."""
        left, top, right, below = self.margins_mm(panel)
        return panel.file_mm[0] + left + right, panel.file_mm[1] + top + below
