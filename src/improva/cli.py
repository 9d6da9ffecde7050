"""The same core from a shell. Options and JSON keys are a contract: see docs/command-line.md."""

from __future__ import annotations

import functools
import json
import re
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import click

from . import __version__
from .catalogue import template as find_template
from .catalogue import templates as all_templates
from .core.artwork.pixels import Artwork
from .core.artwork.reading import read_file
from .core.design import FITS, REPEAT_KINDS, Design, Piece, Placing
from .core.errors import BadOutput, BadPlacing, ImprovaError
from .core.geometry import cone_from_measures
from .core.mockup.composite import light_plain_parts
from .core.mockup.drawn import cut_mask
from .core.mockup.pack import SceneInfo, read_info, read_passes
from .core.mockup.picture import PICTURE_FORMATS, check_scene, encode, mock_up
from .core.mockup.view import make_view
from .core.output import beside, write_print_file
from .core.preflight import prove
from .core.template import Panel, Template
from .core.units import MM_PER_IN
from .proofing import cone_report, proof_report, template_report
from .scenes import open_scene, scenes_of
from .scenes import scene as find_scene
from .scenes import scenes as all_scenes

Command = Callable[..., Any]


class Contract(click.Group):
    """Errors of ours become one line on standard error and exit 2, like click's own usage errors."""

    def invoke(self, context: click.Context) -> Any:
        """Run a command."""
        try:
            return super().invoke(context)
        except ImprovaError as problem:
            click.echo(f"improva: {problem}", err=True)
            context.exit(2)
        except BrokenPipeError:
            sys.stderr.close()
            context.exit(1)


@click.group(cls=Contract)
@click.version_option(__version__, prog_name="improva")
def main() -> None:
    """Print files that are right and pictures that are believed."""


def placing_options(command: Command) -> Command:
    """The options that say how a picture lies on a panel."""
    options = [
        click.option("--template", "template_id", required=True, metavar="ID", help="The blank; see 'improva templates'."),
        click.option("--panel", "panel_id", metavar="ID", help="The panel; the template's first by default."),
        click.option("--fit", type=click.Choice(FITS), help="The template's own by default."),
        click.option("--shift-mm", default="0,0", metavar="X,Y", help="Right and down from the centre."),
        click.option("--scale", default=1.0, metavar="S", help="Times the size the fit gives."),
        click.option("--rotate", default=0.0, metavar="DEG", help="Clockwise."),
        click.option("--background", default="none", metavar="#rrggbb|none", help="The ground beneath the picture."),
        click.option("--repeat-kind", type=click.Choice(REPEAT_KINDS), default="grid", help="How tiles stand to each other."),
        click.option("--repeats-around", type=int, metavar="N", help="Whole repeats on the width; the nearest by default."),
        click.option("--spacing-mm", default=0.0, metavar="N", help="Bare space between tiles."),
        click.option("--blend", default=0.0, metavar="SHARE", help="Share of a tile whose opposite edges are blended."),
        click.option("--copies", default=1, metavar="N", help="Side by side: 2 is front and back of a mug."),
        click.option(
            "--lay", type=click.Choice(["bent", "flat"]), default="bent", help="On a tapered wall: level on the cup, or flat."
        ),
    ]
    for option in reversed(options):
        command = option(command)
    return command


def _numbers(text: str, what: str) -> tuple[float, float]:
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError:
        raise BadPlacing(f"'{text}' is not a {what}: write two numbers with a comma, for example 3,-2.5.") from None
    return x, y


def _pair(art: Path, asked: dict[str, Any]) -> tuple[Template, Panel, Artwork, Placing]:
    template = find_template(asked["template_id"])
    background = asked["background"]
    placing = Placing(
        fit=asked["fit"] or template.default_fit,  # type: ignore[arg-type]  # checked by click and by Placing itself
        shift_mm=_numbers(asked["shift_mm"], "shift"),
        scale=asked["scale"],
        rotate_deg=asked["rotate"],
        background=None if background.lower() == "none" else background,
        **{name: asked[name] for name in ("repeat_kind", "repeats_around", "spacing_mm", "blend", "copies", "lay")},
    )
    return template, template.panel(asked["panel_id"]), Artwork.read(read_file(art)), placing


PLACING = ("template_id", "panel_id", "fit", "shift_mm", "scale", "rotate", "background", "repeat_kind", "repeats_around",
           "spacing_mm", "blend", "copies", "lay")  # fmt: skip


def takes_pair(command: Command) -> Command:
    """Give a command ART and the placing options, and call it with template, panel, artwork and placing."""

    @functools.wraps(command)
    def wrapped(art: Path, **given: Any) -> Any:
        asked = {name: given.pop(name) for name in PLACING}
        return command(*_pair(art, asked), **given)

    return click.argument("art", type=click.Path(path_type=Path))(placing_options(wrapped))


def _tell(data: Any, as_json: bool, lines: list[str]) -> None:
    click.echo(json.dumps(data, ensure_ascii=False, indent=2) if as_json else "\n".join(lines))


as_json_option = click.option("--json", "as_json", is_flag=True, help="Machine-readable.")


@main.command()
@as_json_option
def templates(as_json: bool) -> None:
    """List the blanks and their print templates."""
    known = list(all_templates().values())
    _tell([template_report(t) for t in known], as_json, [f"{t.id:28} {t.title}" for t in known])


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
    _tell(proof_report(template, panel, art.facts, proof), as_json, [f"{template.title}: {proof.verdict}", *lines])


@main.command("print")
@takes_pair
@click.option("--dpi", type=float, help="The template's own by default.")
@click.option("--mirror/--no-mirror", default=None, help="By default as the route wants it: mirrored for pressing yourself.")
@click.option("--cut-line", is_flag=True, help="Draw the outline to cut along.")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.png|.tif|.pdf")
def print_(template: Template, panel: Panel, art: Artwork, placing: Placing, dpi: float | None, mirror: bool | None,
           cut_line: bool, output: Path) -> None:  # fmt: skip
    """Make the print file of ART: true size, true density, sRGB."""
    mirrored = template.route == "press" if mirror is None else mirror
    density = panel.dpi if dpi is None else dpi
    design = _design(template, panel, art, placing)
    w, h = write_print_file(design, lambda _: art, output, dpi=density, mirror=mirrored, cut_line=cut_line)
    click.echo(f"{output}: {w} × {h} px, {density:g} dpi, {'mirrored' if mirrored else 'not mirrored'}")


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
    _tell([_scene_report(info) for info in found], as_json, [f"{info.id:32} {info.title}" for info in found])


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
    lit = light_plain_parts(make_view(*open_scene(info, wanted, cut), wanted), _colours(colours))
    picture = mock_up(lit, [design], lambda _: art, degrees)
    with beside(output) as temporary:
        temporary.write_bytes(encode(picture, output.suffix))
    click.echo(f"{output}: {picture.shape[1]} × {picture.shape[0]} px, {info.title}, {degrees:g}°")


@main.group()
def measure() -> None:
    """Work out the flat of a blank from what is measured on it."""


@measure.command()
@click.option("--top-circumference", type=float, required=True, metavar="L", help="Round the blank at the top of the print.")
@click.option("--bottom-circumference", type=float, required=True, metavar="L", help="Round the blank at its foot.")
@click.option("--height", type=float, required=True, metavar="L", help="Upright, not along the slanted wall.")
@click.option("--unit", type=click.Choice(["mm", "in"]), default="mm", show_default=True)
@as_json_option
def cone(top_circumference: float, bottom_circumference: float, height: float, unit: str, as_json: bool) -> None:
    """The development of a tapered wall: a piece of a ring."""
    factor = MM_PER_IN if unit == "in" else 1.0
    top, bottom, tall = (value * factor for value in (top_circumference, bottom_circumference, height))
    found = cone_from_measures(top, bottom, tall)
    if found is None:  # a straight wall: its ring is a rectangle, whose radii have no end
        report: dict[str, Any] = {"inner_radius_mm": None, "outer_radius_mm": None, "sweep_deg": 0.0, "slant_mm": tall,
                                  "box_mm": [top, tall]}  # fmt: skip
    else:
        report = cone_report(found)
    numbers = [
        f"{name:16} {report[name]}" for name in ("inner_radius_mm", "outer_radius_mm", "sweep_deg", "slant_mm", "box_mm")
    ]
    _tell(report, as_json, numbers)


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", default=8000, show_default=True)
@click.option("--data", "data", type=click.Path(path_type=Path, file_okay=False), default=Path("data"), show_default=True)
@click.option("--demo", is_flag=True, help="Lay out the demo range on an empty board.")
def serve(host: str, port: int, data: Path, demo: bool) -> None:
    """Serve the page for this data folder."""
    from .web.serve import serve as run

    run(host, port, data, demo)


@main.command()
@as_json_option
def bench(as_json: bool) -> None:
    """Time this project against bare libraries, in one run, as ratios."""
    from .benchmarks import run_all

    results = run_all()
    lines = [f"{r['name']:44} {r['ratio']:6.2f} × {r['floor']}  (limit {r['limit']:g})" for r in results]
    _tell(results, as_json, lines)


if __name__ == "__main__":
    main()
