"""A worker on its own: the same errands as the board's, from a queue that they share."""

from __future__ import annotations

import logging
import signal
import threading
from pathlib import Path

import click

from ..allocation import give_back
from ..work.darkroom import Darkroom
from ..work.queue import QUEUE_URL, BadQueue, open_queue
from ..work.working import Workers, takes
from .errands import runners


def work(url: str | None, data: Path) -> None:
    """Work until told to end. Raises :class:`BadQueue` where there is no queue to share."""
    if url is None:
        raise BadQueue(f"Say where the queue is: {QUEUE_URL}=redis://host:6379/0 here and where the board is served.")
    give_back()
    logging.basicConfig(level=logging.INFO, format="%(message)s")
    logging.getLogger("pyvips").setLevel(logging.WARNING)
    queue = open_queue(url, data)
    takes(queue, runners(data, Darkroom()))
    workers, ended = Workers(queue), threading.Event()
    for name in (signal.SIGINT, signal.SIGTERM):
        signal.signal(name, lambda *_: ended.set())
    workers.start()
    click.echo(f"Working for the boards at {url}, with the files in {data}")
    ended.wait()
    workers.stop(graceful=True)
