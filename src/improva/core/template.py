"""Blanks and their print templates. All lengths are in millimetres."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from shapely import Polygon, box

from .errors import TemplateError
from .geometry import Cone
from .limits import limit_of
from .sewing.seams import Face, Seam
from .units import pixels

Route = Literal["press", "upload"]
Lay = Literal["bent", "flat"]
Box = tuple[float, float, float, float]
"""x, y, width, height in mm; the origin is the top left corner of the trim."""


@dataclass(frozen=True)
class KeepOut:
    """An area of a panel that stays free of important content: under a pocket's edge, a label, a pole's sleeve."""

    title: str
    box: Box


@dataclass(frozen=True)
class Panel:
    """One printed area of a blank, lying flat.

    The trim is what the buyer sees; bleed lies around it and is cut off or turned under; the safe area
    lies ``safe_mm`` inside the trim on every side. ``closes`` says that left and right edge meet at a seam.

    Attributes:
        seam_zone_mm: width of the strip at either end that tape, trimming and press, or a handle, may spoil.
        tab_mm: a white tab past the right end that carries the tape; it is paper, not print.
        gap_mm: the bare stretch that stays between the two ends at a handle; 0 where there is none.
        shape: ``rectangle``, ``cone`` (a piece of a ring, see ``cone``), ``outline`` (cut along ``outline_mm``) or
            ``cutout`` (cut along the artwork's own contour).
        starts: whether the panel initially carries the artwork or is empty.
        allowance_mm: cloth beyond the line along which a cut-out is sewn.
        window_mm: what is drawn in place of the print file's box, where another panel shows a part of this one's design.
    """

    id: str
    title: str
    trim_mm: tuple[float, float]
    bleed_mm: float = 0.0
    safe_mm: float = 0.0
    closes: bool = False
    seam_zone_mm: float = 0.0
    dpi: float = 300.0
    shape: str = "rectangle"
    tab_mm: float = 0.0
    gap_mm: float = 0.0
    keep_out: tuple[KeepOut, ...] = ()
    outline_mm: tuple[tuple[float, float], ...] = ()
    cone: Cone | None = None
    starts: Literal["art", "empty"] = "art"
    allowance_mm: float = 0.0
    window_mm: Box | None = None

    @property
    def file_mm(self) -> tuple[float, float]:
        """Width and height of the print file: the trim plus bleed."""
        return self.file_box[2:]

    @property
    def file_box(self) -> Box:
        """The print file's box in trim coordinates."""
        (w, h), b = self.trim_mm, self.bleed_mm
        return self.window_mm or (-b, -b, w + 2 * b, h + 2 * b)

    @property
    def safe_box(self) -> Box:
        """The safe area's box in trim coordinates."""
        s = self.safe_mm
        return (s, s, self.trim_mm[0] - 2 * s, self.trim_mm[1] - 2 * s)

    def file_px(self, dpi: float | None = None) -> tuple[int, int]:
        """Return the pixels of the print file at ``dpi`` (default: the template's)."""
        w, h = self.file_mm
        return pixels(w, dpi or self.dpi), pixels(h, dpi or self.dpi)

    def level(self) -> Panel:
        """Return the level panel: a tapered wall becomes its level rectangle, all other panels stay as they are."""
        if self.cone is None:
            return self
        return replace(self, trim_mm=(self.cone.round_mm, self.cone.slant_mm), cone=None, shape="rectangle")

    def field(self, lay: Lay) -> Panel:
        """Return the rectangle that a placement refers to: the level one for bent art, else the flat's own box."""
        return self.level() if lay == "bent" else self

    def line(self, inset_mm: float = 0.0) -> list[tuple[float, float]]:
        """Return the trim's outline on the flat, or a line at a distance inside it, as a closed ring of points in mm."""
        if self.cone is not None:
            return self.cone.outline(-inset_mm)
        w, h = self.trim_mm
        shape = Polygon(self.outline_mm) if self.outline_mm else box(0, 0, w, h)
        inner = shape.buffer(-inset_mm, join_style="mitre") if inset_mm else shape
        inner = max(getattr(inner, "geoms", [inner]), key=lambda part: part.area)
        return [(float(x), float(y)) for x, y in list(inner.exterior.coords)[:-1]] if not inner.is_empty else []

    def cut(self) -> Polygon:
        """The printed shape, bleed included, in trim coordinates."""
        if self.cone is not None:
            return Polygon(self.cone.outline(self.bleed_mm))
        x, y, w, h = self.file_box
        file = box(x, y, x + w, y + h)
        return Polygon(self.outline_mm).buffer(self.bleed_mm).intersection(file) if self.outline_mm else file


@dataclass(frozen=True)
class Template:
    """A blank: its panels, how it is printed, and the limits of its checks.

    Attributes:
        unprinted: what the buyer sees where nothing can be printed, for example "the back stays white".
        sizes: the finished sizes it is sold in, each with how large the print, or what is cut of it, is against the largest.
        grading: how one file serves all sizes: *scaled* to each, or each *cut* from its middle.
        limits: what differs from the limits that hold for every blank; see :mod:`improva.core.limits`.
        seams, faces: how its panels meet, where it is sewn of several, and how it looks lying flat.
        looks: figures for drawing the blank, see :mod:`improva.core.mockup.drawn`.
        own: measured by the seller, not shipped.
    """

    id: str
    title: str
    kind: str
    route: Route
    default_fit: str
    panels: tuple[Panel, ...]
    blank_colour: str = "#f3f2ee"
    half_transparent: Literal["fine", "warn"] = "fine"
    substrate: str = ""
    finishes: tuple[str, ...] = ()
    unprinted: str = ""
    sizes: Mapping[str, float] = field(default_factory=dict)
    grading: Literal["scaled", "cut"] = "scaled"
    limits: Mapping[str, float] = field(default_factory=dict)
    looks: Mapping[str, Any] = field(default_factory=dict)
    provenance: Mapping[str, str] = field(default_factory=dict)
    own: bool = False
    seams: tuple[Seam, ...] = ()
    faces: tuple[Face, ...] = ()

    def limit(self, name: str) -> float:
        """Return a limit by name: the blank's own, or the general one."""
        return limit_of(name, self.limits)

    def cut_share(self) -> float:
        """The share of a panel's width and height that the smallest size keeps, where all sizes are cut from one file."""
        return min(self.sizes.values(), default=1.0) if self.grading == "cut" else 1.0

    @property
    def least_dpi(self) -> float:
        """The resolution below which the print is refused."""
        return self.limit("least_dpi")

    @property
    def good_dpi(self) -> float:
        """The resolution that sellers aim for."""
        return self.limit("good_dpi")

    def with_limits(self, limits: Mapping[str, float]) -> Template:
        """Return the template with the seller's own limits applied."""
        return replace(self, limits={**self.limits, **limits}) if limits else self

    def panel(self, panel_id: str | None = None) -> Panel:
        """Return the panel of an id; the first panel for None.

        Raises:
            TemplateError: there is no such panel.
        """
        if panel_id is None:
            return self.panels[0]
        for panel in self.panels:
            if panel.id == panel_id:
                return panel
        known = ", ".join(p.id for p in self.panels)
        raise TemplateError(f"{self.title} has no panel '{panel_id}'. Its panels: {known}.")
