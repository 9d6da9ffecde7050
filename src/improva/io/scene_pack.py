"""Scene packs: folders with ``scene.toml`` and ``passes.exr``, baked once in any renderer.

The EXR holds linear light: ``base.R/G/B``, ``<region>.R/G/B`` for each region, and ``<region>.u/v`` for each that is
printed or shows a surface (NaN or negative where it is not near). ``cover.A``, ``shade.Y`` and ``depth.Y`` are
optional: they cut the product out, keep its shadow, and blur what lies behind. docs/scene-packs.md describes the format.
"""

from __future__ import annotations

import os
import tomllib
from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import OpenEXR

from ..core.colour import Floats
from ..core.errors import SceneError
from ..core.mockup.parallel import ONE_CORE, Cores
from ..core.mockup.quantised_uv import FINEST, QUICK_FINEST, smooth_quantised
from ..core.mockup.scene import Passes, SceneInfo
from ..core.mockup.scene_file import _check, parse_scene

OpenEXR.set_global_thread_count(os.cpu_count() or 2)

NOTHING_OR_NAN = np.array([[0] + [np.nan] * 255], np.float32)
TOML_BYTES = 400_000
"""Largest ``scene.toml``: the largest that ships has 2 000 bytes."""

QUICK = "quick.exr"
"""File of the same passes at about half the size, for previews; optional."""


def read_info(folder: Path) -> SceneInfo:
    """Read and check ``scene.toml``. Raises :class:`SceneError` with what is wrong and where."""
    path = folder / "scene.toml"
    try:
        if path.stat().st_size > TOML_BYTES:
            raise SceneError(f"{folder.name}/scene.toml is over {TOML_BYTES // 1000} kB, far larger than any scene's.")
        data = tomllib.loads(path.read_text(encoding="utf-8"))
    except OSError as problem:
        raise SceneError(f"'{folder.name}' is not a scene pack: it has no readable scene.toml.") from problem
    except (ValueError, RecursionError) as broken:  # not TOML, not UTF-8, a number of thousands of digits, nested too deeply
        raise SceneError(f"{folder.name}/scene.toml is not valid TOML: {broken}.") from broken
    try:
        info = parse_scene(data, folder)
    except KeyError as missing:
        raise SceneError(f"{folder.name}/scene.toml lacks {missing}.") from missing
    except (TypeError, ValueError, AttributeError) as wrong:
        raise SceneError(f"{folder.name}/scene.toml has a value of the wrong kind: {wrong}.") from wrong
    _check(info)
    return info


def _sizes(path: Path) -> set[tuple[int, int]]:
    """Return the sizes in px of an EXR's parts from its header; none for an unreadable file."""
    try:
        with OpenEXR.File(str(path), header_only=True) as file:
            windows = [part.header["dataWindow"] for part in file.parts]
        return {(int(high[0] - low[0]) + 1, int(high[1] - low[1]) + 1) for low, high in windows}
    except Exception:  # the library raises bare RuntimeError and more for damaged files
        return set()


def quick_info(info: SceneInfo) -> SceneInfo | None:
    """Return the scene at the size of its reduced passes, or None if the pack has no matching ones."""
    sizes = _sizes(info.folder / QUICK)
    if len(sizes) != 1:  # it is missing or damaged: use the full-size passes
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


def read_passes(info: SceneInfo, quick: bool = False, cores: Cores = ONE_CORE) -> Passes:
    """Read all parts of ``passes.exr`` as half floats; ``quick`` reads ``quick.exr`` if present.

    Raises :class:`SceneError` where channels or sizes are missing.
    """
    path = info.folder / (QUICK if quick else "passes.exr")
    sizes = _sizes(path)
    if not sizes:
        raise SceneError(f"{info.folder.name}/{path.name} is missing or damaged: bake the scene again.")
    if sizes != {info.px}:  # before anything is unpacked, which might fill memory
        raise SceneError(f"{info.folder.name}/{path.name} is not {info.px[0]} × {info.px[1]} px, as scene.toml says.")
    try:
        with OpenEXR.File(str(path), separate_channels=True) as file:
            channels = {name: channel.pixels for part in file.parts for name, channel in part.channels.items()}
    except Exception as broken:
        raise SceneError(f"{info.folder.name}/{path.name} is missing or damaged: bake the scene again.") from broken

    def plane(name: str, letter: str) -> Floats:
        plane_data = channels.pop(f"{name}.{letter}", None)  # free each plane once it is copied: a scene fills hundreds of MB
        if plane_data is None:
            raise SceneError(f"{info.folder.name}/{path.name} lacks the channel {name}.{letter}.")
        return np.asarray(plane_data, np.float32 if letter in "uv" else np.float16)

    def light(name: str) -> Floats:
        merged = cv2.merge(
            [plane(name, letter).view(np.uint16) for letter in "RGB"]
        )  # view the bits as integers: OpenCV has no half floats
        return np.asarray(merged).view(np.float16)

    maps = {}
    for region in info.regions:
        if region.mapped:
            u, v = plane(region.id, "u"), plane(region.id, "v")
            nowhere = ~((u >= 0) & (v >= 0))
            if region.panel and nowhere.all():
                raise SceneError(f"{info.folder.name}/{path.name}: the print of {region.id} is nowhere to be seen.")
            gone = cv2.LUT(nowhere.view(np.uint8), NOTHING_OR_NAN)  # many times faster than NumPy's mask
            maps[region.id] = np.asarray(cv2.merge([np.add(each, gone, out=each) for each in (u, v)]), np.float32)
            del u, v, nowhere, gone
            smooth_quantised(maps[region.id], QUICK_FINEST if quick else FINEST, cores)
    basis = {r.id: light(r.id) for r in info.regions if r.on is None}
    more = {
        name: plane(name, letter) if f"{name}.{letter}" in channels else None
        for name, letter in (("cover", "A"), ("shade", "Y"), ("depth", "Y"))
    }
    passes = Passes(light("base"), basis, maps, **more)
    if not all(_finite(each) for each in [passes.base, *basis.values(), *more.values()] if each is not None):
        raise SceneError(f"{info.folder.name}/{path.name} holds values that are not numbers: bake the scene again.")
    return passes


def _finite(halves: Floats) -> bool:
    """Return whether all half floats are finite: not all exponent bits set (IEEE 754, binary16)."""
    return bool((halves.view(np.uint16) & 0x7FFF).max() < 0x7C00)
