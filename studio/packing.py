"""Write a bake as a scene pack: scene.toml and a two-part passes.exr."""

from __future__ import annotations

import json
import tempfile
import tomllib
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import OpenEXR

from . import seen
from .bake import Bake, Image, Scene, staged

DWA_LEVEL = 100.0
"""Above the default 45: saves half, at a mean error of ΔE2000 0.1 in the picture."""


FINEST = 65536
"""Steps of u and v: a twentieth of a texel of the finest print."""

LEAST_QUICK_PX = 600
"""Smaller packs are quick enough whole."""


def _channels(name: str, letters: str, planes: Image, kind: type) -> dict[str, Any]:
    return {f"{name}.{letter}": np.ascontiguousarray(planes[..., i].astype(kind)) for i, letter in enumerate(letters)}


def write_pack(folder: Path, scene: Scene, bake: Bake, *, samples: int, dwa_level: float = DWA_LEVEL) -> None:
    """Light as lossy half floats (DWAA), maps as 24-bit floats (PXR24), -1 where a region is not near."""
    folder.mkdir(parents=True, exist_ok=True)
    h, w = bake.cover.shape
    _write_exr(folder / "passes.exr", bake.light, bake.maps, bake.cover, bake.shade, bake.depth, dwa_level)
    if w >= 2 * LEAST_QUICK_PX:
        size = (w // 2, h // 2)
        _write_exr(folder / "quick.exr", {n: _halved(p, size) for n, p in bake.light.items()},
                   {n: _halved_map(uv, size) for n, uv in bake.maps.items()},
                   *(_halved(p, size) for p in (bake.cover, bake.shade, bake.depth)), dwa_level)  # fmt: skip
    made = {"samples": samples, "seconds_of_bake": round(bake.seconds)}
    (folder / "scene.toml").write_text(_told(scene, (w, h), made, bake.lens, bake.measures), encoding="utf-8")


def retell(folder: Path, scene: Scene) -> None:
    """Write a pack's ``scene.toml`` anew, from what its scene says now: names, colours, exposure, measures."""
    old = tomllib.loads((folder / "scene.toml").read_text(encoding="utf-8"))
    made = {name: old[name] for name in ("samples", "seconds_of_bake")}
    with tempfile.TemporaryDirectory() as place:
        lens, measures = seen.told(staged(scene, tuple(old["px"]), {}, Path(place)), scene)
    (folder / "scene.toml").write_text(_told(scene, tuple(old["px"]), made, lens, measures), encoding="utf-8")


def _told(
    scene: Scene, px: tuple[int, int], made: dict[str, Any], lens: dict[str, float], measures: list[dict[str, Any]]
) -> str:
    head = {**scene.pack, "px": list(px), "exposure": scene.exposure, "seed": 0, **made}
    return _toml({**head, "lens": lens, "measures": measures})


def _halved(plane: Image, size: tuple[int, int]) -> Image:
    return np.asarray(cv2.resize(plane, size, interpolation=cv2.INTER_AREA), np.float32)


def _halved_map(uv: Image, size: tuple[int, int]) -> Image:
    """Texture places averaged over the pixels that have any."""
    near = (~np.isnan(uv[..., 0])).astype(np.float32)
    weight = _halved(near, size)[..., None]
    with np.errstate(invalid="ignore", divide="ignore"):
        out = _halved(np.nan_to_num(uv), size) / weight
    out[weight[..., 0] < 0.25] = np.nan
    return np.asarray(out, np.float32)


def _write_exr(path: Path, light: dict[str, Image], maps: dict[str, Image], cover: Image, shade: Image, depth: Image, level: float
               ) -> None:  # fmt: skip
    lit: dict[str, Any] = {}
    for name, planes in light.items():
        lit |= _channels(name, "RGB", planes, np.float16)
    lit |= _channels("cover", "A", cover[..., None], np.float16)
    lit |= _channels("shade", "Y", shade[..., None], np.float16)
    lit |= _channels("depth", "Y", np.minimum(depth, 3e4)[..., None], np.float16)
    mapped: dict[str, Any] = {}
    for name, uv in maps.items():
        mapped |= _channels(name, "uv", np.nan_to_num((uv * FINEST).round() / FINEST, nan=-1.0), np.float32)
    parts = [OpenEXR.Part({"compression": OpenEXR.DWAA_COMPRESSION, "dwaCompressionLevel": level,
                           "type": OpenEXR.scanlineimage}, lit, "light")]  # fmt: skip
    if mapped:
        parts.append(OpenEXR.Part({"compression": OpenEXR.PXR24_COMPRESSION, "type": OpenEXR.scanlineimage}, mapped, "maps"))
    OpenEXR.File(parts).write(str(path))


def _toml(told: dict[str, Any]) -> str:
    def value(v: Any) -> str:
        if isinstance(v, dict):
            return "{ " + ", ".join(f"{json.dumps(k)} = {value(x)}" for k, x in v.items()) + " }"
        return json.dumps(v, ensure_ascii=False)

    lines = [f"{k} = {value(v)}" for k, v in told.items() if k not in ("regions", "measures")]
    for table in ("measures", "regions"):
        for entry in told[table]:
            lines += ["", f"[[{table}]]", *(f"{k} = {value(v)}" for k, v in entry.items() if k != "probe")]
    return "\n".join(lines) + "\n"
