"""The services and jobs of the application that serves the current request."""

from __future__ import annotations

from contextlib import AbstractContextManager
from typing import cast

from flask import current_app, request
from werkzeug.local import LocalProxy

from ..app.pair import Pair
from ..app.services import Services
from ..jobs.dispatcher import JobDispatcher
from .login import Login
from .schemas.common import PairPath

services = cast(Services, LocalProxy(lambda: current_app.extensions["services"]))
"""The services of the data folder that the application serves."""

jobs = cast(JobDispatcher, LocalProxy(lambda: current_app.extensions["jobs"]))
"""The dispatcher of its jobs."""


login = cast(Login, LocalProxy(lambda: current_app.extensions["login"]))
"""The log-in of the server."""


VIEW = "Improva-View"
"""Header that names the place on a page that shows the picture: a number of the page's own, and a word."""


def rendering() -> AbstractContextManager[None]:
    """Wait for the turn of an expensive picture; a newer one for the same place of the same page replaces it.

    Raises :class:`GivenUpError` where that has come.
    """
    view = request.headers.get(VIEW, "")[:80]
    return services.turns.turn(f"{request.remote_addr} {view}" if view else "")


def load_pair(path: PairPath) -> Pair:
    """Return the pair of an address. Raises :class:`NotFoundError` and :class:`TemplateError`."""
    return services.pairs.load(path.artwork_id, path.template_id)
