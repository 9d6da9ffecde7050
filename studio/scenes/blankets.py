"""Throw blankets: flat on boards, over a seat's back with a turned corner, folded in a stack."""

from __future__ import annotations

from functools import cache
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from studio import grid_cloth, shapes, surfaces
from studio.bake import Scene
from studio.bodies import IN
from studio.sets import books, grounds, part, room, window_light
from studio.stage import Stage, relief_of, rgb

PRINT = {"id": "front", "title": "Print", "panel": "front"}
BACK = part("back", "Back", {"White": "#f1f0ec", "Cream": "#e8dfcc", "Grey": "#a9aaab"})
THICK, SPREAD = 0.45, 0.9
"""Of a blanket that hangs, and of one that lies loose, in cm."""
SEAT_Z, BACK_Z, BACK_R, SEAT_Y = 42.0, 84.0, 10.0, -58.0
Points = NDArray[np.float64]
CALM = 1.3
"""Cells over which a settled cloth is smoothed."""
PROPS = ("table", "wall", "bar", "sofa", "book", "vase", "grass")


@cache
def _pile() -> NDArray[np.float32]:
    """Fleece: a short pile brushed one way."""
    rng = np.random.default_rng(8)
    fine, coarse, brushed = (surfaces._noise(rng, (1024, 1024), *reach) for reach in ((3.2, 2.0), (10, 7), (46, 30)))
    return relief_of(fine + 0.6 * coarse + 0.9 * brushed)


def _fleece(stage: Stage, region: str, w: float, h: float) -> dict[str, Any]:
    return stage.cloth(region, _pile(), 0.05, (w / 30, h / 30), 0.35)


def _both_sides(
    stage: Stage, at: Points, w: float, h: float, thick: float = THICK, uv: Points | None = None, more: str = ""
) -> None:
    """Front and back of a blanket from its middle surface: two skins, and the hem that joins them."""
    normal = grid_cloth.normals(at)
    normal /= np.linalg.norm(normal, axis=2, keepdims=True)
    rows, columns = at.shape[:2]
    y, x = np.mgrid[0:rows, 0:columns]
    cell = float(np.linalg.norm(at[rows // 4, 1:] - at[rows // 4, :-1], axis=1).mean())
    inward = np.minimum.reduce([x, y, columns - 1 - x, rows - 1 - y]) * cell
    puff = np.sqrt(np.clip(inward / 0.5, 0, 1)) * thick / 2 - 0.10 * np.exp(-(((inward - 1.3) / 0.22) ** 2)) + 0.01
    for region, side in (("front", 1.0), ("back", -1.0)):
        skin = at + normal * (side * puff)[..., None]
        mesh = shapes.write_ply(stage.folder / f"{region}{more}.ply", *shapes.sheet(skin, uv))
        stage.add(region + more, mesh, _fleece(stage, region, w, h))


def _soft(shape: tuple[int, int], reach: float, seed: int) -> Points:
    rng = np.random.default_rng(seed)
    pad = int(3 * reach)
    field = cv2.GaussianBlur(rng.standard_normal((shape[0] + 2 * pad, shape[1] + 2 * pad)), (0, 0), reach)[pad:-pad, pad:-pad]
    return np.asarray(field / field.std())


def spread(w: float, h: float) -> Any:
    """Lying on floor boards, seen from above."""

    @cache
    def middle() -> Points:
        columns, rows = round(w * 3), round(h * 3)
        x, y = np.meshgrid(np.linspace(-w / 2, w / 2, columns), np.linspace(h / 2, -h / 2, rows))
        folds = 0.62 * _soft(x.shape, 58, 1) + 0.42 * _soft(x.shape, 24, 2) + 0.06 * _soft(x.shape, 8, 3)
        ridge = np.exp(-((_soft(x.shape, 80, 4) / 0.16) ** 2)) * np.clip(_soft(x.shape, 90, 5), 0, 1)
        z = 0.45 + np.clip(folds, -1.1, 2.2) * 1.15 + 1.6 * cv2.GaussianBlur(ridge, (0, 0), 5)
        # the nearer of two rims, without a crease where both are as near
        rim = -8 * np.logaddexp(-(w / 2 - np.abs(x)) / 8, -(h / 2 - np.abs(y)) / 8)
        near = 0.3 + 0.7 * (0.5 - 0.5 * np.cos(np.pi * np.clip(rim / 16, 0, 1)))
        z = SPREAD / 2 + np.logaddexp(0.3, 6 * z * near) / 6  # not through the boards
        wave = 0.8 * _soft(x.shape, 48, 6), 0.8 * _soft(x.shape, 48, 7)
        return np.stack([x + wave[0], y + wave[1], z], -1)

    def build(stage: Stage) -> None:
        stage.camera((0, -70, 400), (0, 0, 0), 33.5, (0, 0, 0), 0.6, up=(0, 1, 0))
        stage.softbox("key", (-300, 130, 150), (0, 0, 0), 120, 150, (26.0, 24.4, 22.2))
        stage.softbox("fill", (260, -60, 260), (0, 0, 0), 160, 200, (2.6, 2.8, 3.0))
        stage.around(0.30, 0.30, 0.31)
        stage.table((560, 430), (0, 0, 0))
        _both_sides(stage, middle(), w, h, SPREAD)

    return build


def _sofa(stage: Stage) -> None:
    """The back and the seat that the cloth was laid over, covered in a plain weave."""
    weave = stage.cloth(rgb(0.20, 0.215, 0.225), relief_of(surfaces.weave(1024, 90)), 0.05, (9, 9), 0.2)
    line = np.stack([np.linspace(-105, 105, 80), np.zeros(80), np.full(80, BACK_Z - BACK_R)], 1)
    stage.add(
        "sofa@roll", shapes.tube(line, np.full((80, 2), BACK_R), stage.folder / "roll.ply", around=96, squareness=2), weave
    )
    stage.add("sofa@back", shapes.block(210, 2 * BACK_R, 0, BACK_Z - BACK_R, 1.0, stage.folder / "back_.ply"), weave)
    for i, x in enumerate((-52.2, 52.2)):
        seat = shapes.block(104, -SEAT_Y - BACK_R + 3, SEAT_Z - 16, SEAT_Z, 4.5, stage.folder / f"seat{i}.ply")
        stage.add(f"sofa@seat{i}", seat, weave, stage.to.translate([x, (SEAT_Y - BACK_R) / 2 - 0.5, 0]))
    stage.add(
        "sofa@base",
        shapes.block(209, -SEAT_Y + 4, 8, SEAT_Z - 15, 2, stage.folder / "base.ply"),
        weave,
        stage.to.translate([0, SEAT_Y / 2, 0]),
    )


BACK_R_Z = BACK_Z - BACK_R


@cache
def _path() -> Points:
    """The way a cloth takes, (n, 2) of y and z in cm: up behind, over the back, down, out on the seat."""
    angle = np.linspace(0, np.pi, 40)
    over = np.stack([(BACK_R + 0.4) * np.cos(angle), BACK_R_Z + (BACK_R + 0.4) * np.sin(angle)], 1)
    bend = np.linspace(np.pi, 1.5 * np.pi, 20)
    turn = np.stack([-BACK_R - 0.4 - 5 + 5 + 0 * bend - 5 * (1 + np.cos(bend)), SEAT_Z + 5.4 + 5 * np.sin(bend)], 1)
    return np.concatenate([[[BACK_R + 0.4, 10.0]], over, turn, [[SEAT_Y - 30, SEAT_Z + 0.4]]])


@cache
def _draped(w: float, h: float) -> Points:
    """A blanket laid over the seat's back and let settle, some of it gathered, its near right corner turned over."""
    columns, rows = 96, round(96 * h / w)
    u, v = np.meshgrid(np.linspace(-w / 2, w / 2, columns), np.linspace(0, h, rows))
    path = _path()
    at = np.append(0, np.cumsum(np.linalg.norm(np.diff(path, axis=0), axis=1)))
    end = at[-1] - 30 + 0.5  # the seat's front edge
    # lifted over a line across its corner, before it is laid: reflected, and resting on itself
    away = 0.80 * (u - w / 2 + 27) + 0.60 * (v - h + 21)
    over = away > 0
    lu, lv = u - np.where(over, 2 * away * 0.80, 0), v - np.where(over, 2 * away * 0.60, 0)
    along = end - h + lv + 1.6 * np.sin(lu / 31 + 0.6)
    y, z = np.interp(along, at, path[:, 0]), np.interp(along, at, path[:, 1])
    dy, dz = np.interp(along + 1, at, path[:, 0]) - y, np.interp(along + 1, at, path[:, 1]) - z
    long = np.hypot(dy, dz)
    hang = np.clip(1 - np.abs(along - (at[-1] - 92)) / 44, 0, 1)
    lift = (
        1.0
        + 0.5
        + 2.0 * np.abs(hang) * np.sin(lu / 4.6 + 0.9 * np.sin(lv / 19))
        + np.where(over, 1.5 + 1.2 * np.exp(-away / 4), 0)
    )
    start = np.stack([lu * 0.94 + 1.5 * np.sin(lv / 26), y - dz / long * lift * -1, z + dy / long * lift * -1], -1)
    grid = grid_cloth.Grid(start, np.stack([u, v], -1), bend=0.16, shear=0.4)

    def push(at: Points, before: Points) -> None:
        y, z = at[..., 1], at[..., 2]
        thick = THICK / 2 + 0.12
        floor = np.where(over, SEAT_Z + thick + 1.1, SEAT_Z + thick)
        dz = z - BACK_R_Z
        far = np.hypot(y, dz)
        round_ = (dz > 0) & (far < BACK_R + thick)
        scale = np.where(round_, (BACK_R + thick) / np.maximum(far, 1e-6), 1)
        hit = round_.copy()
        y *= scale
        z[:] = np.where(round_, BACK_R_Z + dz * scale, z)
        side = (dz <= 0) & (np.abs(y) < BACK_R + thick)
        y[:] = np.where(side, np.where(y < 0, -1, 1) * (BACK_R + thick), y)
        seat = (y < -BACK_R) & (y > SEAT_Y) & (z < floor)
        z[:] = np.where(seat, floor, z)
        hit |= seat
        at[hit, :2] += (before[hit, :2] - at[hit, :2]) * 0.30

    for _ in range(150):
        grid.step(np.array([0.0, 0.0, -0.035]), 0.12, 5, push)
    # where cloth is left over it crumples from cell to cell, as no fleece does
    calm = cv2.GaussianBlur(grid.at.astype(np.float32), (0, 0), CALM, borderType=cv2.BORDER_REPLICATE)
    return grid_cloth.finer(calm.astype(np.float64), 5)


def draped(w: float, h: float) -> Any:
    """Over a seat's back."""

    def build(stage: Stage) -> None:
        stage.camera((70, -300, 150), (-6, -14, 52), 37.5, (0, -20, 60), 0.7)
        window_light(stage, 60, 1.5)
        stage.softbox("front", (-150, -260, 220), (0, 0, 60), 150, 150, (2.6, 2.6, 2.7))
        stage.table((560, 480), (0, 0, 0))
        stage.wall((700, 330), (0, 60, 150))
        _sofa(stage)
        _both_sides(stage, _draped(w, h), w, h)

    return build


def folded(w: float, h: float) -> Any:
    """Folded in a stack on a table: the print outside on top, its folds to the front."""

    @cache
    def layers() -> list[tuple[Points, Points]]:
        parts = []
        wide, deep, r = w / 3 + 1.5, h / 4, 0.78
        for i in range(3):
            z0 = 0.70 + i * (2 * r + 1.42) + r
            s = np.linspace(0, 1, 160)
            top, bend = deep, np.pi * r
            total = 2 * top + bend
            at = s * total
            y = np.where(
                at < top,
                deep / 2 - at,
                np.where(at < top + bend, -deep / 2 - r * np.sin((at - top) / r), -deep / 2 + (at - top - bend)),
            )
            z = np.where(at < top, r, np.where(at < top + bend, r * np.cos((at - top) / r), -r))
            x = np.linspace(-wide / 2, wide / 2, 200)
            rng = np.random.default_rng(10 + i)
            sag = 0.16 * _soft((160, 200), 26, 20 + i) + 0.05 * _soft((160, 200), 8, 30 + i)
            side = 1 - 0.28 * np.clip((np.abs(x) / (wide / 2) - 0.93) / 0.07, 0, 1) ** 2
            grid = np.empty((160, 200, 3))
            grid[..., 0] = x[None] + rng.normal(0, 0.35) + 0.18 * _soft((160, 200), 20, 40 + i)
            grid[..., 1] = y[:, None] + rng.normal(0, 0.3) + 0.12 * _soft((160, 200), 22, 50 + i)
            grid[..., 2] = z0 + z[:, None] * side[None] + sag * (z[:, None] > 0)
            v0 = 0.5 - (i - 2) * 0.1
            uv = np.empty((160, 200, 2))
            uv[..., 0] = 0.5 + x[None] / w
            uv[..., 1] = v0 + (at[:, None] - top) / h
            parts.append((grid, np.clip(uv, 0.001, 0.999)))
        return parts

    def build(stage: Stage) -> None:
        stage.camera((-26, -120, 58), (2.0, -2, 4.2), 31.0 if w < h else 34.5, (0, -14, 6), 0.5)  # whole in a square too
        window_light(stage, 6)
        room(stage, 120)
        for i, (grid, uv) in enumerate(layers()):
            _both_sides(stage, grid, w, h, 1.35, uv, "" if i == 2 else f"@{i}")
        books(stage, (44, 42, 0), 20)

    return build


def _scenes(template: str, w: float, h: float) -> list[Scene]:
    def pack(ending: str, title: str, kind: str, grounds_: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
        return {
            "id": f"{template}-{ending}",
            "title": title,
            "kind": kind,
            "templates": [template],
            "finish": "soft matte",
            "views": {"front": 0.0},
            "regions": [PRINT, BACK, *grounds_],
            **more,
        }

    boards = {**grounds("oak")[0], "size_mm": [5600, 4300]}
    floor = {**grounds("limed")[0], "size_mm": [5600, 4800]}
    wall = grounds("limed", "Mist")[1]
    return [
        Scene(
            pack("flat", "Flat on boards", "flat", [boards], lead=True),
            spread(w, h),
            1.0,
            PROPS,
            measures=(
                ("Width", (-w / 2, -h / 2 - 6, 1), (w / 2, -h / 2 - 6, 1), 10 * w),
                ("Height", (w / 2 + 7, -h / 2, 1), (w / 2 + 7, h / 2, 1), 10 * h),
            ),
        ),
        Scene(
            pack("draped", "Over a seat, a corner turned", "lifestyle", [floor, wall], unprinted=True),
            draped(w, h),
            0.82,
            PROPS,
        ),
        Scene(pack("folded", "Folded", "lifestyle", grounds("walnut", "Chalk")), folded(w, h), 1.0, PROPS),
    ]


SCENES = (*_scenes("blanket-upright", 50 * IN, 60 * IN), *_scenes("blanket-lying", 60 * IN, 50 * IN))
