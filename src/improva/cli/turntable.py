"""``improva turntable``: film ART on a blank that turns once around."""

from __future__ import annotations

from pathlib import Path

import click

from ..app.scenes import SceneLibrary, open_scene
from ..core.artwork.pixels import Artwork
from ..core.design import Placement
from ..core.mockup.composite import shade_plain_parts
from ..core.mockup.parallel import ThreadedCores
from ..core.mockup.render import check_scene, print_textures
from ..core.mockup.turntable import angles, check_turns, turning
from ..core.mockup.view import make_view
from ..core.template import Panel, Template
from ..io.film import write_film
from ..surfaces import surface
from .group import main
from .mockup import _colours, _size
from .placement_options import takes_pair
from .print_file import _design


@main.command()
@takes_pair
@click.option("--scene", "scene_id", required=True, metavar="ID", help="See 'improva scenes'.")
@click.option("--seconds", type=float, default=6.0, metavar="N", help="How long a turn takes.")
@click.option("--colour", "colours", multiple=True, metavar="REGION=NAME|#rrggbb")
@click.option("--size", default="1080x1080", metavar="WxH")
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.mp4|.webp|.gif")
def turntable(
    template: Template,
    panel: Panel,
    art: Artwork,
    placement: Placement,
    scene_id: str,
    seconds: float,
    colours: tuple[str, ...],
    size: str,
    output: Path,
) -> None:
    """Film ART on a blank that turns once around; the film loops without a jump."""
    info = SceneLibrary().get(scene_id, template)
    check_scene(info, template)
    check_turns(info)
    angles(seconds, output.suffix)  # refuses an impossible film before anything is rendered
    wanted = _size(size)
    cores = ThreadedCores()
    shaded = shade_plain_parts(
        make_view(*open_scene(info, wanted, cores=cores), wanted, cores=cores), _colours(colours), surface
    )
    prints = print_textures([_design(template, panel, art, placement)], lambda _: art, shaded.view)
    frames = write_film(output, turning(shaded, prints), seconds)
    click.echo(f"{output}: {frames} frames of {wanted[0]} × {wanted[1]} px, {seconds:g} s")
