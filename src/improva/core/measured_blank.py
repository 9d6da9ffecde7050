"""Make a template from a seller's measures or a provider's print file size."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from .errors import TemplateError
from .geometry import cone_from_measures
from .template import Panel, Template
from .units import MM_PER_IN

Form = Literal["round", "flat", "pixels"]
ASSUMED_DPI = 300.0
"""Density assumed for a size in pixels without a density. Common practice, no published source."""

KIND_OF_FORM: dict[str, str] = {"round": "tumbler", "flat": "own", "pixels": "own"}


@dataclass(frozen=True)
class Measures:
    """The measures of a blank. Lengths in mm.

    Attributes:
        form: ``round`` (circumferences and height), ``flat`` (width and height) or ``pixels`` (a file's size).
        top_mm, bottom_mm: circumference at the top and at the bottom of the print.
        height_mm, width_mm: of the print; upright, not along a slanted wall.
        gap_mm: what stays bare at a handle, along the larger circumference; 0 where the wrap closes.
        file_px, dpi: a print file's size where only pixels are given, and its density or None.
    """

    title: str
    form: Form
    kind: str = "own"
    top_mm: float = 0.0
    bottom_mm: float = 0.0
    height_mm: float = 0.0
    width_mm: float = 0.0
    gap_mm: float = 0.0
    bleed_mm: float = 0.0
    safe_mm: float = 5.0
    file_px: tuple[int, int] = (0, 0)
    dpi: float | None = None
    route: Literal["press", "upload"] = "press"
    default_fit: str = "cover"
    blank_colour: str = "#f3f2ee"


def circumference(diameter_mm: float) -> float:
    """Return the circumference of a circle."""
    return math.pi * diameter_mm


def _round_panel(m: Measures) -> Panel:
    cone = cone_from_measures(m.top_mm, m.bottom_mm, m.height_mm, m.gap_mm)
    zone = min(7.0, 0.04 * max(m.top_mm, m.bottom_mm))
    common = {"safe_mm": m.safe_mm, "bleed_mm": m.bleed_mm, "closes": not m.gap_mm, "gap_mm": m.gap_mm}
    if cone is not None:
        return Panel("wrap", "Wrap", cone.box_mm, seam_zone_mm=zone, shape="cone", cone=cone, **common)  # type: ignore[arg-type]
    return Panel("wrap", "Wrap", (m.top_mm - m.gap_mm, m.height_mm), seam_zone_mm=zone, **common)  # type: ignore[arg-type]


def _pixel_panel(m: Measures) -> Panel:
    dpi = m.dpi or ASSUMED_DPI
    if min(m.file_px) < 1:
        raise TemplateError("A print file needs a width and a height in whole pixels.")
    w, h = (px / dpi * MM_PER_IN - 2 * m.bleed_mm for px in m.file_px)
    return Panel("print", "Print", (w, h), m.bleed_mm, m.safe_mm, dpi=dpi)


def measured_template(template_id: str, m: Measures) -> Template:
    """Return the template that follows from measures. The caller must still validate it.

    Raises:
        TemplateError: measures that no blank has.
    """
    if m.form == "round":
        panel, source = _round_panel(m), "measured by the seller: circumferences and upright height"
    elif m.form == "pixels":
        panel = _pixel_panel(m)
        source = "given in pixels" + ("" if m.dpi else f"; no density given, {ASSUMED_DPI:.0f} dpi taken")
    else:
        panel = Panel("print", "Print", (m.width_mm, m.height_mm), m.bleed_mm, m.safe_mm)
        source = "measured by the seller: width and height"
    looks = {"body": "turned", "top": "open", "above": 4, "below": 3} if m.form == "round" else {"body": "cloth"}
    return Template(
        id=template_id,
        title=m.title.strip() or "A blank of mine",
        kind=m.kind,
        route=m.route,
        default_fit=m.default_fit,
        panels=(panel,),
        blank_colour=m.blank_colour,
        looks=looks,
        own=True,
        provenance={"trim": source, "safe": "given by the seller", "bleed": "given by the seller"},
    )
