"""Write a bake as a scene pack: scene.toml and a two-part passes.exr."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import numpy as np
import OpenEXR

from .bake import Image

DWA_LEVEL = 100.0
"""Above the default 45: saves half, at a mean error of ΔE2000 0.1 in the picture."""


def _channels(name: str, letters: str, planes: Image, kind: type) -> dict[str, Any]:
    return {f"{name}.{letter}": np.ascontiguousarray(planes[..., i].astype(kind)) for i, letter in enumerate(letters)}


def write_pack(folder: Path, pack: dict[str, Any], light: dict[str, Image], maps: dict[str, Image], *, exposure: float,
               seconds: float, samples: int, dwa_level: float = DWA_LEVEL) -> None:  # fmt: skip
    """Light as lossy half floats (DWAA), texture maps as 24-bit floats (PXR24), -1 where there is no print near."""
    folder.mkdir(parents=True, exist_ok=True)
    h, w = light["base"].shape[:2]
    lit: dict[str, Any] = {}
    for name, planes in light.items():
        lit |= _channels(name, "RGB", planes, np.float16)
    mapped: dict[str, Any] = {}
    for name, uv in maps.items():
        mapped |= _channels(name, "uv", np.nan_to_num(uv, nan=-1.0), np.float32)
    parts = [
        OpenEXR.Part({"compression": OpenEXR.DWAA_COMPRESSION, "dwaCompressionLevel": dwa_level,
                      "type": OpenEXR.scanlineimage}, lit, "light"),
        OpenEXR.Part({"compression": OpenEXR.PXR24_COMPRESSION, "type": OpenEXR.scanlineimage}, mapped, "maps"),
    ]  # fmt: skip
    OpenEXR.File(parts).write(str(folder / "passes.exr"))
    (folder / "scene.toml").write_text(_toml(pack, (w, h), exposure, seconds, samples), encoding="utf-8")


def _toml(pack: dict[str, Any], px: tuple[int, int], exposure: float, seconds: float, samples: int) -> str:
    def value(v: Any) -> str:
        if isinstance(v, dict):
            return "{ " + ", ".join(f"{json.dumps(k)} = {value(x)}" for k, x in v.items()) + " }"
        return json.dumps(v, ensure_ascii=False)

    head = {k: v for k, v in pack.items() if k != "regions"}
    head |= {"px": list(px), "exposure": exposure, "seed": 0, "samples": samples, "seconds_of_bake": round(seconds)}
    lines = [f"{k} = {value(v)}" for k, v in head.items()]
    for region in pack["regions"]:
        lines += ["", "[[regions]]", *(f"{k} = {value(v)}" for k, v in region.items())]
    return "\n".join(lines) + "\n"
