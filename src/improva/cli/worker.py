"""``improva worker``: work on jobs from a queue, together with any number of other workers."""

from __future__ import annotations

from pathlib import Path

import click

from .group import main


@main.command()
@click.option(
    "--data",
    "data",
    type=click.Path(path_type=Path, file_okay=False, exists=True),
    default=Path("data"),
    show_default=True,
    help="The board's data folder, shared: of it only files are used, not its database.",
)
def worker(data: Path) -> None:
    """Work on jobs from the queue named by IMPROVA_QUEUE until interrupted; running jobs are finished first."""
    from ..jobs.queue import queue_url
    from ..jobs.worker_process import work

    work(queue_url(), data)
