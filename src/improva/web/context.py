"""The services and jobs of the application that serves the current request."""

from __future__ import annotations

from typing import cast

from flask import current_app
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


def load_pair(path: PairPath) -> Pair:
    """Return the pair of an address. Raises :class:`NotFoundError` and :class:`TemplateError`."""
    return services.pairs.load(path.artwork_id, path.template_id)
