"""Scene packs as ZIP files."""

from __future__ import annotations

import io
import lzma
import shutil
import zipfile
import zlib
from pathlib import Path, PurePosixPath

from ..core.errors import SceneError
from ..core.mockup.scene import SceneInfo
from .scene_pack import QUICK, read_info, read_passes

FILES = ("scene.toml", "passes.exr", QUICK)
MAX_BYTES, MAX_ENTRIES, MAX_RATIO = 400_000_000, 100, 200
"""Most bytes of a pack's files together, unpacked; most entries of its ZIP; and how many times larger a file may be than packed."""


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
            if len(archive.infolist()) > MAX_ENTRIES:
                raise SceneError(f"This ZIP holds more than {MAX_ENTRIES} files: choose a scene pack's ZIP.")
            entries = [entry for entry in archive.infolist() if PurePosixPath(entry.filename).name in FILES]
            names = [PurePosixPath(entry.filename).name for entry in entries]
            if len(set(names)) != len(names):
                raise SceneError("This ZIP holds more than one scene pack: import them one by one.")
            if "scene.toml" not in names or "passes.exr" not in names:
                raise SceneError("This ZIP is not a scene pack: it lacks scene.toml or passes.exr.")
            if sum(entry.file_size for entry in entries) > MAX_BYTES:
                raise SceneError(f"This scene pack unpacks to more than {MAX_BYTES // 1_000_000} MB.")
            for entry, name in zip(entries, names, strict=True):
                if entry.file_size > MAX_RATIO * max(1, entry.compress_size):
                    raise SceneError(f"{name} in this ZIP is packed too tightly to be a scene's.")
                with archive.open(entry) as packed, (folder / name).open("wb") as out:
                    shutil.copyfileobj(packed, out)
    except (zipfile.BadZipFile, zlib.error, lzma.LZMAError, NotImplementedError, RuntimeError, EOFError, ValueError) as broken:
        # damaged, or locked by a password
        raise SceneError("This file cannot be read as a ZIP: choose a scene pack's ZIP.") from broken
    info = read_info(folder)
    read_passes(info)
    return info
