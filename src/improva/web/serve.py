"""Serve a data folder with waitress."""

from __future__ import annotations

import logging
import threading
from pathlib import Path

import click
from waitress import serve as waitress_serve

from ..scenes import scenes
from .app import create_app
from .board import CELL_PX
from .desk import Desk

THREADS = 8


def _warm(desk: Desk) -> None:
    """Read the first scene before it is asked for, so that the board fills at once."""
    for scene_id in list(scenes())[:1]:
        desk.darkroom.lit(scene_id, CELL_PX, {}, close=True)


def serve(host: str, port: int, data: Path, demo: bool) -> None:
    """Serve until interrupted; with ``demo``, lay out the demo range on an empty board first."""
    logging.basicConfig(level=logging.INFO, format="%(message)s")
    logging.getLogger("pyvips").setLevel(logging.WARNING)
    app = create_app(data)
    desk: Desk = app.extensions["desk"]
    if demo:
        from ..demo import lay_out

        lay_out(desk.artworks, desk.pairs)
    threading.Thread(target=_warm, args=(desk,), daemon=True).start()
    click.echo(f"Improva is at http://{host}:{port}/  (data in {data})")
    waitress_serve(app, host=host, port=port, threads=THREADS, max_request_body_size=2**30, ident=None)
