"""Where pictures can be made: packs that ship, packs in a folder of the seller's, and scenes drawn for any blank."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterable
from dataclasses import replace
from functools import cache
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ..core.errors import BadScene
from ..core.mockup.drawn import VERSION, draw, drawn_scenes
from ..core.mockup.pack import KINDS, quick_info, read_info, read_passes
from ..core.mockup.scene import Passes, SceneInfo
from ..core.template import Template

SHIPPED = Path(__file__).parent
OWN_FOLDER = "IMPROVA_SCENES"
"""Environment variable that names a folder of further packs."""

QUICK = 0.5
"""Of its native size, a drawn scene for looks and small pictures."""


@cache
def packs() -> dict[str, SceneInfo]:
    """All scene packs by id. A pack in the seller's folder replaces a shipped one of the same id."""
    found: dict[str, SceneInfo] = {}
    own = os.environ.get(OWN_FOLDER)
    for root in [SHIPPED, *([Path(own)] if own else [])]:
        for toml in sorted(root.glob("*/scene.toml")):
            info = read_info(toml.parent)
            found[info.id] = info
    return found


def scenes_of(template: Template) -> list[SceneInfo]:
    """The scenes that show a blank, baked ones first; a blank without a pack is drawn."""
    baked = [info for info in packs().values() if template.id in info.templates]
    return sorted(baked, key=lambda info: KINDS.index(info.kind)) or drawn_scenes(template)


def scenes(templates: Iterable[Template]) -> list[SceneInfo]:
    """Every scene of some blanks, and packs of other ones."""
    found = {info.id: info for template in templates for info in scenes_of(template)}
    return list({**found, **packs()}.values())


def scene(scene_id: str, template: Template) -> SceneInfo:
    """The scene of that id among a blank's. Raises :class:`BadScene` with the ids that exist."""
    for info in [*scenes_of(template), *drawn_scenes(template), *packs().values()]:
        if info.id == scene_id:
            return info
    raise BadScene(f"There is no scene '{scene_id}'. Known: {', '.join(info.id for info in scenes_of(template))}.")


def fingerprint(info: SceneInfo) -> str:
    """A hash of all that a scene's pictures depend on."""
    if info.drawn is not None:
        return hashlib.sha256(f"{VERSION} {info.id} {info.drawn.panels} {info.drawn.looks}".encode()).hexdigest()[:16]
    return _pack_fingerprint(info.folder)


@cache
def _pack_fingerprint(folder: Path) -> str:
    content = b"".join((folder / name).read_bytes() for name in ("scene.toml", "passes.exr"))
    return hashlib.sha256(content).hexdigest()[:16]


def serves(info: SceneInfo, size: tuple[int, int], share: float) -> bool:
    """Whether passes of that share of the native size hold enough for a picture."""
    return max(size[0] / info.px[0], size[1] / info.px[1]) <= share * 1.02


def open_scene(info: SceneInfo, size: tuple[int, int] | None = None, cut: NDArray[np.bool_] | None = None
               ) -> tuple[SceneInfo, Passes]:  # fmt: skip
    """A scene's passes, and the scene at the size they have: no finer than a picture of ``size`` asks for."""
    if info.drawn is None:
        small = quick_info(info) if size is not None and serves(info, size, QUICK) else None
        return (small, read_passes(small, quick=True)) if small else (info, read_passes(info))
    if size is not None and serves(info, size, QUICK * 1.4):
        info = replace(info, px=(round(info.px[0] * QUICK), round(info.px[1] * QUICK)))
    return info, draw(info, cut)
