"""Write a bake as a scene pack."""

from __future__ import annotations

import tempfile
import tomllib
from pathlib import Path
from typing import Any

import numpy as np

from improva.io.scene_pack import read_info, read_passes
from improva.io.scene_pack_writer import DWA_LEVEL, write_passes, write_quick, write_scene_toml
from studio import seen
from studio.bake import Bake, Scene, maps_of, staged

MOST_BYTES, MOST_OF_A_FILE = 5_990_000, 4 * 1024 * 1024 - 1
"""Of a pack's files together, and of one: hosts of repositories keep larger files elsewhere."""


def write_pack(folder: Path, scene: Scene, bake: Bake, *, samples: int, dwa_level: float = DWA_LEVEL) -> None:
    """Write the pack's files into a folder, created if missing, compressed within the size budget."""
    folder.mkdir(parents=True, exist_ok=True)
    h, w = bake.cover.shape
    for times in (1, 1.5, 2, 3):
        write_passes(
            folder, bake.light, bake.maps, {"cover": bake.cover, "shade": bake.shade, "depth": bake.depth}, times * dwa_level
        )
        sizes = [file.stat().st_size for file in folder.iterdir()]
        if sum(sizes) < MOST_BYTES and max(sizes) <= MOST_OF_A_FILE:
            break
    record = {"samples": samples, "seconds_of_bake": round(bake.seconds)}
    write_scene_toml(folder, _told(scene, (w, h), record, bake.lens, bake.measures))


def retell(folder: Path, scene: Scene) -> None:
    """Write a pack's ``scene.toml`` anew from its scene's current names, colours, exposure and measures."""
    old = tomllib.loads((folder / "scene.toml").read_text(encoding="utf-8"))
    record = {name: old[name] for name in ("samples", "seconds_of_bake")}
    with tempfile.TemporaryDirectory() as place:
        lens, measures = seen.lens_and_measures(staged(scene, tuple(old["px"]), {}, Path(place)), scene)
    write_scene_toml(folder, _told(scene, tuple(old["px"]), record, lens, measures))


def quicken(folder: Path) -> None:
    """Write a pack's reduced passes anew from its full ones."""
    passes = read_passes(read_info(folder))
    light, more = (
        {name: np.asarray(plane, np.float32) for name, plane in planes.items() if plane is not None}
        for planes in (
            {"base": passes.base, **passes.basis},
            {name: getattr(passes, name) for name in ("cover", "shade", "depth")},
        )
    )
    write_quick(folder, light, passes.maps, more)


def remap(folder: Path, scene: Scene) -> None:
    """Write a pack's maps anew, after places on the product have changed but not its shape or its light."""
    info = read_info(folder)
    passes = read_passes(info)
    light = {name: np.asarray(plane, np.float32) for name, plane in {"base": passes.base, **passes.basis}.items()}
    more = {name: plane for name in ("cover", "shade", "depth") if (plane := getattr(passes, name)) is not None}
    maps = maps_of(scene, seen.look(scene, info.px), info.px)
    write_passes(folder, light, maps, {name: np.asarray(plane, np.float32) for name, plane in more.items()}, DWA_LEVEL)
    retell(folder, scene)


def _told(
    scene: Scene, px: tuple[int, int], record: dict[str, Any], lens: dict[str, float], measures: list[dict[str, Any]]
) -> dict[str, Any]:
    head = {**scene.pack, "px": list(px), "exposure": scene.exposure, "seed": 0, **record}
    return {**head, "lens": lens, "measures": measures, "regions": scene.regions}
