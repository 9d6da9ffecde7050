"""The scene packs that ship, one folder each, and those a seller keeps in a folder of their own."""

from __future__ import annotations

import hashlib
import os
from functools import cache
from pathlib import Path

from ..core.errors import BadScene
from ..core.mockup.pack import SceneInfo, read_info

SHIPPED = Path(__file__).parent
OWN_FOLDER = "IMPROVA_SCENES"
"""Environment variable that names a folder of further packs."""


@cache
def scenes() -> dict[str, SceneInfo]:
    """All scene packs by id. A pack in the seller's folder replaces a shipped one of the same id."""
    found: dict[str, SceneInfo] = {}
    own = os.environ.get(OWN_FOLDER)
    for root in [SHIPPED, *([Path(own)] if own else [])]:
        for toml in sorted(root.glob("*/scene.toml")):
            info = read_info(toml.parent)
            found[info.id] = info
    return found


def scene(scene_id: str) -> SceneInfo:
    """The scene of that id. Raises :class:`BadScene` with the ids that exist."""
    try:
        return scenes()[scene_id]
    except KeyError:
        raise BadScene(f"There is no scene '{scene_id}'. Known: {', '.join(scenes()) or 'none'}.") from None


@cache
def fingerprint(scene_id: str) -> str:
    """A hash of all that a scene's pictures depend on. Raises :class:`BadScene` for an unknown one."""
    folder = scene(scene_id).folder
    content = b"".join((folder / name).read_bytes() for name in ("scene.toml", "passes.exr"))
    return hashlib.sha256(content).hexdigest()[:16]


def scenes_of(template_id: str) -> list[SceneInfo]:
    """The scenes that show a blank."""
    return [info for info in scenes().values() if template_id in info.templates]
