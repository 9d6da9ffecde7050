"""``improva serve``: run the web application."""

from __future__ import annotations

from pathlib import Path

import click

from .group import main


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", default=8000, show_default=True)
@click.option("--data", "data", type=click.Path(path_type=Path, file_okay=False), default=Path("data"), show_default=True)
@click.option("--demo", is_flag=True, help="Lay out the demo range on an empty board.")
@click.option("--reload", is_flag=True, help="Start again whenever the code changes; for developers.")
def serve(host: str, port: int, data: Path, demo: bool, reload: bool) -> None:
    """Serve the web application for a data folder."""
    from ..web.server import serve as run

    run(host, port, data, demo, reload)
