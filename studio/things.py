"""Things that belong to rooms: a leafy plant, a side table, a skirting board. Lengths in cm."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import shapes
from studio.stage import Stage, rgb

Points = NDArray[np.float64]
Place = tuple[float, float, float]

GOLDEN_DEG = 137.508
"""Angle from one leaf to the next round a stem."""


def both(material: dict[str, Any]) -> dict[str, Any]:
    """Return a material that is seen from both sides."""
    return {"type": "twosided", "bsdf": material}


def leaf(long: float, wide: float, droop: float, fold: float) -> Points:
    """Return a leaf as a grid (rows, columns, 3) from its stalk at the origin along +x: pointed, folded along its middle, drooping."""
    s, t = np.meshgrid(np.linspace(0, 1, 22), np.linspace(-1, 1, 9), indexing="ij")
    half = wide / 2 * np.sin(np.pi * s**0.8) ** 0.9 * (1 - 0.25 * s)
    x = long * s
    y = t * half
    z = fold * np.abs(y) - droop * long * s**2 + 0.02 * long * np.sin(9 * s + 2 * t) * np.abs(t)
    return np.stack([x, y, z], -1)


def plant(stage: Stage, at: Place, high: float, leaves: int = 42, seed: int = 1, name: str = "plant") -> None:
    """A plant with leathery leaves round a few stems, in a stoneware pot."""
    rng = np.random.default_rng(seed)
    pot_h, pot_r = 0.24 * high, 0.15 * high
    outline = shapes.profile(
        [(0.05, 0.0), (0.72 * pot_r, 0.0)],
        shapes.arc((0.75 * pot_r, 0.4), 0.4, -90, -20, 5),
        [(pot_r, pot_h - 0.5)],
        shapes.arc((pot_r - 0.35, pot_h - 0.35), 0.35, 0, 180, 9),
        [(pot_r - 1.2, pot_h - 3)],
    )
    place = stage.to.translate(list(at))
    stage.turned(f"{name}@pot", outline, both(stage.coat(rgb(0.40, 0.36, 0.31), 0.75, 0.0)), place)
    soil = shapes.profile([(pot_r - 0.9, pot_h - 2.6), (0.0, pot_h - 2.0)])
    stage.turned(f"{name}@soil", soil, both({"type": "diffuse", "reflectance": rgb(0.03, 0.022, 0.016)}), place)
    rows, faces, count = [], [], 0
    for stem in range(3):
        lean, way = rng.uniform(4, 13), np.radians(120 * stem + rng.uniform(-25, 25))
        top = high * rng.uniform(0.72, 1.0)
        s = np.linspace(0, 1, 40)
        away = np.tan(np.radians(lean)) * top * s**1.6
        line = np.column_stack([away * np.cos(way), away * np.sin(way), pot_h - 3 + (top - pot_h + 3) * s])
        tube = shapes.tube(line, np.outer(0.62 - 0.4 * s, [1, 1]), stage.folder / f"{name}stem{stem}.ply", (0.3, 1, 0.1), 12, 2)
        stage.add(f"{name}@stem{stem}", tube, both(stage.coat(rgb(0.13, 0.12, 0.06), 0.7, 0.0)), place)
        mine = leaves // 3
        for number in range(mine):
            share = 0.30 + 0.70 * (number + 0.6) / mine
            base = np.array([np.interp(share, s, line[:, axis]) for axis in range(3)])
            long = high * rng.uniform(0.16, 0.24) * (1.15 - 0.45 * share)
            grid = leaf(long, 0.52 * long, rng.uniform(0.12, 0.4), rng.uniform(0.1, 0.4))
            round_, up = (
                np.radians(GOLDEN_DEG * number + 77 * stem + rng.uniform(-12, 12)),
                np.radians(rng.uniform(8, 52) * (0.5 + share / 2)),
            )
            stalk = 0.12 * long
            x, z = (
                (grid[..., 0] + stalk) * np.cos(up) - grid[..., 2] * np.sin(up),
                (grid[..., 0] + stalk) * np.sin(up) + grid[..., 2] * np.cos(up),
            )
            turned = np.stack(
                [x * np.cos(round_) - grid[..., 1] * np.sin(round_), x * np.sin(round_) + grid[..., 1] * np.cos(round_), z], -1
            )
            vertex, triangles = shapes.sheet(turned + base)
            rows.append(vertex)
            faces.append(triangles + count)
            count += len(vertex)
    mesh = shapes.write_ply(stage.folder / f"{name}leaves.ply", np.concatenate(rows), np.concatenate(faces))
    stage.add(f"{name}@leaves", mesh, both(stage.coat(rgb(0.045, 0.105, 0.035), 0.42, 0.25)), place)


def side_table(stage: Stage, at: Place, high: float = 48.0, r: float = 20.0, colour: Place = (0.20, 0.11, 0.06)) -> None:
    """A round table on three legs; ``at`` is on the floor."""
    wood = both(stage.coat(rgb(*colour), 0.4, 0.3))
    top = shapes.profile(
        [(0.0, high - 2.4), (r - 1.2, high - 2.4)], shapes.arc((r - 1.2, high - 1.2), 1.2, -90, 90, 15), [(0.0, high)]
    )
    stage.turned("stand@top", top, wood, stage.to.translate(list(at)))
    for leg in range(3):
        way = np.radians(120 * leg + 35)
        ends = np.array(
            [
                [0.95 * r * np.cos(way), 0.95 * r * np.sin(way), 0.0],
                [0.45 * r * np.cos(way), 0.45 * r * np.sin(way), high - 2.2],
            ]
        )
        line = np.linspace(ends[0], ends[1], 12) + at
        tube = shapes.tube(
            line, np.outer(np.linspace(0.9, 1.5, 12), [1, 1]), stage.folder / f"stand{leg}.ply", (0.2, 1, 0.1), 20, 2
        )
        stage.add(f"stand@leg{leg}", tube, wood)


def bench(stage: Stage, high: float, wide: float = 150.0, deep: float = 42.0, colour: Place = (0.30, 0.19, 0.11)) -> None:
    """A bench of two boards on four legs, in the middle of the floor."""
    wood = both(stage.coat(rgb(*colour), 0.45, 0.2))
    half = deep / 2 - 0.4
    for number, y in enumerate((-half / 2 - 0.4, half / 2 + 0.4)):
        board = shapes.block(wide, half, high - 3.6, high, 0.5, stage.folder / f"board{number}.ply")
        stage.add(f"stand@board{number}", board, wood, stage.to.translate([0, y, 0]))
    for number, (x, y) in enumerate(((-1, -1), (1, -1), (-1, 1), (1, 1))):
        leg = shapes.block(4.4, 4.4, 0.0, high - 3.5, 0.5, stage.folder / f"benchleg{number}.ply")
        stage.add(f"stand@benchleg{number}", leg, wood, stage.to.translate([x * (wide / 2 - 12), y * (deep / 2 - 6), 0]))


def skirting(stage: Stage, y: float, wide: float = 620.0, high: float = 11.0) -> None:
    """A painted board along the foot of a wall that stands at ``y``."""
    board = shapes.block(wide, 3.0, 0.0, high, 0.6, stage.folder / "skirting.ply")
    stage.add("skirting", board, stage.coat(rgb(0.62, 0.61, 0.585), 0.5, 0.1), stage.to.translate([0, y - 1.4, 0]))
