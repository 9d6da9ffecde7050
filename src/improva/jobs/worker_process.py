"""A worker process: runs the jobs of a shared queue."""

from __future__ import annotations

import logging
import signal
import threading
from pathlib import Path

import click

from ..app.render_cache import RenderCache
from ..memory import give_back
from .handlers import handlers
from .queue import QUEUE_URL, QueueError, open_queue
from .worker import Workers, register_task


def work(url: str | None, data: Path) -> None:
    """Run jobs until a signal ends the process. Raises :class:`QueueError` where there is no queue to share."""
    if url is None:
        raise QueueError(f"Say where the queue is: {QUEUE_URL}=redis://host:6379/0 here and where the board is served.")
    give_back()
    logging.basicConfig(level=logging.INFO, format="%(message)s")
    logging.getLogger("pyvips").setLevel(logging.WARNING)
    queue = open_queue(url, data)
    register_task(queue, handlers(data, RenderCache()))
    workers, ended = Workers(queue), threading.Event()
    for name in (signal.SIGINT, signal.SIGTERM):
        signal.signal(name, lambda *_: ended.set())
    workers.start()
    click.echo(f"Working for the boards at {url}, with the files in {data}")
    ended.wait()
    workers.stop(graceful=True)
