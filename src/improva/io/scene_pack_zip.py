"""Scene packs as ZIP files."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path, PurePosixPath

from ..core.errors import SceneError
from ..core.mockup.scene import SceneInfo
from .scene_pack import QUICK, read_info, read_passes

FILES = ("scene.toml", "passes.exr", QUICK)
MAX_BYTES = 400_000_000
"""Most bytes of all files of a pack together, unpacked."""


def zip_pack(info: SceneInfo) -> bytes:
    """Write all files of a pack into a ZIP, in a folder of the pack's name, without compression."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for name in FILES:
            path = info.folder / name
            if path.exists():
                archive.write(path, f"{info.id}/{name}")
    return out.getvalue()


def unzip_pack(data: bytes, folder: Path) -> SceneInfo:
    """Unpack a scene pack into an empty folder and validate it.

    Only the files of a pack are taken, by their last names, whatever folder they lie in. Raises :class:`SceneError`.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = [entry for entry in archive.infolist() if PurePosixPath(entry.filename).name in FILES]
            names = [PurePosixPath(entry.filename).name for entry in entries]
            if len(set(names)) != len(names):
                raise SceneError("This ZIP holds more than one scene pack: import them one by one.")
            if "scene.toml" not in names or "passes.exr" not in names:
                raise SceneError("This ZIP is not a scene pack: it lacks scene.toml or passes.exr.")
            if sum(entry.file_size for entry in entries) > MAX_BYTES:
                raise SceneError(f"This scene pack unpacks to more than {MAX_BYTES // 1_000_000} MB.")
            for entry, name in zip(entries, names, strict=True):
                (folder / name).write_bytes(archive.read(entry))
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError) as broken:  # damaged, or locked by a password
        raise SceneError("This file cannot be read as a ZIP: choose a scene pack's ZIP.") from broken
    info = read_info(folder)
    read_passes(info)
    return info
