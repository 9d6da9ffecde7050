"""Write scene packs: ``scene.toml``, ``passes.exr``, and ``quick.exr`` for previews."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR

from ..core.colour import Floats
from ..core.mockup.maps import on_one_panel
from ..core.mockup.photo import PhotoScene
from ..core.mockup.quantised_uv import FINEST, QUICK_FINEST, quantise
from .atomic import atomic_path, atomic_write
from .scene_pack import QUICK

DWA_LEVEL, QUICK_LEVEL = 200.0, 600.0
"""DWA compression level, above the default 45: more than halves the file, at a mean error of ΔE2000 0.2 in the picture."""

LEAST_QUICK_PX = 600
"""Packs below this size need no quick passes."""

FARTHEST_CM = 3e4
"""Largest depth that half floats can store."""

Light = dict[str, Floats]


def write_passes(folder: Path, light: Light, maps: Light, more: Light, dwa_level: float = DWA_LEVEL) -> None:
    """Write ``passes.exr`` and, for large packs, ``quick.exr``: light as lossy half floats, maps as 24-bit floats.

    Args:
        light: ``base`` and each region with light of its own, (h, w, 3) linear.
        maps: u and v by region, (h, w, 2), NaN where it is not near.
        more: of ``cover``, ``shade`` and ``depth`` those there are, (h, w).
    """
    _write_exr(folder / "passes.exr", light, maps, more, dwa_level, FINEST)
    if light["base"].shape[1] >= 2 * LEAST_QUICK_PX:
        write_quick(folder, light, maps, more)


def write_quick(folder: Path, light: Light, maps: Light, more: Light) -> None:
    """Write ``quick.exr``: the passes at half size."""
    h, w = light["base"].shape[:2]
    size = (w // 2, h // 2)
    small, small_more = ({name: _halved(plane, size) for name, plane in planes.items()} for planes in (light, more))
    small_maps = {name: _halved_map(uv, size) for name, uv in maps.items()}
    _write_exr(folder / QUICK, small, small_maps, small_more, QUICK_LEVEL, QUICK_FINEST)


def _halved(plane: Floats, size: tuple[int, int]) -> Floats:
    return np.asarray(cv2.resize(plane, size, interpolation=cv2.INTER_AREA), np.float32)


def _halved_map(uv: Floats, size: tuple[int, int]) -> Floats:
    """Return texture coordinates at half size, averaged over the pixels that have any."""
    near = (~np.isnan(uv[..., 0])).astype(np.float32)
    weight = _halved(near, size)[..., None]
    with np.errstate(invalid="ignore", divide="ignore"):
        out = _halved(np.nan_to_num(uv), size) / weight
    out[weight[..., 0] < 0.25] = np.nan
    return on_one_panel(np.asarray(out, np.float32), uv)


def _channels(name: str, letters: str, planes: Floats, kind: type) -> dict[str, Any]:
    planes = planes.reshape(*planes.shape[:2], -1)
    return {f"{name}.{letter}": np.ascontiguousarray(planes[..., i].astype(kind)) for i, letter in enumerate(letters)}


def _write_exr(path: Path, light: Light, maps: Light, more: Light, dwa_level: float, finest: int) -> None:
    shaded: dict[str, Any] = {}
    for name, planes in light.items():
        shaded |= _channels(name, "RGB", planes, np.float16)
    for name, letter in (("cover", "A"), ("shade", "Y"), ("depth", "Y")):
        if name in more:
            shaded |= _channels(name, letter, np.minimum(more[name], FARTHEST_CM), np.float16)
    mapped: dict[str, Any] = {}
    for name, uv in maps.items():
        mapped |= _channels(name, "uv", np.nan_to_num(quantise(uv, finest), nan=-1.0), np.float32)
    parts = [
        OpenEXR.Part(
            {"compression": OpenEXR.DWAA_COMPRESSION, "dwaCompressionLevel": float(dwa_level), "type": OpenEXR.scanlineimage},
            shaded,
            "light",
        )
    ]
    if mapped:
        parts.append(OpenEXR.Part({"compression": OpenEXR.PXR24_COMPRESSION, "type": OpenEXR.scanlineimage}, mapped, "maps"))
    with atomic_path(path) as temporary:
        OpenEXR.File(parts).write(str(temporary))


def write_scene_toml(folder: Path, facts: dict[str, Any]) -> None:
    """Write ``scene.toml``; ``facts`` has the entries that docs/scene-packs.md names."""
    atomic_write(folder / "scene.toml", _toml(facts).encode())


def write_photo_scene(scene: PhotoScene, folder: Path) -> None:
    """Write the pack of a photograph's scene into an existing folder. Raises :class:`OutputError`."""
    passes = scene.passes
    assert passes.cover is not None, "a photograph's scene cuts its product out"
    write_passes(folder, {"base": passes.base, **passes.basis}, passes.maps, {"cover": passes.cover})
    write_scene_toml(folder, scene.scene_toml)


def _toml(facts: dict[str, Any]) -> str:
    def value(v: Any) -> str:
        if isinstance(v, dict):
            return "{ " + ", ".join(f"{json.dumps(k, ensure_ascii=False)} = {value(x)}" for k, x in v.items()) + " }"
        return json.dumps(v, ensure_ascii=False).replace("\x7f", "\\u007f")

    lines = [f"{k} = {value(v)}" for k, v in facts.items() if k not in ("regions", "measures")]
    for table in ("measures", "regions"):
        for entry in facts[table]:
            lines += ["", f"[[{table}]]", *(f"{k} = {value(v)}" for k, v in entry.items())]
    return "\n".join(lines) + "\n"
