"""What answers about blanks look like."""

from __future__ import annotations

from pydantic import Field

from .shapes import RouteName, Shape


class ConeShape(Shape):
    """How a tapered wall rolls out."""

    inner_radius_mm: float
    outer_radius_mm: float
    sweep_deg: float
    slant_mm: float
    box_mm: tuple[float, float]
    widens_down: bool
    top_mm: float
    bottom_mm: float
    height_mm: float


class KeepOutShape(Shape):
    """A part of a panel where nothing that matters may lie."""

    title: str
    box: tuple[float, float, float, float]


class PanelShape(Shape):
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
    keep_out: list[KeepOutShape]
    cut_line: list[tuple[float, float]]
    safe_line: list[tuple[float, float]]
    starts: str
    cone: ConeShape | None


class TemplateShape(Shape):
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
    panels: list[PanelShape]
    seams: list[dict[str, object]] = Field(description="How the panels are sewn, as a template's file says it")
    faces: list[dict[str, object]] = Field(description="How they lie when they are sewn")
    provenance: dict[str, str]


class LimitShape(Shape):
    """A limit that a blank is judged by: what holds now, what ships, and how far it may be moved."""

    name: str
    title: str
    unit: str
    value: float
    default: float
    least: float
    most: float
    source: str
    changed: bool


class Blank(Shape):
    """A blank on the shelf."""

    template: TemplateShape
    on_board: bool
    limits: list[LimitShape]
    guides: dict[str, str] = Field(description="File name of the provider's guide by panel")
    profile: str | None = Field(description="File name of the printer's ICC profile")


class Shelf(Shape):
    """Every blank there is."""

    blanks: list[Blank]
