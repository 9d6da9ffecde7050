"""``improva measure`` and ``improva cone``: the arithmetic of measuring a blank."""

from __future__ import annotations

from typing import Any

import click

from ..app.reports import cone_report
from ..core.geometry import cone_from_measures
from ..core.units import MM_PER_IN
from .group import as_json_option, main, tell


@main.group()
def measure() -> None:
    """Calculate the flat of a blank from its measures."""


@measure.command()
@click.option("--top-circumference", type=float, required=True, metavar="L", help="Round the blank at the top of the print.")
@click.option("--bottom-circumference", type=float, required=True, metavar="L", help="Round the blank at its foot.")
@click.option("--height", type=float, required=True, metavar="L", help="Upright, not along the slanted wall.")
@click.option("--gap", type=float, default=0.0, metavar="L", help="Bare at a handle, along the larger circumference.")
@click.option("--unit", type=click.Choice(["mm", "in"]), default="mm", show_default=True)
@as_json_option
def cone(top_circumference: float, bottom_circumference: float, height: float, gap: float, unit: str, as_json: bool) -> None:
    """Calculate the development of a tapered wall: a ring segment."""
    factor = MM_PER_IN if unit == "in" else 1.0
    top, bottom, tall, bare = (value * factor for value in (top_circumference, bottom_circumference, height, gap))
    shape = cone_from_measures(top, bottom, tall, bare)
    if shape is None:  # a straight wall: its ring is a rectangle with infinite radii
        report: dict[str, Any] = {
            "inner_radius_mm": None,
            "outer_radius_mm": None,
            "sweep_deg": 0.0,
            "slant_mm": tall,
            "box_mm": [top - bare, tall],
        }
    else:
        report = cone_report(shape)
    lengths = ("inner_radius_mm", "outer_radius_mm", "slant_mm", "box_mm")
    if unit == "in":
        report |= {name.replace("_mm", "_in"): _in_inches(report[name]) for name in lengths}
    numbers = [f"{name.replace('_mm', ''):13} {_shown(report[name], unit)}" for name in lengths]
    tell(report, as_json, [*numbers, f"{'sweep':13} {report['sweep_deg']:.3f}°"])


def _in_inches(mm: float | list[float] | tuple[float, ...] | None) -> Any:
    """Return a length, or a width and a height, in inches."""
    if isinstance(mm, list | tuple):
        return [side / MM_PER_IN for side in mm]
    return None if mm is None else mm / MM_PER_IN


def _shown(mm: float | list[float] | tuple[float, ...] | None, unit: str) -> str:
    """Return a length in words, to a hundredth of a millimetre or a thousandth of an inch."""
    if mm is None:
        return "none: the wall is straight"
    sides = list(mm) if isinstance(mm, list | tuple) else [mm]
    return " × ".join(f"{side / MM_PER_IN:.3f}" if unit == "in" else f"{side:.2f}" for side in sides) + f" {unit}"
