"""Blanks and the print templates that belong to them. All lengths are in millimetres."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from .colour import parse_hex
from .errors import BadTemplate, ImprovaError
from .units import inches, mm_from_in, pixels

Route = Literal["press", "upload"]
Box = tuple[float, float, float, float]
"""x, y, width, height in mm; the origin is the top left corner of the trim."""


@dataclass(frozen=True)
class Panel:
    """One printed area of a blank, lying flat.

    The trim is what the buyer sees; bleed lies round it and is cut off or turned under; the safe area
    lies ``safe_mm`` inside the trim on every side. ``closes`` says that left and right edge meet at a seam.
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

    @property
    def file_mm(self) -> tuple[float, float]:
        """Width and height of the print file: the trim with its bleed."""
        return self.trim_mm[0] + 2 * self.bleed_mm, self.trim_mm[1] + 2 * self.bleed_mm

    @property
    def file_box(self) -> Box:
        """The print file's box in trim coordinates."""
        return (-self.bleed_mm, -self.bleed_mm, *self.file_mm)

    @property
    def safe_box(self) -> Box:
        """The safe area's box in trim coordinates."""
        s = self.safe_mm
        return (s, s, self.trim_mm[0] - 2 * s, self.trim_mm[1] - 2 * s)

    def file_px(self, dpi: float | None = None) -> tuple[int, int]:
        """Pixels of the print file at ``dpi`` (the template's own where not given)."""
        w, h = self.file_mm
        return pixels(w, dpi or self.dpi), pixels(h, dpi or self.dpi)


@dataclass(frozen=True)
class Template:
    """A blank: its panels, how it is printed, and the limits that work on it is judged by."""

    id: str
    title: str
    kind: str
    route: Route
    default_fit: str
    panels: tuple[Panel, ...]
    least_dpi: float = 150.0
    good_dpi: float = 300.0
    blank_colour: str = "#f3f2ee"
    half_transparent: Literal["fine", "warn"] = "fine"
    provenance: Mapping[str, str] = field(default_factory=dict)

    def panel(self, panel_id: str | None = None) -> Panel:
        """The panel of that id, or the first one.

        Raises:
            BadTemplate: there is no such panel.
        """
        if panel_id is None:
            return self.panels[0]
        for panel in self.panels:
            if panel.id == panel_id:
                return panel
        known = ", ".join(p.id for p in self.panels)
        raise BadTemplate(f"{self.title} has no panel '{panel_id}'. Its panels: {known}.")


def _length(value: Any, unit: str) -> float:
    if unit not in ("in", "mm"):
        raise BadTemplate(f'The unit \'{unit}\' is not known: write "in" or "mm".')
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise BadTemplate(f"'{value}' is not a length: write a number.")
    return mm_from_in(value) if unit == "in" else float(value)


def parse_panel(data: Mapping[str, Any]) -> Panel:
    """A panel from its table in a template file. Raises :class:`BadTemplate` with what is wrong."""
    unit = data.get("unit", "mm")
    try:
        w, h = (_length(v, unit) for v in data["trim"])
        panel = Panel(
            id=str(data["id"]),
            title=str(data.get("title", data["id"])),
            trim_mm=(w, h),
            bleed_mm=_length(data.get("bleed", 0), unit),
            safe_mm=_length(data.get("safe", 0), unit),
            closes=bool(data.get("closes", False)),
            seam_zone_mm=_length(data.get("seam_zone", 0), unit),
            dpi=float(data.get("dpi", 300)),
        )
    except KeyError as missing:
        raise BadTemplate(f"A panel lacks {missing}: add it to the template.") from missing
    except (TypeError, ValueError) as wrong:
        raise BadTemplate(f"A panel's figures cannot be read ({wrong}): trim is [width, height].") from wrong
    if not 1 <= min(panel.trim_mm) <= max(panel.trim_mm) <= 10_000:
        raise BadTemplate(f"Panel '{panel.id}' is {inches(w):g} × {inches(h):g} in: 1 mm to 10 m a side can be printed.")
    if panel.bleed_mm < 0 or panel.safe_mm < 0 or 2 * panel.safe_mm >= min(panel.trim_mm):
        raise BadTemplate(f"Panel '{panel.id}' has no room inside its safe line: make safe and bleed smaller.")
    if not 10 <= panel.dpi <= 2400:
        raise BadTemplate(f"Panel '{panel.id}' asks for {panel.dpi:g} dpi: 10 to 2400 can be made.")
    return panel


def parse_template(data: Mapping[str, Any]) -> Template:
    """A template from the contents of its TOML file.

    Raises:
        BadTemplate: a key is missing, a figure is impossible, or the route is not known.
    """
    try:
        panels = tuple(parse_panel(panel) for panel in data["panels"])
        route = data.get("route", "press")
        if route not in ("press", "upload"):
            raise BadTemplate(f'The route \'{route}\' is not known: write "press" or "upload".')
        if not panels:
            raise BadTemplate("A template needs at least one panel.")
        colour = str(data.get("blank_colour", Template.blank_colour))
        parse_hex(colour)
        return Template(
            id=str(data["id"]),
            title=str(data["title"]),
            kind=str(data["kind"]),
            route=route,
            default_fit=str(data.get("default_fit", "cover")),
            panels=panels,
            least_dpi=float(data.get("least_dpi", 150)),
            good_dpi=float(data.get("good_dpi", 300)),
            blank_colour=colour,
            half_transparent="warn" if data.get("half_transparent") == "warn" else "fine",
            provenance=dict(data.get("provenance", {})),
        )
    except KeyError as missing:
        raise BadTemplate(f"The template lacks {missing}: add it.") from missing
    except BadTemplate:
        raise
    except (ImprovaError, TypeError, ValueError) as wrong:
        raise BadTemplate(f"The template cannot be read: {wrong}") from wrong
