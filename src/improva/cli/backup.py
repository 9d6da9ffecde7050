"""``improva backup`` and ``improva restore``."""

from __future__ import annotations

from pathlib import Path

import click

from ..core.errors import OutputError
from .group import main

DATA = click.option("--data", "data", type=click.Path(path_type=Path, file_okay=False), default=Path("data"), show_default=True)


@main.command()
@DATA
@click.option("-o", "output", required=True, type=click.Path(path_type=Path), metavar="FILE.zip")
def backup(data: Path, output: Path) -> None:
    """Write everything in a data folder to one file, also while it is served.

    \f
    Raises :class:`OutputError` for a file that does not end in ``.zip``.
    """
    from ..store.backup import write_backup

    if output.suffix.lower() != ".zip":
        raise OutputError(f"'{output.name}': a backup is a .zip: choose that ending.")
    files = write_backup(data, output)
    click.echo(f"{output}: the records and {files} files")


@main.command()
@click.argument("backup_file", metavar="FILE.zip", type=click.Path(path_type=Path))
@click.option("--data", "data", required=True, type=click.Path(path_type=Path, file_okay=False), metavar="DIR")
def restore(backup_file: Path, data: Path) -> None:
    """Restore a backup as a new data folder; the whole backup is checked first."""
    from ..app.foreign_files import restore_backup
    from ..sandbox import Sandbox

    reader = Sandbox()
    try:
        files = restore_backup(reader, backup_file, data)
    finally:
        reader.close()
    click.echo(f"{data}: the records and {files} files. Serve it: improva serve --data {data}")
