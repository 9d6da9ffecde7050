"""Serve a data folder with waitress."""

from __future__ import annotations

import logging
import threading
from pathlib import Path

import click
from waitress import serve as waitress_serve

from ..allocation import give_back
from .app import create_app
from .desk import CELL_PX, Desk

THREADS = 8


def _warm(desk: Desk) -> None:
    """Make the scenes of the board's blanks ready before they are asked for, so that the board fills at once."""
    for template in desk.board_blanks():
        if template.panels[0].shape != "cutout":
            info = desk.first_scene(template)
            desk.darkroom.lit(info, CELL_PX, {}, close=info.close)


def serve(host: str, port: int, data: Path, demo: bool) -> None:
    """Serve until interrupted; with ``demo``, lay out the demo range on an empty board first."""
    give_back()
    logging.basicConfig(level=logging.INFO, format="%(message)s")
    logging.getLogger("pyvips").setLevel(logging.WARNING)
    app = create_app(data)
    desk: Desk = app.extensions["desk"]
    if demo:
        from ..demo import lay_out

        lay_out(desk.database)
    app.extensions["jobs"].take_up()
    threading.Thread(target=_warm, args=(desk,), daemon=True).start()
    click.echo(f"Improva is at http://{host}:{port}/  (data in {data})")
    waitress_serve(app, host=host, port=port, threads=THREADS, max_request_body_size=2**30, ident=None)
