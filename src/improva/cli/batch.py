"""``improva batch``: make a whole range."""

from __future__ import annotations

from pathlib import Path

import click

from .group import main


@main.command()
@click.argument("range_file", metavar="RANGE.toml", type=click.Path(path_type=Path))
@click.option("-o", "output", required=True, type=click.Path(path_type=Path, file_okay=False), metavar="DIR")
def batch(range_file: Path, output: Path) -> None:
    """Make pictures and print files of every artwork on every blank that RANGE.toml names.

    Started again, it goes on where it was: what is made already is not made again.

    \f
    Raises :class:`OutputError` where nothing can be made.
    """
    from ..core.errors import OutputError
    from ..io.range_file import read_range
    from ..jobs.range_run import make_range

    plan = read_range(range_file)

    def tell(kind: str, share: float, name: str) -> None:
        click.echo(f"{kind:8} {100 * share:3.0f} %  {name}")

    files, left_out = make_range(plan, output, tell)
    for left in left_out:
        click.echo(f"not made: {left.title}: {left.why}", err=True)
    click.echo(f"{output}: {files} files")
    if files == 0:
        raise OutputError("Nothing could be made of this range.")
