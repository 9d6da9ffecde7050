"""Request and response models of blanks."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...core.measured_blank import Measures
from .common import In, Out, RouteName


class ConeOut(Out):
    """The development of a tapered wall."""

    inner_radius_mm: float
    outer_radius_mm: float
    sweep_deg: float
    slant_mm: float
    box_mm: tuple[float, float]
    widens_down: bool
    top_mm: float
    bottom_mm: float
    height_mm: float


class KeepOutOut(Out):
    """An area of a panel that stays free of important content."""

    title: str
    box: tuple[float, float, float, float]


class PanelOut(Out):
    """A panel of a template, in mm. ``worn_mm`` is the level rectangle of a tapered wall, else the trim."""

    id: str
    title: str
    shape: str
    trim_mm: tuple[float, float]
    worn_mm: tuple[float, float]
    bleed_mm: float
    safe_mm: float
    seam_zone_mm: float
    tab_mm: float
    gap_mm: float
    closes: bool
    dpi: float
    file_px: tuple[int, int]
    file_mm: tuple[float, float]
    keep_out: list[KeepOutOut]
    cut_line: list[tuple[float, float]]
    safe_line: list[tuple[float, float]]
    starts: str
    cone: ConeOut | None


class TemplateOut(Out):
    """A blank, with the provenance of its figures."""

    id: str
    title: str
    kind: str
    route: RouteName
    default_fit: str
    least_dpi: float
    good_dpi: float
    blank_colour: str
    substrate: str
    finishes: list[str]
    unprinted: str
    sizes: dict[str, float]
    grading: str
    half_transparent: str
    own: bool
    limits: dict[str, float]
    looks: dict[str, object]
    panels: list[PanelOut]
    seams: list[dict[str, object]] = Field(description="How the panels are sewn, as a template's file says it")
    faces: list[dict[str, object]] = Field(description="How they lie when they are sewn")
    provenance: dict[str, str]


class LimitOut(Out):
    """A limit of a blank's checks: its value, its shipped value, and its range."""

    name: str
    title: str
    unit: str
    value: float
    default: float
    least: float
    most: float
    source: str
    changed: bool


class SoldPartOut(Out):
    """A part of a blank that comes in several colours."""

    id: str
    title: str
    colours: dict[str, str] = Field(description="#rrggbb by name")
    usual: str | None
    offered: list[str] | None = Field(description="Names of the offered colours; null for the usual one only")


class OfferedIn(In):
    """Colours in which a part is offered."""

    part: str = Field(max_length=80)
    colours: list[str] | None = Field(max_length=100, description="By name; null for its usual colour only")


class BlankOut(Out):
    """A blank in the catalogue."""

    template: TemplateOut
    on_board: bool
    limits: list[LimitOut]
    guides: dict[str, str] = Field(description="File name of the provider's guide by panel")
    profile: str | None = Field(description="File name of the printer's ICC profile")
    parts: list[SoldPartOut]


class ShelfOut(Out):
    """All blanks."""

    blanks: list[BlankOut]


class BlankPath(BaseModel):
    """Path of a blank."""

    template_id: str


class LimitPath(BlankPath):
    """Path of a blank's limit."""

    name: str


class BoardIn(In):
    """The blanks on the board, in order."""

    template_ids: list[str] = Field(min_length=1, max_length=200)


class LimitIn(In):
    """The seller's own limit; None restores the shipped one."""

    value: float | None


class MeasuresIn(In):
    """The measures of a blank, in mm."""

    title: str = Field(default="", max_length=80)
    form: Literal["round", "flat", "pixels"]
    kind: Literal["tumbler", "mug", "pen", "pillow", "blanket", "flag", "transfer", "garment", "own"] = "own"
    top_mm: float = 0
    bottom_mm: float = 0
    height_mm: float = 0
    width_mm: float = 0
    gap_mm: float = Field(default=0, ge=0)
    bleed_mm: float = Field(default=0, ge=0, le=500)
    safe_mm: float = Field(default=5, ge=0, le=500)
    file_px: tuple[int, int] = (0, 0)
    dpi: float | None = Field(default=None, ge=10, le=2400)
    route: Literal["press", "upload"] = "press"
    default_fit: Literal["cover", "contain"] = "cover"
    blank_colour: str = "#f3f2ee"

    def to_core(self) -> Measures:
        """Return the core's value."""
        return Measures(**self.model_dump())


class PanelPath(BlankPath):
    """Path of a blank's panel."""

    panel_id: str


class GuideTraceOut(Out):
    """Zones read from a guide: its pixels, its stated size, and its transparent part as fractions (x, y, w, h)."""

    px: tuple[int, int]
    claimed_mm: tuple[float, float] | None
    trim: tuple[float, float, float, float] | None
    rectangular: float
