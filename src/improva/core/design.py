"""What a seller decides: which artwork, where on which panel, over what ground."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Literal, get_args

from .colour import parse_hex
from .errors import BadPlacing
from .template import Panel, Template
from .units import finite

Fit = Literal["cover", "contain", "actual", "stretch"]
FITS: tuple[Fit, ...] = get_args(Fit)
SCALE_LIMITS = (0.01, 100.0)
SHIFT_LIMIT_MM = 10_000.0


@dataclass(frozen=True)
class Placing:
    """How a picture lies on a panel.

    ``fit`` gives a first size, ``scale`` multiplies it, ``rotate_deg`` turns it clockwise about its own
    centre, and ``shift_mm`` moves that centre right and down from the centre of the panel.
    ``background`` is the colour beneath it (``#rrggbb``), or None for the bare blank.
    """

    fit: Fit = "cover"
    shift_mm: tuple[float, float] = (0.0, 0.0)
    scale: float = 1.0
    rotate_deg: float = 0.0
    background: str | None = None

    def __post_init__(self) -> None:
        if self.fit not in FITS:
            raise BadPlacing(f"The fit '{self.fit}' is not known: choose one of {', '.join(FITS)}.")
        if not SCALE_LIMITS[0] <= finite(self.scale, "scale") <= SCALE_LIMITS[1]:
            raise BadPlacing(f"A scale of {self.scale:g} is out of reach: use {SCALE_LIMITS[0]:g} to {SCALE_LIMITS[1]:g}.")
        if max(abs(finite(v, "shift")) for v in self.shift_mm) > SHIFT_LIMIT_MM:
            raise BadPlacing(f"A shift beyond {SHIFT_LIMIT_MM:g} mm leaves any blank: use a smaller one.")
        finite(self.rotate_deg, "rotation")
        if self.background is not None:
            parse_hex(self.background)

    def changed(self, **what: Any) -> Placing:
        """A copy with some of its values changed."""
        return replace(self, **what)


@dataclass(frozen=True)
class ArtSize:
    """What fitting needs to know of an artwork: pixels, and the size it claims for itself in mm."""

    px: tuple[int, int]
    claimed_mm: tuple[float, float]


@dataclass(frozen=True)
class Piece:
    """One artwork, placed. ``art`` is the content hash by which the artwork is known."""

    art: str
    size: ArtSize
    placing: Placing


@dataclass(frozen=True)
class Design:
    """Pieces in the order they are laid down, on one panel of a template."""

    template: Template
    panel: Panel
    pieces: tuple[Piece, ...]
