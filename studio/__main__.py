"""Bake a scene pack: ``python -m studio straight-tumbler-studio [--samples 48] [--scale 1.0] [--into FOLDER]``."""

from __future__ import annotations

import argparse
from pathlib import Path

from . import bake, packing, straight_tumbler

NATIVE_PX = (2700, 2025)
SCENES = {straight_tumbler.PACK["id"]: straight_tumbler}


def main() -> None:
    parser = argparse.ArgumentParser(prog="studio", description=__doc__)
    parser.add_argument("scene", choices=sorted(SCENES))
    parser.add_argument("--samples", type=int, default=48, help="a pixel and a pass")
    parser.add_argument("--scale", type=float, default=1.0, help="of the native 2700 × 2025 px, for trying out")
    parser.add_argument("--into", type=Path, default=Path("src/improva/scenes"))
    chosen = parser.parse_args()
    module = SCENES[chosen.scene]
    size = (round(NATIVE_PX[0] * chosen.scale), round(NATIVE_PX[1] * chosen.scale))
    light, maps, seconds = bake.bake(module.scene, module.PACK, size, chosen.samples)
    folder = chosen.into / chosen.scene
    packing.write_pack(folder, module.PACK, light, maps, exposure=module.EXPOSURE, seconds=seconds, samples=chosen.samples)
    print(f"{folder}: {(folder / 'passes.exr').stat().st_size / 1e6:.1f} MB, {seconds:.0f} s")


if __name__ == "__main__":
    main()
