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
@click.option("--unit", type=click.Choice(["mm", "in"]), default="mm", show_default=True)
@as_json_option
def cone(top_circumference: float, bottom_circumference: float, height: float, unit: str, as_json: bool) -> None:
    """Calculate the development of a tapered wall: a ring segment."""
    factor = MM_PER_IN if unit == "in" else 1.0
    top, bottom, tall = (value * factor for value in (top_circumference, bottom_circumference, height))
    shape = cone_from_measures(top, bottom, tall)
    if shape is None:  # a straight wall: its ring is a rectangle with infinite radii
        report: dict[str, Any] = {
            "inner_radius_mm": None,
            "outer_radius_mm": None,
            "sweep_deg": 0.0,
            "slant_mm": tall,
            "box_mm": [top, tall],
        }
    else:
        report = cone_report(shape)
    numbers = [
        f"{name:16} {report[name]}" for name in ("inner_radius_mm", "outer_radius_mm", "sweep_deg", "slant_mm", "box_mm")
    ]
    tell(report, as_json, numbers)
