"""Conversions of lengths and densities. Inside Improva every length is in millimetres."""

from __future__ import annotations

import math

from .errors import PlacementError

MM_PER_IN = 25.4
"""Exact: NIST SP 811, appendix B.8."""

PT_PER_IN = 72.0
"""PDF user space unit, 1/72 inch: ISO 32000-1, 8.3.2.3."""


def inches(mm: float) -> float:
    """Convert millimetres to inches."""
    return mm / MM_PER_IN


def mm_from_in(length_in: float) -> float:
    """Convert inches to millimetres."""
    return length_in * MM_PER_IN


def points(mm: float) -> float:
    """Convert millimetres to PDF points."""
    return mm / MM_PER_IN * PT_PER_IN


def pixels(mm: float, dpi: float) -> int:
    """Return the number of whole pixels nearest to a length at a density, at least one."""
    return max(1, round(mm / MM_PER_IN * dpi))


def effective_dpi(px: float, printed_mm: float) -> float:
    """Return pixels per printed inch, independent of the file's tag.

    Raises:
        PlacementError: the printed length is not positive.
    """
    if not printed_mm > 0:
        raise PlacementError("The artwork has no printed size: give it a scale above 0.")
    return px / (printed_mm / MM_PER_IN)


def px_per_metre(dpi: float) -> int:
    """Convert a density for PNG's pHYs chunk (W3C PNG, 11.3.4.3): 300 dpi is 11811."""
    return round(dpi / MM_PER_IN * 1000)


def finite(value: float, what: str) -> float:
    """Return ``value`` if it is a finite number.

    Raises :class:`PlacementError` naming ``what`` otherwise.
    """
    if not math.isfinite(value):
        raise PlacementError(f"The {what} must be a number, not {value}.")
    return value


def fahrenheit(celsius: float) -> float:
    """Convert degrees Celsius to Fahrenheit: NIST SP 811, appendix B.8."""
    return celsius * 1.8 + 32


def celsius(fahrenheit: float) -> float:
    """Convert degrees Fahrenheit to Celsius: NIST SP 811, appendix B.8."""
    return (fahrenheit - 32) / 1.8
