"""Judging ART on a blank, making its print file, showing it."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import click

from ..catalogue import template as find_template
from ..catalogue import templates as all_templates
from ..core.artwork.pixels import Artwork
from ..core.artwork.reading import read_file
from ..core.design import Design, Piece, Placing
from ..core.errors import BadOutput
from ..core.mockup.composite import light_plain_parts
from ..core.mockup.drawn import cut_mask
from ..core.mockup.film import angles, check_turns, turning, write_film
from ..core.mockup.pack import read_info, read_passes
from ..core.mockup.picture import PICTURE_FORMATS, check_scene, encode, mock_up, print_texture
from ..core.mockup.scene import SceneInfo
from ..core.mockup.view import make_view
from ..core.output import (
    INTENTS,
    Carrier,
    PrintSettings,
    SheetPlan,
    check_ending,
    make_print,
    paper_size,
    plan_sheets,
    write_beside,
    write_print,
    write_sheets,
)
from ..core.output.sets import write_set
from ..core.preflight import prove
from ..core.sewing.following import led_designs
from ..core.template import Panel, Template
from ..proofing import proof_report
from ..scenes import open_scene, scenes_of
from ..scenes import scene as find_scene
from ..scenes import scenes as all_scenes
from ..surfaces import surface
from .group import as_json_option, main, tell
from .placing import takes_pair, takes_pair_or_all

DEFAULT_TAB_MM = 6.35
"""A quarter of an inch, where the blank names no tab. From memory."""


@main.command()
@takes_pair
@click.option(
    "--profile", type=click.Path(path_type=Path), metavar="FILE.icc", help="Hold colours against a printer's profile."
)
@as_json_option
def check(template: Template, panel: Panel, art: Artwork, placing: Placing, profile: Path | None, as_json: bool) -> None:
    """Judge ART on a blank. Exit 0 whatever the verdict; it is in the answer."""
    proof = prove(template, panel, art.proxy(), placing, read_file(profile) if profile else None)
    lines = [f"{c.status.upper():5} {c.title}: {c.message}" for c in proof.checks]
    tell(proof_report(template, panel, art.facts, proof), as_json, [f"{template.title}: {proof.verdict}", *lines])


@main.command("print")
@takes_pair_or_all
@click.option("--dpi", type=float, help="The template's own by default.")
@click.option("--mirror/--no-mirror", default=None, help="By default as the route wants it: mirrored for pressing yourself.")
@click.option("--cut-line", is_flag=True, help="Draw the outline to cut along.")
@click.option(
    "--tab", type=click.Choice(["none", "left", "right"]), default="none", help="White paper past one end, for the tape."
)
@click.option("--tab-mm", type=float, help="Its width; the blank's own by default.")
@click.option("--marks", is_flag=True, help="Trim marks above and below.")
@click.option("--profile", type=click.Path(path_type=Path), metavar="FILE.icc", help="Convert to a printer's RGB profile.")
@click.option("--intent", type=click.Choice(INTENTS), default="relative", help="How colours out of its reach are treated.")
@click.option(
    "--sheet", default="none", metavar="none|letter|legal|a4|a3|WxHmm", help="Cut into sheets of this paper, as one PDF."
)
@click.option("--overlap-mm", default=10.0, metavar="N", help="How far sheets overlap.")
@click.option("--margin-mm", default=5.0, metavar="N", help="What the printer cannot reach at the paper's edges.")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.png|.tif|.pdf|.jpg")
def print_(template: Template, panel: Panel | None, art: Artwork, placing: Placing, dpi: float | None, mirror: bool | None,
           cut_line: bool, tab: Any, tab_mm: float | None, marks: bool, profile: Path | None, intent: Any, sheet: str,
           overlap_mm: float, margin_mm: float, output: Path) -> None:  # fmt: skip
    """Make the print file of ART: true size, true density, sRGB or a printer's own colours.

    With --panel all: every panel's file and a picture of them sewn together, as FILE.zip.
    """
    mirrored = template.route == "press" if mirror is None else mirror
    own_profile = read_file(profile) if profile else None

    def settings_of(panel: Panel) -> PrintSettings:
        width = (panel.tab_mm or DEFAULT_TAB_MM) if tab_mm is None else tab_mm
        return PrintSettings(
            panel.dpi if dpi is None else dpi, mirrored, cut_line, Carrier(tab, width if tab != "none" else 0.0, marks),
            own_profile, intent,
        )  # fmt: skip

    paper = None if sheet.lower() == "none" else paper_size(sheet)

    def plan_of(size_mm: tuple[float, float]) -> SheetPlan:
        assert paper is not None, "sheets are planned where there is a paper"
        return plan_sheets(size_mm, paper, margin_mm, overlap_mm)

    if panel is None:
        designs = led_designs(template, lambda each: _design(template, each, art, placing))
        title = Path(click.get_current_context().params["art"]).stem
        names = write_set(template, designs, lambda _: art, settings_of, title, output, plan_of if paper else None)
        click.echo(f"{output}: {len(names)} files, {'mirrored' if mirrored else 'not mirrored'}")
        return
    settings = settings_of(panel)
    check_ending(output)
    made = make_print(_design(template, panel, art, placing), lambda _: art, settings)
    said = f"{made.px[0]} × {made.px[1]} px, {settings.dpi:g} dpi, {'mirrored' if mirrored else 'not mirrored'}"
    if paper is None:
        write_print(made, output)
    else:
        plan = plan_of(made.size_mm)
        write_sheets(made, plan, output, output.stem)
        said += f", {plan.sheets} sheet{'s' if plan.sheets > 1 else ''} of {plan.paper_mm[0]:g} × {plan.paper_mm[1]:g} mm"
    click.echo(f"{output}: {said}")


def _design(template: Template, panel: Panel, art: Artwork, placing: Placing) -> Design:
    return Design(template, panel, (Piece("art", art.facts.size, placing),))


def _scene_report(info: SceneInfo) -> dict[str, Any]:
    regions = [{"id": r.id, "panel": r.panel, "colours": list(r.colours)} for r in info.regions]
    return {"id": info.id, "title": info.title, "template": info.templates[0], "templates": list(info.templates),
            "kind": info.kind, "views": list(info.views), "turns": info.turns, "regions": regions, "px": list(info.px)}  # fmt: skip


@main.command()
@click.option("--template", "template_id", metavar="ID", help="Only the scenes of this blank.")
@click.option("--validate", type=click.Path(path_type=Path), metavar="FOLDER", help="Check a scene pack of your own.")
@as_json_option
def scenes(template_id: str | None, validate: Path | None, as_json: bool) -> None:
    """List the scenes that pictures can be made in, or check a pack."""
    if validate is not None:
        info = read_info(validate)
        read_passes(info)
        found = [info]
    else:
        found = scenes_of(find_template(template_id)) if template_id else all_scenes(all_templates().values())
    tell([_scene_report(info) for info in found], as_json, [f"{info.id:32} {info.title}" for info in found])


def _size(text: str) -> tuple[int, int]:
    match = re.fullmatch(r"(\d{1,5})[xX×](\d{1,5})", text)
    if not match:
        raise BadOutput(f"'{text}' is not a size: write for example 2000x2000.")
    return int(match[1]), int(match[2])


def _colours(pairs: tuple[str, ...]) -> dict[str, str | None]:
    chosen: dict[str, str | None] = {}
    for pair in pairs:
        region, equals, colour = pair.partition("=")
        if not equals:
            raise BadOutput(f"'{pair}' is not a colour choice: write for example lid=Ink or lid=#204030.")
        chosen[region] = colour
    return chosen


@main.command()
@takes_pair
@click.option("--scene", "scene_id", required=True, metavar="ID", help="See 'improva scenes'.")
@click.option("--seconds", type=float, default=6.0, metavar="N", help="How long a turn takes.")
@click.option("--colour", "colours", multiple=True, metavar="REGION=NAME|#rrggbb")
@click.option("--size", default="1080x1080", metavar="WxH")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.mp4|.webp|.gif")
def turntable(template: Template, panel: Panel, art: Artwork, placing: Placing, scene_id: str, seconds: float,
              colours: tuple[str, ...], size: str, output: Path) -> None:  # fmt: skip
    """Film ART on a blank that turns once round; the film loops without a jump."""
    info = find_scene(scene_id, template)
    check_scene(info, template)
    check_turns(info)
    angles(seconds, output.suffix)  # what cannot be made is told before anything is drawn
    wanted = _size(size)
    lit = light_plain_parts(make_view(*open_scene(info, wanted), wanted), _colours(colours), surface)
    prints = print_texture([_design(template, panel, art, placing)], lambda _: art, lit.view)
    frames = write_film(output, turning(lit, prints), seconds)
    click.echo(f"{output}: {frames} frames of {wanted[0]} × {wanted[1]} px, {seconds:g} s")


@main.command()
@takes_pair
@click.option("--scene", "scene_id", required=True, metavar="ID", help="See 'improva scenes'.")
@click.option("--view", metavar="NAME", help="A named view; the scene's first by default.")
@click.option("--angle", type=float, metavar="DEG", help="Any angle, where the blank turns.")
@click.option("--colour", "colours", multiple=True, metavar="REGION=NAME|#rrggbb")
@click.option("--size", default=None, metavar="WxH", help="Pixels; the scene's own by default.")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.png|.jpg|.webp")
def mockup(template: Template, panel: Panel, art: Artwork, placing: Placing, scene_id: str, view: str | None,
           angle: float | None, colours: tuple[str, ...], size: str | None, output: Path) -> None:  # fmt: skip
    """Show ART on a blank as a picture for a listing."""
    info = find_scene(scene_id, template)
    if output.suffix.lower() not in PICTURE_FORMATS:
        raise BadOutput(f"'{output.name}': pictures are made as .jpg, .png or .webp: choose one of these endings.")
    if angle is not None and view is not None:
        raise BadOutput("--view and --angle say the same thing: give one of them.")
    if angle is not None and not info.turns:
        raise BadOutput(f"{info.title} does not turn: choose one of its views, {', '.join(info.views)}.")
    check_scene(info, template)
    design = _design(template, panel, art, placing)
    degrees = info.angle(view) if angle is None else angle
    wanted = _size(size) if size else info.px
    cut = cut_mask(design, lambda _: art) if panel.shape == "cutout" else None
    mirrored = view in info.mirrored
    lit = light_plain_parts(make_view(*open_scene(info, wanted, cut), wanted, mirrored=mirrored), _colours(colours), surface)
    picture = mock_up(lit, [design], lambda _: art, degrees)
    write_beside(output, encode(picture, output.suffix))
    click.echo(f"{output}: {picture.shape[1]} × {picture.shape[0]} px, {info.title}, {degrees:g}°")
