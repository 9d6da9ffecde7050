"""Serve a data folder with waitress."""

from __future__ import annotations

import logging
import socket
import threading
from pathlib import Path

import click
from waitress import serve as waitress_serve
from werkzeug.serving import is_running_from_reloader, run_simple

from ..app import foreign_files
from ..app.previews import CELL_PX
from ..app.services import Services
from ..core.errors import ImprovaError
from ..memory import give_back
from ..sandbox import Sandbox
from ..store.folder_lock import FolderLock
from .app import create_app
from .errors import MAX_UPLOAD_MB
from .security import Access

THREADS = 32
"""Requests at a time. Most wait: for their turn to render (:mod:`improva.app.turns`), or for the disk."""


def _warm(services: Services) -> None:
    """Open the scenes of the board's blanks in advance, so that the board fills at once."""
    for template in services.blanks.on_board():
        if template.panels[0].shape != "cutout":
            info = services.scenes.first(template)
            services.render_cache.shaded_view(info, CELL_PX, {}, close=info.close)


class PortError(ImprovaError):
    """The server cannot listen at its address."""


def _listen(host: str, port: int) -> socket.socket:
    """Return a socket that listens. Raises :class:`PortError`."""
    try:
        return socket.create_server((host, port), family=socket.AF_INET6 if ":" in host else socket.AF_INET)
    except (OSError, OverflowError) as problem:
        why = getattr(problem, "strerror", None) or problem
        raise PortError(
            f"{host}:{port} cannot be listened at ({why}): choose another with --port, or stop what is there."
        ) from problem


def serve(host: str, port: int, data: Path, access: Access, demo: bool, reload: bool = False) -> None:
    """Serve a data folder until interrupted.

    Args:
        host, port: the address to listen at.
        data: the data folder; it is made where it is missing.
        access: who may use it.
        demo: lay out the demo range first, where the board is empty.
        reload: start again whenever the code changes, with a server for development.

    Raises:
        NewerDatabaseError: a newer version of Improva has written the folder's database.
        PasswordError: a login is needed, but no password is set.
        DataFolderError, FolderInUseError, PortError, SandboxError: the folder, the address or child processes cannot be used.
    """
    listening = None if reload else _listen(host, port)
    give_back()
    logging.basicConfig(level=logging.INFO, format="%(message)s")
    logging.getLogger("pyvips").setLevel(logging.WARNING)
    address = f"http://{f'[{host}]' if ':' in host else host}:{port}/"
    lock = None if reload and not is_running_from_reloader() else FolderLock(data, address)
    reader = Sandbox((foreign_files.__name__,), foreign_files.warm_up)
    reader.warm()
    app = create_app(data, access, reader)
    services: Services = app.extensions["services"]
    app.extensions["lock"] = lock
    services.store.database.check()
    if demo:
        from ..demo import lay_out

        lay_out(services.store.database)
    app.extensions["jobs"].take_up()
    threading.Thread(target=_warm, args=(services,), daemon=True).start()
    click.echo(f"Improva is at {address}  (data in {data})")
    if reload:
        run_simple(host, port, app, use_reloader=True, threaded=True)
        return
    waitress_serve(app, sockets=[listening], threads=THREADS, max_request_body_size=MAX_UPLOAD_MB * 1_000_000, ident=None)
