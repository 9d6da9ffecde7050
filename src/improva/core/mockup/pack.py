"""Scene packs: a folder with ``scene.toml`` and ``passes.exr``, baked once in any renderer.

The EXR holds linear light: ``base.R/G/B``, ``<region>.R/G/B`` for each region, and ``<region>.u/v`` for each
printed one (NaN or negative where the print is not near). docs/scene-packs.md describes the format.
"""

from __future__ import annotations

import tomllib
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import numpy as np
import OpenEXR

from ..colour import Floats, parse_hex
from ..errors import BadScene, ImprovaError
from ..template import Template

KINDS = ("studio", "lifestyle", "flat", "size")
MAX_SIDE_PX = 8192


@dataclass(frozen=True)
class Region:
    """A part of the picture whose colour may change: a printed panel, or a plain part with its named colours."""

    id: str
    title: str
    panel: str | None = None
    colours: dict[str, str] = field(default_factory=dict)
    default: str | None = None

    def colour(self, wanted: str | None) -> str:
        """``#rrggbb`` of a named colour or of a hex code; the default for None. Raises :class:`BadScene`."""
        wanted = wanted or self.default or next(iter(self.colours), "#ffffff")
        if wanted in self.colours:
            return self.colours[wanted]
        try:
            parse_hex(wanted)
        except ImprovaError:
            names = ", ".join(self.colours) or "none"
            raise BadScene(f"{self.title} has no colour '{wanted}'. Named: {names}; or write #rrggbb.") from None
        return wanted


@dataclass(frozen=True)
class SceneInfo:
    """What ``scene.toml`` says. ``views`` are angles in degrees; ``turns`` allows any angle.

    ``drawn`` is the blank of a scene that is drawn by formula and has no pack.
    """

    id: str
    title: str
    kind: str
    templates: tuple[str, ...]
    px: tuple[int, int]
    views: dict[str, float]
    turns: bool
    regions: tuple[Region, ...]
    exposure: float
    folder: Path
    drawn: Template | None = None

    def printed(self) -> Region:
        """The first printed region."""
        return next(r for r in self.regions if r.panel)

    def region(self, region_id: str) -> Region:
        """The region of that id. Raises :class:`BadScene`."""
        for region in self.regions:
            if region.id == region_id:
                return region
        raise BadScene(f"{self.title} has no part '{region_id}'. Its parts: {', '.join(r.id for r in self.regions)}.")

    def angle(self, view: str | None) -> float:
        """The angle of a named view, the first one for None. Raises :class:`BadScene`."""
        if view is None:
            return next(iter(self.views.values()))
        if view not in self.views:
            raise BadScene(f"{self.title} has no view '{view}'. Its views: {', '.join(self.views)}.")
        return self.views[view]


@dataclass(frozen=True)
class Passes:
    """Linear light of a scene at its native size; maps hold u, v, NaN where there is no print near."""

    base: Floats
    basis: dict[str, Floats]
    maps: dict[str, Floats]


def read_info(folder: Path) -> SceneInfo:
    """Read and check ``scene.toml``. Raises :class:`BadScene` with what is wrong and where."""
    path = folder / "scene.toml"
    try:
        data = tomllib.loads(path.read_text(encoding="utf-8"))
    except OSError as problem:
        raise BadScene(f"'{folder.name}' is not a scene pack: it has no readable scene.toml.") from problem
    except (tomllib.TOMLDecodeError, UnicodeDecodeError) as broken:
        raise BadScene(f"{folder.name}/scene.toml is not valid TOML: {broken}.") from broken
    try:
        info = _info(data, folder)
    except KeyError as missing:
        raise BadScene(f"{folder.name}/scene.toml lacks {missing}.") from missing
    except (TypeError, ValueError, AttributeError) as wrong:
        raise BadScene(f"{folder.name}/scene.toml has a value of the wrong kind: {wrong}.") from wrong
    _check(info)
    return info


def _info(data: dict[str, Any], folder: Path) -> SceneInfo:
    regions = tuple(
        Region(str(r["id"]), str(r.get("title", r["id"])), r.get("panel"), dict(r.get("colours", {})), r.get("default"))
        for r in data["regions"]
    )
    w, h = (int(v) for v in data["px"])
    return SceneInfo(
        id=str(data["id"]), title=str(data["title"]), kind=str(data["kind"]), templates=tuple(data["templates"]),
        px=(w, h), views={str(k): float(v) for k, v in data["views"].items()}, turns=bool(data.get("turns", False)),
        regions=regions, exposure=float(data.get("exposure", 1.0)), folder=folder,
    )  # fmt: skip


def _check(info: SceneInfo) -> None:
    where = f"{info.folder.name}/scene.toml"
    if info.kind not in KINDS:
        raise BadScene(f"{where}: the kind '{info.kind}' is not one of {', '.join(KINDS)}.")
    if not any(r.panel for r in info.regions):
        raise BadScene(f"{where}: no region has a panel, so nothing could be printed.")
    if not info.views:
        raise BadScene(f"{where}: at least one view is needed.")
    if not 1 <= min(info.px) <= max(info.px) <= MAX_SIDE_PX:
        raise BadScene(f"{where}: px must lie between 1 and {MAX_SIDE_PX} a side.")
    if not 0.01 <= info.exposure <= 100:
        raise BadScene(f"{where}: an exposure of {info.exposure:g} is out of reach.")
    for region in info.regions:
        for colour in region.colours.values():
            region.colour(colour)
        if region.default is not None:
            region.colour(region.default)


def read_passes(info: SceneInfo) -> Passes:
    """Read ``passes.exr``, all parts of it. Raises :class:`BadScene` where channels or sizes are missing."""
    path = info.folder / "passes.exr"
    try:
        with OpenEXR.File(str(path), separate_channels=True) as file:
            channels = {
                name: np.asarray(channel.pixels, np.float32) for part in file.parts for name, channel in part.channels.items()
            }
    except Exception as broken:  # the library raises bare RuntimeError and more for damaged files
        raise BadScene(f"{info.folder.name}/passes.exr is missing or damaged: bake the scene again.") from broken

    def stack(name: str, letters: str) -> Floats:
        planes = []
        for letter in letters:
            plane = channels.get(f"{name}.{letter}")
            if plane is None:
                raise BadScene(f"{info.folder.name}/passes.exr lacks the channel {name}.{letter}.")
            if plane.shape != (info.px[1], info.px[0]):
                raise BadScene(f"{info.folder.name}/passes.exr: {name}.{letter} is not {info.px[0]} × {info.px[1]} px.")
            planes.append(plane)
        return np.stack(planes, axis=-1)

    maps = {}
    for region in info.regions:
        if region.panel:
            uv = stack(region.id, "uv")
            uv[~(uv >= 0).all(axis=-1)] = np.nan
            if np.isnan(uv).all():
                raise BadScene(f"{info.folder.name}/passes.exr: the print of {region.id} is nowhere to be seen.")
            maps[region.id] = uv
    basis = {r.id: stack(r.id, "RGB") for r in info.regions}
    light = [stack("base", "RGB"), *basis.values()]
    if not all(np.isfinite(plane).all() for plane in light):
        raise BadScene(f"{info.folder.name}/passes.exr holds values that are not numbers: bake the scene again.")
    return Passes(light[0], basis, maps)
