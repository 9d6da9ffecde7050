"""Bake scene packs: ``python -m studio straight-tumbler-studio […] [--samples 24] [--scale 1.0] [--into FOLDER]``."""

from __future__ import annotations

import argparse
from pathlib import Path

from studio import bake, packing, proof
from studio.scenes import SCENES

NATIVE_PX = (2700, 2025)


def main() -> None:
    parser = argparse.ArgumentParser(prog="studio", description=__doc__)
    parser.add_argument("scene", nargs="+", choices=sorted(SCENES))
    parser.add_argument("--samples", type=int, default=24, help="a pixel and a pass")
    parser.add_argument("--scale", type=float, default=1.0, help="of the native 2700 × 2025 px, for trying out")
    parser.add_argument("--retell", action="store_true", help="write scene.toml anew and bake nothing")
    parser.add_argument("--remap", action="store_true", help="write the maps and scene.toml anew and bake nothing")
    parser.add_argument("--quicken", action="store_true", help="write quick.exr anew and bake nothing")
    parser.add_argument("--prove", action="store_true", help="compare the pack with a path trace of other art")
    parser.add_argument("--into", type=Path, default=Path("src/improva/scenes"))
    chosen = parser.parse_args()
    w, h = (round(v * chosen.scale) for v in NATIVE_PX)
    for name in chosen.scene:
        folder = chosen.into / name
        if chosen.prove:
            print(f"{name}: {proof.prove(folder, SCENES[name])}", flush=True)
            continue
        if chosen.retell:
            packing.retell(folder, SCENES[name])
            continue
        if chosen.remap:
            packing.remap(folder, SCENES[name])
            continue
        if chosen.quicken:
            packing.quicken(folder)
            continue
        bake_result = bake.bake(SCENES[name], (w, h), chosen.samples, lambda said, name=name: print(name, said, flush=True))  # type: ignore[misc]
        packing.write_pack(folder, SCENES[name], bake_result, samples=chosen.samples)
        print(f"{folder}: {(folder / 'passes.exr').stat().st_size / 1e6:.1f} MB, {bake_result.seconds:.0f} s", flush=True)


if __name__ == "__main__":
    main()
