"""``improva mockup``: render ART on a blank."""

from __future__ import annotations

import re
from pathlib import Path

import click

from ..app.scenes import SceneLibrary, open_scene
from ..core.artwork.pixels import Artwork
from ..core.design import Placement
from ..core.errors import OutputError
from ..core.mockup.composite import shade_plain_parts
from ..core.mockup.drawn import cut_mask
from ..core.mockup.parallel import ThreadedCores
from ..core.mockup.render import PICTURE_FORMATS, check_scene, encode, render_mockup
from ..core.mockup.view import make_view
from ..core.template import Panel, Template
from ..io.atomic import atomic_write
from ..surfaces import surface
from .group import main
from .placement_options import takes_pair
from .print_file import _design


def _size(text: str) -> tuple[int, int]:
    match = re.fullmatch(r"(\d{1,5})[xX×](\d{1,5})", text)
    if not match:
        raise OutputError(f"'{text}' is not a size: write for example 2000x2000.")
    return int(match[1]), int(match[2])


def _colours(pairs: tuple[str, ...]) -> dict[str, str | None]:
    chosen: dict[str, str | None] = {}
    for pair in pairs:
        region, equals, colour = pair.partition("=")
        if not equals:
            raise OutputError(f"'{pair}' is not a colour choice: write for example lid=Ink or lid=#204030.")
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
def mockup(
    template: Template,
    panel: Panel,
    art: Artwork,
    placement: Placement,
    scene_id: str,
    view: str | None,
    angle: float | None,
    colours: tuple[str, ...],
    size: str | None,
    output: Path,
) -> None:
    """Render ART on a blank as a listing picture.

    \f
    Raises :class:`OutputError` for an unknown file ending, and for a view or angle that the scene does not have.
    """
    info = SceneLibrary().get(scene_id, template)
    if output.suffix.lower() not in PICTURE_FORMATS:
        raise OutputError(f"'{output.name}': pictures are made as .jpg, .png or .webp: choose one of these endings.")
    if angle is not None and view is not None:
        raise OutputError("--view and --angle say the same thing: give one of them.")
    if angle is not None and not info.turns:
        raise OutputError(f"{info.title} does not turn: choose one of its views, {', '.join(info.views)}.")
    check_scene(info, template)
    design = _design(template, panel, art, placement)
    degrees = info.angle(view) if angle is None else angle
    wanted = _size(size) if size else info.px
    cut = cut_mask(design, lambda _: art) if panel.shape == "cutout" else None
    cores = ThreadedCores()
    shaded = shade_plain_parts(
        make_view(*open_scene(info, wanted, cut, cores), wanted, cores=cores, mirrored=info.is_mirrored(view)),
        _colours(colours),
        surface,
    )
    picture = render_mockup(shaded, [design], lambda _: art, degrees)
    atomic_write(output, encode(picture, output.suffix))
    click.echo(f"{output}: {picture.shape[1]} × {picture.shape[0]} px, {info.title}, {degrees:g}°")
