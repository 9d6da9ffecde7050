"""Response models of made files."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pikepdf
import pyvips

from ...app.services import Services
from ...core.units import PT_PER_IN
from ..schemas.common import MadeFileOut


def _about(path: Path) -> str:
    """Describe a file in a few words, measured from the file itself."""
    if path.suffix == ".pdf":
        with pikepdf.open(path) as pdf:
            pages = len(pdf.pages)
            w, h = (float(v) / PT_PER_IN for v in pdf.pages[0].mediabox[2:])
        return f"{pages} page{'s' if pages > 1 else ''} of {w:.4g} × {h:.4g} in"
    if path.suffix == ".zip":
        with zipfile.ZipFile(path) as archive:
            return f"{len(archive.namelist())} files"
    if path.suffix == ".json":
        return "what they show"
    if path.suffix in (".mp4", ".gif"):
        return "film"
    image = pyvips.Image.new_from_file(str(path))
    return f"{image.width} × {image.height} px"


def made_file_out(services: Services, key: str) -> MadeFileOut | None:
    """Return a made file's response, or None if it no longer exists."""
    file = services.store.made_files.named(key)
    if file is None:
        return None
    name, path = file
    return MadeFileOut(name=name, url=f"/api/files/{key}", bytes=path.stat().st_size, about=_about(path))
