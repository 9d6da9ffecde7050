"""The limits of the checks, with the value that applies unless a blank or the seller sets another."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import isfinite

from .errors import TemplateError


@dataclass(frozen=True)
class Limit:
    """A limit: its title, unit, default, range and source."""

    title: str
    unit: str
    default: float
    least: float
    most: float
    source: str


_PRACTICE = "common practice, no published source"
_MEMORY = "from memory"

LIMITS: dict[str, Limit] = {
    "least_dpi": Limit("Minimum resolution", "dpi", 150, 36, 1200, f"{_PRACTICE}: the least that print providers take"),
    "good_dpi": Limit("Good resolution", "dpi", 300, 36, 1200, f"{_PRACTICE}: what sellers aim for"),
    "viewing_mm": Limit("Viewing distance", "mm", 350, 50, 5000, f"{_MEMORY}: a thing held in the hand"),
    "crop_percent": Limit(
        "Picture cropped", "%", 20, 0, 100, f"{_MEMORY}: beyond a fifth, something meant to show is usually gone"
    ),
    "crop_fix_percent": Limit(
        "Picture cropped too far", "%", 100, 0, 100, f"{_MEMORY}: none; above it a crop must be fixed, not only looked at"
    ),
    "stretch_percent": Limit("Distortion", "%", 2, 0, 100, f"{_MEMORY}: two per cent is not noticed"),
    "stroke_mm": Limit(
        "Thinnest stroke", "mm", 0.25, 0.02, 20, f"{_MEMORY}: 0.7 point, the thinnest line that transfers and coats reproduce"
    ),
    "letter_mm": Limit(
        "Smallest lettering", "mm", 1.8, 0.1, 200, f"{_MEMORY}: capitals of a 7 point face, read at arm's length"
    ),
    "words_contrast": Limit("Text contrast", ":1", 3, 1, 21, "WCAG 2.2, 1.4.3: large text against its background"),
    "outside_safe_mm": Limit("Content past the safe line", "mm", 0.5, 0, 200, f"{_MEMORY}: less is lost in trimming anyway"),
    "haze_percent": Limit("Pale haze", "%", 0.5, 0, 100, f"{_MEMORY}: antialiased edges stay below it"),
    "half_percent": Limit("Half-transparent ink", "%", 2, 0, 100, f"{_MEMORY}: antialiased edges alone stay below it"),
    "white_percent": Limit("White on white", "%", 25, 0, 100, f"{_MEMORY}: a quarter of a motif may be paper-white"),
    "tint_delta_e": Limit("Tint from a coloured blank", "ΔE", 6, 0, 100, f"{_MEMORY}: about three just noticeable differences"),
    "gap_delta_e": Limit("Contrast at the handle", "ΔE", 25, 0, 100, f"{_MEMORY}: a mid grey against white is 40"),
    "seam_delta_e": Limit("Colour step at the seam", "ΔE", 2, 0, 100, f"{_MEMORY}: twice a just noticeable difference"),
    "detail_percent": Limit("Detail at the seam", "%", 6, 0, 100, f"{_MEMORY}: above it a strip is lettering or busy drawing"),
    "joint_delta_e": Limit("Colour step between tiles", "ΔE", 2.5, 0, 100, f"{_MEMORY}: a line visible at arm's length"),
    "sewing_mm": Limit("Sewing tolerance", "mm", 5, 0.5, 50, f"{_MEMORY}: how far a sewn seam deviates on either side"),
    "break_delta_e": Limit("Mismatch at a sewn seam", "ΔE", 8, 0, 100, f"{_MEMORY}: folds and shade of cloth hide less"),
    "gamut_percent": Limit("Out-of-gamut colours", "%", 5, 0, 100, f"{_MEMORY}: less is seldom noticed"),
    "gamut_delta_e": Limit("Out of gamut by", "ΔE", 5, 0, 100, f"{_MEMORY}: a shift seen side by side"),
}


def limit_of(name: str, limits: Mapping[str, float]) -> float:
    """Return a limit's value by name, from ``limits`` if it is there."""
    return limits.get(name, LIMITS[name].default)


def known_limit(name: str) -> Limit:
    """Return a limit by name. Raises :class:`TemplateError` with the known names."""
    if name not in LIMITS:
        raise TemplateError(f"There is no limit '{name}'. Known: {', '.join(LIMITS)}.")
    return LIMITS[name]


def checked_limits(limits: Mapping[str, float]) -> dict[str, float]:
    """Check the limits of a seller or template against their ranges.

    Raises:
        TemplateError: a name that is not known, or a value out of reach.
    """
    for name, value in limits.items():
        limit = known_limit(name)
        if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
            raise TemplateError(f"{limit.title}: '{value}' is not a number.")
        if not limit.least <= value <= limit.most:
            raise TemplateError(f"{limit.title} of {value:g} {limit.unit} is out of reach: {limit.least:g} to {limit.most:g}.")
    return {name: float(value) for name, value in limits.items()}
