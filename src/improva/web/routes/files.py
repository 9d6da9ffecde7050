"""Files made for a pair."""

from __future__ import annotations

from flask import Response, send_file
from pydantic import BaseModel

from ...app.errors import NotFoundError
from ..context import services
from ..routing import Routes

api = Routes("files", "/api")


class FilePath(BaseModel):
    """Which made file."""

    key: str


@api.get("/files/<key>")
def download_file(path: FilePath) -> Response:
    """Return a made file under its own name.

    Raises :class:`NotFoundError` where it was removed.
    """
    file = services.store.made_files.named(path.key)
    if file is None:
        raise NotFoundError("This file is no longer kept: make it again.")
    return send_file(file[1].resolve(), as_attachment=True, download_name=file[0])
