"""Designs: artworks and pieces on a panel, with their placement."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any, Literal, get_args

from .colour import parse_hex
from .errors import PlacementError
from .sewing.motion import Motion
from .sewing.seams import Follow
from .template import Lay, Panel, Template
from .units import finite

if TYPE_CHECKING:
    from .pieces import Extra

Fit = Literal["cover", "contain", "actual", "stretch", "repeat"]
FITS: tuple[Fit, ...] = get_args(Fit)
RepeatKind = Literal["grid", "half-drop", "brick", "mirror"]
REPEAT_KINDS: tuple[RepeatKind, ...] = get_args(RepeatKind)
SCALE_LIMITS = (0.01, 100.0)
SHIFT_LIMIT_MM = 10_000.0
MOST_AROUND = 400
MOST_COPIES = 24
MOST_BLEND = 0.45


@dataclass(frozen=True)
class Placement:
    """The placement of an artwork on a panel.

    ``fit`` gives a first size, ``scale`` multiplies it, ``rotate_deg`` turns it clockwise about its own
    centre, and ``shift_mm`` moves that centre right and down from the centre of the panel.
    ``background`` is the colour beneath it (``#rrggbb``), or None for the bare blank.

    Attributes:
        repeat_kind, repeats_around, spacing_mm, blend: for ``fit="repeat"``: how tiles stand to each other, how many
            lie side by side on the panel's width (None: as many as come nearest to the picture's own size), bare
            space between them, and the share of the picture's width and height over which its opposite edges are
            blended into each other. ``shift_mm`` then moves the pattern's corner from the trim's corner.
        copies: the picture lies this many times side by side, evenly spaced: 2 is front and back of a mug.
        roll_mm: how far a wrap whose ends meet is rolled round the cup, to the right: what leaves one end comes in at the other.
        brightness, saturation: per cent, from -100 to 100, for this blank only; 0 changes nothing.
        white_point: the value of 255 that becomes white, for this blank only.
        lay: on a tapered wall, *bent* so that level lines are level on the cup, or *flat* and cut by the outline.
    """

    fit: Fit = "cover"
    shift_mm: tuple[float, float] = (0.0, 0.0)
    scale: float = 1.0
    rotate_deg: float = 0.0
    background: str | None = None
    repeat_kind: RepeatKind = "grid"
    repeats_around: int | None = None
    spacing_mm: float = 0.0
    blend: float = 0.0
    copies: int = 1
    lay: Lay = "bent"
    roll_mm: float = 0.0
    brightness: float = 0.0
    saturation: float = 0.0
    white_point: float = 255.0

    def __post_init__(self) -> None:
        if self.fit not in FITS:
            raise PlacementError(f"The fit '{self.fit}' is not known: choose one of {', '.join(FITS)}.")
        if not SCALE_LIMITS[0] <= finite(self.scale, "scale") <= SCALE_LIMITS[1]:
            raise PlacementError(f"A scale of {self.scale:g} is out of reach: use {SCALE_LIMITS[0]:g} to {SCALE_LIMITS[1]:g}.")
        if max(abs(finite(v, "shift")) for v in self.shift_mm) > SHIFT_LIMIT_MM:
            raise PlacementError(f"A shift beyond {SHIFT_LIMIT_MM:g} mm leaves any blank: use a smaller one.")
        finite(self.rotate_deg, "rotation")
        if abs(finite(self.roll_mm, "roll")) > SHIFT_LIMIT_MM:
            raise PlacementError(f"A roll beyond {SHIFT_LIMIT_MM:g} mm goes round any cup many times: use a smaller one.")
        for what, value, least, most in (
            ("brightness", self.brightness, -100, 100),
            ("saturation", self.saturation, -100, 100),
            ("white point", self.white_point, 1, 255),
        ):
            if not least <= finite(value, what) <= most:
                raise PlacementError(f"A {what} of {value:g} is out of reach: use {least:g} to {most:g}.")
        if self.background is not None:
            parse_hex(self.background)
        if self.repeat_kind not in REPEAT_KINDS:
            raise PlacementError(f"The repeat '{self.repeat_kind}' is not known: choose one of {', '.join(REPEAT_KINDS)}.")
        if self.repeats_around is not None and not 1 <= self.repeats_around <= MOST_AROUND:
            raise PlacementError(f"{self.repeats_around} repeats around cannot be laid: use 1 to {MOST_AROUND}.")
        if not 0 <= finite(self.spacing_mm, "spacing") <= SHIFT_LIMIT_MM:
            raise PlacementError(f"A spacing of {self.spacing_mm:g} mm cannot be: use 0 or more.")
        if not 0 <= finite(self.blend, "blend") <= MOST_BLEND:
            raise PlacementError(f"A blend of {self.blend:g} is out of reach: use 0 to {MOST_BLEND:g} of the picture.")
        if not 1 <= self.copies <= MOST_COPIES:
            raise PlacementError(f"{self.copies} copies cannot be laid side by side: use 1 to {MOST_COPIES}.")
        if self.lay not in get_args(Lay):
            raise PlacementError(f"The lay '{self.lay}' is not known: choose bent or flat.")

    @property
    def adjusts(self) -> bool:
        """Return whether brightness, saturation or white point differ from the artwork's own."""
        return bool(self.brightness or self.saturation or self.white_point != 255)

    def changed(self, **what: Any) -> Placement:
        """Return a copy with some values changed."""
        return replace(self, **what)


PanelContent = Placement | Follow
"""The content of a panel: a placement of its own, or the part of its first panel's design that it shows."""


@dataclass(frozen=True)
class ArtSize:
    """The size of an artwork for fitting: its effective pixels, and its tagged size in mm."""

    px: tuple[float, float]
    claimed_mm: tuple[float, float]


@dataclass(frozen=True)
class Piece:
    """A placed artwork. ``art`` is its content hash."""

    art: str
    size: ArtSize
    placement: Placement


@dataclass(frozen=True)
class LinkedPanel:
    """A link to another panel's design: the motion maps this panel's points to that panel."""

    design: Design
    motion: Motion


@dataclass(frozen=True)
class Design:
    """Everything on one panel of a template: the artworks in drawing order, and extra pieces behind or in front. ``fonts`` are
    font files by the key that words name. A panel that is ``linked`` shows another panel's design and has none of its own."""

    template: Template
    panel: Panel
    pieces: tuple[Piece, ...]
    extras: tuple[Extra, ...] = ()
    fonts: Mapping[str, bytes] = field(default_factory=dict)
    linked: LinkedPanel | None = None

    @property
    def carries(self) -> bool:
        """Return whether the panel shows an artwork: its own, or that of the panel it follows."""
        return bool(self.linked.design.pieces if self.linked else self.pieces)
