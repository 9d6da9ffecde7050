"""The seller's marks on a photograph: points, brush strokes and colour."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...colour import parse_hex
from ...errors import SceneError
from ...template import Panel, Template

Point = tuple[float, float]
"""x and y in fractions of the photograph's width and height, from its top left corner."""

FLAT, ROUND = (
    ("top left", "top right", "bottom right", "bottom left"),
    (
        "upper edge, left",
        "upper edge, front",
        "upper edge, right",
        "lower edge, left",
        "lower edge, front",
        "lower edge, right",
    ),
)
"""The points of a flat print, and those of a print around a body, in order."""

MOST_DABS = 400


@dataclass(frozen=True)
class Dab:
    """A round brush dab that keeps an area in a mask, or leaves it out. ``reach`` is its radius in photo widths."""

    at: Point
    reach: float
    keep: bool


@dataclass(frozen=True)
class Marks:
    """All marks on a photograph.

    Attributes:
        points: where the print lies: :data:`FLAT` or :data:`ROUND`, in that order.
        size_mm: real width and height of the flat rectangle that is marked, where it is not the panel itself, as a sheet of
            paper laid on a shirt; the print then lies with its middle ``offset_mm`` right of and below the rectangle's.
        facing_deg: which part of a wrap looks at the camera: 0 for its middle, 90 for what lies to the right of it.
        box: left, top, right, bottom of a rough box around the product; None for one around the points.
        product, front: touches that correct the product's mask; and those that mark what lies in front of it.
        plain: a spot where the blank shows its own colour in ordinary light; None to use the middle tone of the product.
        colour: the colour that the photographed blank has, ``#rrggbb``.
    """

    points: tuple[Point, ...]
    size_mm: tuple[float, float] | None = None
    offset_mm: tuple[float, float] = (0.0, 0.0)
    facing_deg: float = 0.0
    box: tuple[float, float, float, float] | None = None
    product: tuple[Dab, ...] = ()
    front: tuple[Dab, ...] = ()
    plain: Point | None = None
    colour: str = "#f2f1ed"

    def check(self, panel: Panel) -> None:
        """Check that the marks are possible on this panel.

        Raises :class:`SceneError` or :class:`PlacementError` otherwise.
        """
        names = names_of(panel)
        if len(self.points) != len(names):
            raise SceneError(f"{panel.title} needs {len(names)} points: {', '.join(names)}.")
        for x, y in [*self.points, *([self.plain] if self.plain else [])]:
            if not (math.isfinite(x) and math.isfinite(y) and -0.5 <= x <= 1.5 and -0.5 <= y <= 1.5):
                raise SceneError("A point lies far outside the photograph: bring it nearer.")
        if self.size_mm and not all(1 <= v <= 10_000 for v in self.size_mm):
            raise SceneError("The marked rectangle must measure between 1 mm and 10 m a side.")
        if len(self.product) + len(self.front) > MOST_DABS:
            raise SceneError(f"More than {MOST_DABS} touches: start the mask anew.")
        parse_hex(self.colour)


def goes_round(panel: Panel) -> bool:
    """Return whether a panel goes around a body of revolution."""
    return panel.closes or panel.gap_mm > 0 or panel.cone is not None


def names_of(panel: Panel) -> tuple[str, ...]:
    """Return the names of a panel's points."""
    return ROUND if goes_round(panel) else FLAT


def on_cloth(template: Template) -> bool:
    """Return whether the print is ink that covers the cloth, rather than dye in the blank."""
    return template.kind == "garment"
