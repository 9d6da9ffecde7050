"""Serving the page, and timing the project."""

from __future__ import annotations

from pathlib import Path

import click

from .group import as_json_option, main, tell


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", default=8000, show_default=True)
@click.option("--data", "data", type=click.Path(path_type=Path, file_okay=False), default=Path("data"), show_default=True)
@click.option("--demo", is_flag=True, help="Lay out the demo range on an empty board.")
def serve(host: str, port: int, data: Path, demo: bool) -> None:
    """Serve the page for this data folder."""
    from ..web.serve import serve as run

    run(host, port, data, demo)


@main.command()
@as_json_option
def bench(as_json: bool) -> None:
    """Time this project against bare libraries, in one run, as ratios."""
    from ..benchmarks import run_all

    results = run_all()
    lines = [f"{r['name']:44} {r['ratio']:6.2f} × {r['floor']}  (limit {r['limit']:g})" for r in results]
    tell(results, as_json, lines)
