"""The scenes of a blank: shipped packs, the seller's packs, and scenes drawn for any blank."""

from __future__ import annotations

import hashlib
import logging
import os
import threading
from collections.abc import Iterable
from dataclasses import replace
from functools import cache
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ..core.errors import SceneError
from ..core.mockup.drawn import VERSION, draw, drawn_scenes, measures_of
from ..core.mockup.parallel import ONE_CORE, Cores
from ..core.mockup.scene import Passes, SceneInfo
from ..core.mockup.scene_file import KINDS
from ..core.template import Template
from ..io.scene_pack import quick_info, read_info, read_passes
from ..scenes import SHIPPED

log = logging.getLogger("improva")
OWN_FOLDER = "IMPROVA_SCENES"
"""Environment variable that names a folder of further packs."""

QUICK = 0.5
"""Share of its native size at which a drawn scene is rendered for previews and small pictures."""


class SceneLibrary:
    """The scene packs in some folders, read again whenever a pack is added or removed.

    Args:
        own: the folder of packs in a seller's data folder, where there is one.
    """

    def __init__(self, own: Path | None = None) -> None:
        named = os.environ.get(OWN_FOLDER)
        self._roots = [SHIPPED, *([Path(named)] if named else []), *([own] if own else [])]
        self._lock = threading.Lock()
        self._dates: tuple[tuple[Path, int], ...] = ()
        self._packs: dict[str, SceneInfo] = {}

    def packs(self) -> dict[str, SceneInfo]:
        """Return all scene packs by id. A pack in one of the seller's folders replaces a shipped one of the same id."""
        dates = tuple((root, root.stat().st_mtime_ns) for root in self._roots if root.is_dir())
        with self._lock:
            if dates != self._dates:  # packs are added and removed by renaming their folder, which changes the parent's date
                self._packs, self._dates = _read_packs(self._roots), dates
            return self._packs

    def of(self, template: Template) -> list[SceneInfo]:
        """Return the scenes of a blank: baked packs, drawn scenes for the sides that packs do not show, the seller's photographs."""
        fitting = [info for info in self.packs().values() if template.id in info.templates]
        fitting.sort(key=lambda info: (not info.lead, KINDS.index(info.kind), bool(info.places)))
        baked = [info for info in fitting if not info.photograph]
        shown = {region.panel for info in baked for region in info.regions}
        drawn = [info for info in drawn_scenes(template) if any(r.panel and r.panel not in shown for r in info.regions)]
        return [*baked, *drawn, *(info for info in fitting if info.photograph)]

    def first(self, template: Template) -> SceneInfo:
        """Return a blank's default scene."""
        return self.of(template)[0]

    def get(self, scene_id: str, template: Template) -> SceneInfo:
        """Find the scene of an id among a blank's scenes and all packs.

        Raises:
            SceneError: there is none; the message lists the ids that exist.
        """
        known = self.of(template)
        for info in [*known, *drawn_scenes(template), *self.packs().values()]:
            if info.id == scene_id:
                return info
        raise SceneError(f"There is no scene '{scene_id}'. Known: {', '.join(info.id for info in known)}.")

    def all(self, templates: Iterable[Template]) -> list[SceneInfo]:
        """Return every scene of some blanks, and the packs of all others."""
        scenes = {info.id: info for template in templates for info in self.of(template)}
        return list({**scenes, **self.packs()}.values())


def _read_packs(roots: list[Path]) -> dict[str, SceneInfo]:
    """Read the packs in folders, by id; a broken pack of the seller's is skipped and logged."""
    scenes: dict[str, SceneInfo] = {}
    for root in roots:
        for toml in sorted(root.glob("[!.]*/scene.toml")):
            try:
                info = read_info(toml.parent)
            except SceneError as broken:
                if root == SHIPPED:
                    raise
                log.warning("left out: %s", broken)
                continue
            scenes[info.id] = info
    return scenes


def fingerprint(info: SceneInfo) -> str:
    """Return a hash of all that a scene's pictures depend on."""
    if info.drawn is not None:
        return hashlib.sha256(f"{VERSION} {info.id} {info.drawn.panels} {info.drawn.looks}".encode()).hexdigest()[:16]
    files = tuple(info.folder / name for name in ("scene.toml", "passes.exr"))
    return _pack_fingerprint(files, tuple(file.stat().st_mtime_ns for file in files))


@cache
def _pack_fingerprint(files: tuple[Path, ...], dates: tuple[int, ...]) -> str:
    """Return a hash of files of known dates. It depends on its arguments alone, so results never expire."""
    content = b"".join(file.read_bytes() for file in files)
    return hashlib.sha256(content).hexdigest()[:16]


def serves(info: SceneInfo, size: tuple[int, int], share: float) -> bool:
    """Return whether passes at a fraction of the native size are large enough for a picture of ``size`` px."""
    return max(size[0] / info.px[0], size[1] / info.px[1]) <= share * 1.02


def open_scene(
    info: SceneInfo,
    size: tuple[int, int] | None = None,
    contour: NDArray[np.bool_] | None = None,
    cores: Cores = ONE_CORE,
) -> tuple[SceneInfo, Passes]:
    """Open or draw a scene's passes, no larger than a picture of ``size`` px needs.

    Args:
        info: the scene.
        size: width and height of the picture; None for the native size.
        contour: (h, w), the shape of a blank that is cut to its artwork.
        cores: what computes them.

    Returns:
        The scene at the size that its passes have, and the passes.

    Raises:
        SceneError: a pack's passes are missing or damaged.
    """
    if info.drawn is None:
        small = quick_info(info) if size is not None and serves(info, size, QUICK) else None
        return (small, read_passes(small, True, cores)) if small else (info, read_passes(info, cores=cores))
    if size is not None and serves(info, size, QUICK * 1.4):
        info = replace(info, px=(round(info.px[0] * QUICK), round(info.px[1] * QUICK)))
    return replace(info, measures=measures_of(info, contour)), draw(info, contour, cores)
