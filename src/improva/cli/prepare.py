"""``improva prepare``: apply preparation steps to ART."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import click

from ..core.artwork.pixels import Artwork
from ..core.preparation import ALL, Preparation, Step, parse_step, prepare
from ..fonts import FONTS, font_bytes
from ..io.artwork_file import read_file
from ..io.prepared_picture import write_picture
from .group import main


def _taken(context: click.Context, _: click.Parameter, asked: bool) -> None:
    """List every kind of step with its values."""
    if not asked or context.resilient_parsing:
        return
    for kind in ALL.values():
        click.echo(f"{kind.id:10} {kind.says}")
        for field in kind.fields:
            default = field.hint or "found from the picture" if field.default is None else field.text(field.default)
            click.echo(f"{'':11}{field.name}={default}: {field.wanted}")
    context.exit()


def _with_files(step: Step) -> Step:
    """Return a step with the contents of the files that it names."""
    opened = {
        name: font_bytes(name) if what == "font" and name in FONTS else read_file(Path(name))
        for what, name in step.named_files()
    }
    return replace(step, files=opened)


@main.command("prepare")
@click.argument("art", type=click.Path(path_type=Path))
@click.argument("steps", nargs=-1, required=True, metavar="STEP[:key=value,…]...")
@click.option(
    "--width-mm", type=float, metavar="N", help="Print width of the whole picture, for lengths in mm; its own by default."
)
@click.option(
    "--steps", "listed", is_flag=True, is_eager=True, expose_value=False, callback=_taken, help="List every kind of step."
)
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.png|.tif|.webp|.jpg")
def prepare_(art: Path, steps: tuple[str, ...], width_mm: float | None, output: Path) -> None:
    """Apply preparation steps to ART in order, for example: cut:tolerance=6 border:mm=8,colour=#ffffff."""
    preparation = Preparation(tuple(_with_files(parse_step(step)) for step in steps), width_mm)
    picture = prepare(Artwork.read(read_file(art)), preparation)
    write_picture(picture, output)
    h, w = picture.pixels.shape[:2]
    click.echo(f"{output}: {w} × {h} px, {picture.size_mm[0]:.1f} × {picture.size_mm[1]:.1f} mm")
    for note in picture.notes:
        click.echo(note)
