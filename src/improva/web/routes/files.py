"""Files made for a pair."""

from __future__ import annotations

from flask import Response, send_file
from pydantic import BaseModel

from ...app.errors import NotFoundError
from ..context import services
from ..routing import Routes, binary

api = Routes("files", "/api")


FILE_TYPES = {
    ".png": "image/png",
    ".jpg": "image/jpeg",
    ".tif": "image/tiff",
    ".webp": "image/webp",
    ".gif": "image/gif",
    ".mp4": "video/mp4",
    ".pdf": "application/pdf",
    ".zip": "application/zip",
}
"""Media types of made files by their endings."""


class FilePath(BaseModel):
    """Which made file."""

    key: str


@api.get("/files/<key>", responses={200: binary(*FILE_TYPES.values())})
def download_file(path: FilePath) -> Response:
    """Return a made file under its own name.

    Raises :class:`NotFoundError` where it was removed.
    """
    file = services.store.made_files.named(path.key)
    if file is None:
        raise NotFoundError("This file is no longer kept: make it again.")
    kind = FILE_TYPES.get(file[1].suffix, "application/octet-stream")
    return send_file(file[1].resolve(), mimetype=kind, as_attachment=True, download_name=file[0])
