"""Command-line options for the placement of ART on a blank."""

from __future__ import annotations

import functools
from collections.abc import Callable
from pathlib import Path
from typing import Any

import click

from ..catalogue import template as find_template
from ..core.artwork.pixels import Artwork
from ..core.artwork.traits import find_traits
from ..core.design import FITS, REPEAT_KINDS, Placement
from ..core.errors import PlacementError
from ..core.proposal import contain_scale
from ..core.template import Panel, Template
from ..io.artwork_file import read_file

Command = Callable[..., Any]
EVERY = "all"
"""Value of ``--panel`` that means every printed panel."""


PLACING = (
    "template_id",
    "panel_id",
    "fit",
    "shift_mm",
    "scale",
    "rotate",
    "background",
    "repeat_kind",
    "repeats_around",
    "spacing_mm",
    "blend",
    "copies",
    "lay",
    "roll_mm",
    "brightness",
    "saturation",
    "white_point",
)


def placing_options(command: Command) -> Command:
    """Add the placement options to a command."""
    options = [
        click.option("--template", "template_id", required=True, metavar="ID", help="The blank; see 'improva templates'."),
        click.option("--panel", "panel_id", metavar="ID", help="The panel; the template's first by default."),
        click.option("--fit", type=click.Choice(FITS), help="The template's own by default."),
        click.option("--shift-mm", default="0,0", metavar="X,Y", help="Right and down from the centre."),
        click.option(
            "--scale", type=float, metavar="S", help="Times the size the fit gives; 1, or less for a cut-out that is contained."
        ),
        click.option("--rotate", default=0.0, metavar="DEG", help="Clockwise."),
        click.option("--background", default="none", metavar="#rrggbb|none", help="The colour behind the picture."),
        click.option("--repeat-kind", type=click.Choice(REPEAT_KINDS), default="grid", help="How tiles stand to each other."),
        click.option("--repeats-around", type=int, metavar="N", help="Whole repeats on the width; the nearest by default."),
        click.option("--spacing-mm", default=0.0, metavar="N", help="Bare space between tiles."),
        click.option("--blend", default=0.0, metavar="SHARE", help="Share of a tile whose opposite edges are blended."),
        click.option("--copies", default=1, metavar="N", help="Side by side: 2 is front and back of a mug."),
        click.option(
            "--lay", type=click.Choice(["bent", "flat"]), default="bent", help="On a tapered wall: level on the cup, or flat."
        ),
        click.option("--roll-mm", default=0.0, metavar="N", help="Rolled round the cup to the right, where the ends meet."),
        click.option("--brightness", default=0.0, metavar="%", help="On this blank only; -100 to 100."),
        click.option("--saturation", default=0.0, metavar="%", help="On this blank only; -100 to 100."),
        click.option("--white-point", default=255.0, metavar="N", help="On this blank only: the value that becomes white."),
    ]
    for option in reversed(options):
        command = option(command)
    return command


def _numbers(text: str, what: str) -> tuple[float, float]:
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError:
        raise PlacementError(f"'{text}' is not a {what}: write two numbers with a comma, for example 3,-2.5.") from None
    return x, y


def _pair(art: Path, options: dict[str, Any], every: bool) -> tuple[Template, Panel | None, Artwork, Placement]:
    template, picture = find_template(options["template_id"]), Artwork.read(read_file(art))
    panel = None if every and options["panel_id"] == EVERY else template.panel(options["panel_id"])
    fit, scale = options["fit"] or template.default_fit, options["scale"]
    if scale is None:  # as the page proposes it
        scale = contain_scale(panel or template.panels[0], find_traits(picture).kind) if fit == "contain" else 1.0
    background = options["background"]
    placement = Placement(
        fit=fit,  # type: ignore[arg-type]  # checked by click and by Placement itself
        shift_mm=_numbers(options["shift_mm"], "shift"),
        scale=scale,
        rotate_deg=options["rotate"],
        background=None if background.lower() == "none" else background,
        **{name: options[name] for name in PLACING[PLACING.index("repeat_kind") :]},
    )
    return template, panel, picture, placement


def takes_pair(command: Command, every: bool = False) -> Command:
    """Give a command ART and the placement options, and call it with template, panel, artwork and placement.

    ``every``: the panel may be ``all``, and is then None.
    """

    @functools.wraps(command)
    def wrapped(art: Path, **given: Any) -> Any:
        options = {name: given.pop(name) for name in PLACING}
        return command(*_pair(art, options, every), **given)

    return click.argument("art", type=click.Path(path_type=Path))(placing_options(wrapped))


takes_pair_or_all = functools.partial(takes_pair, every=True)
