"""Scene packs: a folder with ``scene.toml`` and ``passes.exr``, baked once in any renderer.

The EXR holds linear light: ``base.R/G/B``, ``<region>.R/G/B`` for each region, and ``<region>.u/v`` for each that is
printed or shows a surface (NaN or negative where it is not near). ``cover.A``, ``shade.Y`` and ``depth.Y`` are
optional: they cut the product out, keep its shadow, and blur what lies behind. docs/scene-packs.md describes the format.
"""

from __future__ import annotations

import tomllib
from dataclasses import replace
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR

from ..colour import Floats
from ..errors import BadScene
from .cores import CORES
from .places import FINEST, QUICK_FINEST, unstepped
from .scene import Lens, Measure, Passes, Region, SceneInfo

OpenEXR.set_global_thread_count(CORES)

KINDS = ("studio", "lifestyle", "flat", "size")
MAX_SIDE_PX = 8192
NOTHING_OR_NAN = np.array([[0] + [np.nan] * 255], np.float32)
QUICK = "quick.exr"
"""The same passes at about half the size, for looks; optional."""


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
        info = info_of(data, folder)
    except KeyError as missing:
        raise BadScene(f"{folder.name}/scene.toml lacks {missing}.") from missing
    except (TypeError, ValueError, AttributeError) as wrong:
        raise BadScene(f"{folder.name}/scene.toml has a value of the wrong kind: {wrong}.") from wrong
    _check(info)
    return info


def _numbers(value: Any, count: int) -> tuple[float, ...] | None:
    if value is None:
        return None
    numbers = tuple(float(v) for v in value)
    if len(numbers) != count:
        raise ValueError(f"{count} numbers are wanted, not {len(numbers)}")
    return numbers


def _region(data: dict[str, Any]) -> Region:
    return Region(
        str(data["id"]), str(data.get("title", data["id"])), data.get("panel"), dict(data.get("colours", {})),
        data.get("default"), data.get("on"), _numbers(data.get("box_mm"), 4), float(data.get("turn", 0)),  # type: ignore[arg-type]
        data.get("place"), _numbers(data.get("size_mm"), 2), data.get("surface"), bool(data.get("around", False)),  # type: ignore[arg-type]
    )  # fmt: skip


def _sizes(path: Path) -> set[tuple[int, int]]:
    """Sizes in px of an EXR's parts, from its header alone; none where it cannot be read."""
    try:
        with OpenEXR.File(str(path), header_only=True) as file:
            windows = [part.header["dataWindow"] for part in file.parts]
        return {(int(high[0] - low[0]) + 1, int(high[1] - low[1]) + 1) for low, high in windows}
    except Exception:  # the library raises bare RuntimeError and more for damaged files
        return set()


def quick_info(info: SceneInfo) -> SceneInfo | None:
    """The scene at the size of its quick passes, or None where the pack has none that fit."""
    sizes = _sizes(info.folder / QUICK)
    if len(sizes) != 1:  # there is none, or it is damaged: the whole passes serve
        return None
    w, h = sizes.pop()
    share = w / info.px[0]
    if abs(h - info.px[1] * share) > 1:
        return None
    lens = info.lens and replace(info.lens, px_cm=info.lens.px_cm * share)
    measures = tuple(
        replace(m, start=(m.start[0] * share, m.start[1] * share), end=(m.end[0] * share, m.end[1] * share))
        for m in info.measures
    )
    return replace(info, px=(w, h), lens=lens, measures=measures)


def info_of(data: dict[str, Any], folder: Path) -> SceneInfo:
    """What the entries of a ``scene.toml`` say. Raises KeyError, TypeError and ValueError for what is missing or wrong."""
    w, h = (int(v) for v in data["px"])
    measures = tuple(
        Measure(str(m["title"]), float(m["mm"]), _numbers(m["from"], 2), _numbers(m["to"], 2))  # type: ignore[arg-type]
        for m in data.get("measures", [])
    )
    return SceneInfo(
        id=str(data["id"]), title=str(data["title"]), kind=str(data["kind"]), templates=tuple(data["templates"]),
        px=(w, h), views={str(k): float(v) for k, v in data["views"].items()}, turns=bool(data.get("turns", False)),
        regions=tuple(_region(r) for r in data["regions"]), exposure=float(data.get("exposure", 1.0)), folder=folder,
        finish=str(data.get("finish", "")), mirrored=tuple(data.get("mirrored", ())), measures=measures,
        lens=Lens(**data["lens"]) if "lens" in data else None, unprinted=bool(data.get("unprinted", False)),
        photograph=bool(data.get("photograph", False)), lead=bool(data.get("lead", False)),
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
    by_id = {r.id: r for r in info.regions}
    for region in info.regions:
        if region.on is not None:
            cloth = by_id.get(region.on)
            if cloth is None or cloth.panel or region.panel is None or (region.box_mm and cloth.size_mm is None):
                raise BadScene(f"{where}: {region.id} lies on '{region.on}', which must be a plain region, with size_mm where "
                               "the print has box_mm; and it needs a panel.")  # fmt: skip
        for colour in region.colours.values():
            region.colour(colour)
        if region.default is not None:
            region.colour(region.default)


def read_passes(info: SceneInfo, quick: bool = False) -> Passes:
    """Read ``passes.exr``, all parts of it, as half floats; ``quick`` reads ``quick.exr`` where the pack has one.

    Raises :class:`BadScene` where channels or sizes are missing.
    """
    path = info.folder / (QUICK if quick else "passes.exr")
    sizes = _sizes(path)
    if not sizes:
        raise BadScene(f"{info.folder.name}/{path.name} is missing or damaged: bake the scene again.")
    if sizes != {info.px}:  # before anything is unpacked, which might fill memory
        raise BadScene(f"{info.folder.name}/{path.name} is not {info.px[0]} × {info.px[1]} px, as scene.toml says.")
    try:
        with OpenEXR.File(str(path), separate_channels=True) as file:
            channels = {name: channel.pixels for part in file.parts for name, channel in part.channels.items()}
    except Exception as broken:
        raise BadScene(f"{info.folder.name}/{path.name} is missing or damaged: bake the scene again.") from broken

    def plane(name: str, letter: str) -> Floats:
        found = channels.pop(f"{name}.{letter}", None)  # let go as it is taken: a scene fills hundreds of MB
        if found is None:
            raise BadScene(f"{info.folder.name}/{path.name} lacks the channel {name}.{letter}.")
        return np.asarray(found, np.float32 if letter in "uv" else np.float16)

    def light(name: str) -> Floats:
        merged = cv2.merge([plane(name, letter).view(np.uint16) for letter in "RGB"])  # by bits: it knows no half floats
        return np.asarray(merged).view(np.float16)

    maps = {}
    for region in info.regions:
        if region.mapped:
            u, v = plane(region.id, "u"), plane(region.id, "v")
            nowhere = ~((u >= 0) & (v >= 0))
            if region.panel and nowhere.all():
                raise BadScene(f"{info.folder.name}/{path.name}: the print of {region.id} is nowhere to be seen.")
            gone = cv2.LUT(nowhere.view(np.uint8), NOTHING_OR_NAN)  # many times quicker than by NumPy's mask
            maps[region.id] = np.asarray(cv2.merge([np.add(each, gone, out=each) for each in (u, v)]), np.float32)
            del u, v, nowhere, gone
            unstepped(maps[region.id], QUICK_FINEST if quick else FINEST)
    basis = {r.id: light(r.id) for r in info.regions if r.on is None}
    more = {name: plane(name, letter) if f"{name}.{letter}" in channels else None
            for name, letter in (("cover", "A"), ("shade", "Y"), ("depth", "Y"))}  # fmt: skip
    passes = Passes(light("base"), basis, maps, **more)
    if not all(_finite(each) for each in [passes.base, *basis.values(), *more.values()] if each is not None):
        raise BadScene(f"{info.folder.name}/{path.name} holds values that are not numbers: bake the scene again.")
    return passes


def _finite(halves: Floats) -> bool:
    """Whether no half float is infinite or no number: all bits of its exponent set (IEEE 754, binary16)."""
    return bool((halves.view(np.uint16) & 0x7FFF).max() < 0x7C00)
