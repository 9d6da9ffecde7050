"""``improva press``: plan a pressing."""

from __future__ import annotations

import click

from ..catalogue import template as find_template
from ..core.press import CAUTIONS, METHODS, common_figures, methods_of, press_plan
from .group import as_json_option, main, tell


@main.command()
@click.argument("template_id", metavar="TEMPLATE")
@click.option("--method", type=click.Choice(list(METHODS)), help="The press; the blank's usual one by default.")
@click.option("--panel", "panel_id", metavar="ID", help="The blank's first panel by default.")
@as_json_option
def press(template_id: str, method: str | None, panel_id: str | None, as_json: bool) -> None:
    """Plan the pressing of a blank by common practice; the maker's own figures take precedence."""
    template = find_template(template_id)
    chosen = method or methods_of(template)[0]
    figures = common_figures(template, chosen)  # type: ignore[arg-type]  # checked by click
    steps = press_plan(template, template.panel(panel_id), chosen, figures)  # type: ignore[arg-type]
    listed = [
        {
            "do": step.do,
            "temperature_c": step.temperature_c,
            "temperature_f": None if step.temperature_f is None else round(step.temperature_f, 1),
            "seconds": step.seconds,
            "pressure": step.pressure,
            "kind": step.kind,
            "lie": step.lie,
        }
        for step in steps
    ]
    lines = [f"{template.title}, {METHODS[chosen].lower()}: {figures.note}"]  # type: ignore[index]
    for number, step in enumerate(steps, 1):
        heat = (
            f"{step.temperature_c:g} °C / {step.temperature_f:.0f} °F, {step.seconds:g} s, {step.pressure}: "
            if step.temperature_f
            else ""
        )
        lines.append(f"{number:2} {heat}{step.do}")
    data = {"template": template.id, "method": chosen, "source": figures.note, "steps": listed, "cautions": list(CAUTIONS)}
    tell(data, as_json, [*lines, "", *(f"! {caution}" for caution in CAUTIONS)])
