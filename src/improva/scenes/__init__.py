"""Where pictures can be made: packs that ship, packs in a folder of the seller's, and scenes drawn for any blank."""

from __future__ import annotations

import hashlib
import logging
import os
from collections.abc import Iterable
from dataclasses import replace
from functools import cache, lru_cache
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ..core.errors import BadScene
from ..core.mockup.drawn import VERSION, draw, drawn_scenes, measures_of
from ..core.mockup.pack import KINDS, quick_info, read_info, read_passes
from ..core.mockup.scene import Passes, SceneInfo
from ..core.template import Template

log = logging.getLogger("improva")
SHIPPED = Path(__file__).parent
OWN_FOLDER = "IMPROVA_SCENES"
"""Environment variable that names a folder of further packs."""

QUICK = 0.5
"""Of its native size, a drawn scene for looks and small pictures."""


_data: list[Path] = []
"""The folder of packs in the data folder of the application that runs here, once there is one."""


def take_from(folder: Path) -> None:
    """Take packs from a data folder too, in place of one named before."""
    _data[:] = [folder]


def packs() -> dict[str, SceneInfo]:
    """All scene packs by id. A pack in one of the seller's folders replaces a shipped one of the same id."""
    own = os.environ.get(OWN_FOLDER)
    roots = [SHIPPED, *([Path(own)] if own else []), *_data]
    return _packs_in(tuple((root, root.stat().st_mtime_ns) for root in roots if root.is_dir()))


@lru_cache(maxsize=8)
def _packs_in(roots: tuple[tuple[Path, int], ...]) -> dict[str, SceneInfo]:
    """Packs in folders as they were at a time: a pack comes and goes by renaming its folder, which dates the one around it."""
    found: dict[str, SceneInfo] = {}
    for root, _ in roots:
        for toml in sorted(root.glob("[!.]*/scene.toml")):
            try:
                info = read_info(toml.parent)
            except BadScene as broken:
                if root == SHIPPED:
                    raise
                log.warning("left out: %s", broken)
                continue
            found[info.id] = info
    return found


def scenes_of(template: Template) -> list[SceneInfo]:
    """The scenes that show a blank: baked ones, drawn ones for sides that those do not show, the seller's own photographs."""
    fitting = [info for info in packs().values() if template.id in info.templates]
    fitting.sort(key=lambda info: (not info.lead, KINDS.index(info.kind), bool(info.places)))
    baked = [info for info in fitting if not info.photograph]
    seen = {region.panel for info in baked for region in info.regions}
    drawn = [info for info in drawn_scenes(template) if any(r.panel and r.panel not in seen for r in info.regions)]
    return [*baked, *drawn, *(info for info in fitting if info.photograph)]


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
    files = tuple(info.folder / name for name in ("scene.toml", "passes.exr"))
    return _pack_fingerprint(files, tuple(file.stat().st_mtime_ns for file in files))


@cache
def _pack_fingerprint(files: tuple[Path, ...], dates: tuple[int, ...]) -> str:
    content = b"".join(file.read_bytes() for file in files)
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
    return replace(info, measures=measures_of(info, cut)), draw(info, cut)
