"""Hoodies lying flat, front and back."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio import shapes, surfaces
from studio.bake import Scene
from studio.flatlay import Crease, Lay, Layer, arch, both, curve, joined, mirrored
from studio.sets import ground_below
from studio.stage import Stage, relief_of, rgb
from studio.wardrobe import CLOTHS

IN_MM = 25.4
CANVAS, TOP = (1120.0, 1000.0), -250.0
Mesh = tuple[NDArray[np.float32], NDArray[np.int64]]


def cloth_region(default: str = "White") -> dict[str, Any]:
    """The pack's entry of the garment itself; heather and vintage wash are laid on it at their scale."""
    return {"id": "garment", "title": "Garment", "size_mm": list(CANVAS), "default": default, "colours": CLOTHS}


def _right(points: NDArray[np.float64]) -> NDArray[np.float64]:
    return points * [-1, 1]


def hoodie(back: bool) -> list[Layer]:
    """A hoodie's layers, lowest first."""
    rng = np.random.default_rng(11 + back)
    shoulder = curve((0, 10), (110, 18), (196, 46), (246, 84))
    armhole = curve((246, 84), (252, 150), (262, 220), (284, 288))
    side = curve((284, 288), (286, 420), (282, 560), (270, 634))
    body = both(joined(shoulder, armhole[1:], side[1:], curve((270, 634), (130, 640), (0, 642))[1:]))
    rib = both(
        joined(
            curve((0, 636), (130, 634), (266, 628)),
            curve((266, 628), (268, 652), (262, 690), (252, 706))[1:],
            curve((252, 706), (120, 714), (0, 716))[1:],
        )
    )
    sleeve = joined(
        curve((228, 72), (302, 142), (376, 350), (424, 560)),
        curve((424, 560), (388, 578), (342, 584))[1:],
        curve((342, 584), (318, 470), (300, 380), (278, 284))[1:],
        curve((278, 284), (246, 180), (228, 72))[1:],
    )
    cuff = joined(
        curve((422, 556), (426, 590), (422, 632)),
        curve((422, 632), (388, 642), (352, 642))[1:],
        curve((352, 642), (346, 612), (344, 580))[1:],
        [(384, 574)],
    )
    bends = [
        Crease((s * (404 - 10 * i), 430 + 26 * i), (s * (304 + 6 * i), 400 + 44 * i), 9, 3.4) for i in range(4) for s in (1,)
    ]
    upper = [Crease((300 + 8 * i, 300 + 10 * i), (318 + 14 * i, 190 + 40 * i), 9, 2.6) for i in range(3)]
    arm = tuple(bends + upper)
    flip = tuple(Crease((-c.start[0], c.start[1] + 9), (-c.end[0], c.end[1] + 7), c.wide, c.high) for c in arm)
    under = [
        Crease((s * 272, 296 + 18 * i), (s * (190 - 34 * i), 200 + 62 * i), 10 + 2 * i, 3.8 - 0.7 * i)
        for i in range(3)
        for s in (-1, 1)
    ]
    drag = [
        Crease(
            (rng.uniform(-200, 200), rng.uniform(300, 420)),
            (rng.uniform(-220, 220), rng.uniform(440, 620)),
            rng.uniform(12, 20),
            rng.uniform(1.4, 2.4),
        )
        for _ in range(5)
    ]
    hood_out = arch((0, -230), (70, -218), (122, -164), (141, -84), (136, 0), (122, 62))
    hood = both(joined(hood_out, arch((0, 116), (60, 104), (122, 62))[::-1]))
    layers = [
        Layer("garment@sleeve-r", sleeve, 2.6, 17, 40, 1.2, creases=arm),
        Layer("garment@sleeve-l", mirrored(sleeve), 2.6, 17, 40, 1.2, creases=flip),
        Layer("garment@cuff-r", cuff, 3.0, 9, 22, 0.3, rib=-8.0),
        Layer("garment@cuff-l", mirrored(cuff), 3.0, 9, 22, 0.3, rib=8.0),
        Layer("garment@rib", rib, 3.0, 8, 24, 0.4, rib=0.0),
        Layer("garment@body", body, 2.8, 15, 60, 1.5, creases=tuple(under + drag)),
    ]
    if back:
        fold = both(
            joined(arch((0, -190), (70, -180), (126, -124), (142, -40), (128, 58)), arch((0, 112), (66, 102), (128, 58))[::-1])
        )
        seam = curve((0, -196), (1, -60), (0, 112))
        return [
            *layers,
            Layer(
                "garment@hood",
                fold,
                3.0,
                24,
                46,
                1.2,
                seams=(seam,),
                creases=(Crease((-120, 20), (120, 34), 14, 4), Crease((-90, -60), (100, -40), 18, 3.2)),
            ),
        ]
    pocket = both(
        joined(
            [(0, 448)],
            [(112, 448)],
            curve((112, 448), (140, 496), (172, 540), (184, 566))[1:],
            [(186, 634)],
            curve((186, 634), (90, 638), (0, 639))[1:],
        )
    )
    mouth = both(joined(arch((0, -146), (40, -136), (66, -86), (62, -14), (30, 58)), arch((0, 88), (16, 82), (30, 58))[::-1]))
    edge = both(joined(arch((0, -170), (56, -157), (90, -94), (86, -6), (50, 74)), arch((0, 110), (26, 100), (50, 74))[::-1]))
    mid = curve((0, -238), (1, -190), (0, -150))
    return [
        *layers,
        Layer("garment@pocket", pocket, 2.6, 5, 26, 0.5, hem=7, creases=(Crease((-80, 470), (60, 560), 14, 1.8),)),
        Layer("garment@lining", hood, 2.0, 4, 40, 0.8),
        Layer(
            "garment@hood",
            hood,
            3.0,
            36,
            40,
            0.8,
            seams=(mid,),
            hole=mouth,
            creases=(Crease((-128, -60), (-84, 40), 10, 3), Crease((130, -80), (92, 30), 10, 3)),
        ),
        Layer("garment@edge", edge, 2.6, 3.0, 9, 0.2, hem=13, hole=mouth),
    ]


@cache
def _meshes(back: bool, seed: int) -> tuple[list[tuple[str, Mesh]], NDArray[np.float64]]:
    lay = Lay(CANVAS, TOP, seed)
    return [(layer.name, lay.lay(layer)) for layer in hoodie(back)], lay.z


@cache
def knit() -> NDArray[np.float32]:
    """Knitted wales: columns of small V's."""
    n, wales = 1024, 64
    y, x = np.mgrid[0:n, 0:n] / n * wales
    rng = np.random.default_rng(6)
    x = x + 0.10 * surfaces._noise(rng, (n, n), 8, 40)
    part = np.abs((x % 1) - 0.5)
    loops = np.abs(np.sin(np.pi * (y * 1.25 + 0.9 * part)))
    return relief_of(np.cos(2 * np.pi * (part - 0.25)) * 0.5 + 0.5 * loops + 0.25 * surfaces._noise(rng, (n, n), 2, 2))


WALES = (CANVAS[0] / 55, CANVAS[1] / 55)


def from_above(stage: Stage, middle: float, span: float) -> None:
    """Camera, light from the upper left and ground for what lies flat. ``middle`` is the y in mm in the picture's centre."""
    cy = -middle / 10
    stage.camera((0, cy - 1, 260), (0, cy, 0), span, (0, cy, 1), 0.3, up=(0, 1, 0))
    stage.softbox("key", (-150, cy + 120, 120), (0, cy, 0), 90, 120, (25.0, 23.8, 22.0))
    stage.softbox("fill", (190, cy - 40, 150), (0, cy, 0), 110, 150, (2.9, 3.1, 3.4))
    stage.around(0.30, 0.30, 0.31)
    stage.table((330, 270), (0, cy, 0), 0.6)


def flat(back: bool, middle: float, span: float, seed: int) -> Callable[[Stage], None]:
    """A garment on a ground, seen from straight above."""

    def build(stage: Stage) -> None:
        from_above(stage, middle, span)
        meshes, heights = _meshes(back, seed)
        jersey = stage.cloth("garment", knit(), 0.05, WALES, 0.2)
        for name, (vertex, faces) in meshes:
            stage.add(name, shapes.write_ply(stage.folder / f"{name}.ply", vertex, faces), jersey)
        if not back:
            cords(stage, heights)

    return build


def cords(stage: Stage, heights: NDArray[np.float64]) -> None:
    """Two cords from their eyelets down the chest, with metal ends."""
    for side, points in (
        (-1, [(-47, 60), (-58, 96), (-52, 150), (-60, 205), (-56, 246)]),
        (1, [(47, 60), (60, 100), (58, 150), (72, 196), (70, 232)]),
    ):
        line = curve(*points, count=120)
        rows = ((line[:, 1] + 250) / 1.25).astype(int)
        columns = ((line[:, 0] + CANVAS[0] / 2) / 1.25).astype(int)
        z = heights[rows, columns] / 10
        z = np.convolve(np.pad(z, 12, mode="edge"), np.ones(25) / 25, "valid") + 0.28
        at = np.column_stack([line[:, 0] / 10, -line[:, 1] / 10, z])
        name = f"cords@{side}"
        stage.add(
            name,
            shapes.tube(
                at[:108], np.full((108, 2), 0.27), stage.folder / f"{name}.ply", side=(1, 0, 0), around=24, squareness=2
            ),
            stage.cloth("cords", relief_of(surfaces.weave(512, 30)), 0.05, (1, 14), 0.2),
        )
        stage.add(
            f"aglet@{side}",
            shapes.tube(
                at[106:], np.full((14, 2), 0.24), stage.folder / f"aglet{side}.ply", side=(1, 0, 0), around=24, squareness=2
            ),
            stage.coat(rgb(0.55, 0.53, 0.5), 0.25, 0.4),
        )
        x, y = points[0]
        hole = stage.to.translate([x / 10, -y / 10, float(z[0]) + 0.02])
        stage.turned(
            f"eyelet@{side}",
            shapes.profile(shapes.arc((0.42, 0.0), 0.11, -90, 180, 12)),
            stage.coat(rgb(0.55, 0.53, 0.5), 0.25, 0.4),
            hole,
        )


WIDE, LONG = 57.2, 71.6
SIZES = (
    ("Chest, lying flat", (-WIDE / 2, -LONG - 2.0, 0.5), (WIDE / 2, -LONG - 2.0, 0.5), 10 * WIDE),
    ("Length", (WIDE / 2 - 3, -0.5, 3.0), (WIDE / 2 - 3, -LONG, 3.0), 10 * LONG),
)


def _scene(back: bool, middle: float, span: float, print_top: float, trim: tuple[float, float], seed: int) -> Scene:
    panel = "back" if back else "front"
    w, h = trim[0] * IN_MM, trim[1] * IN_MM
    print_ = {
        "id": panel,
        "title": f"{panel.title()} print",
        "panel": panel,
        "on": "garment",
        "box_mm": [round(CANVAS[0] / 2 - w / 2, 2), round(print_top - TOP, 2), w, h],
    }
    cords = [{"id": "cords", "title": "Cords", "default": "White", "colours": CLOTHS}] if not back else []
    return Scene(
        {
            "id": f"hoodie-{panel}",
            "title": f"{panel.title()}, lying flat",
            "kind": "flat",
            "templates": ["hoodie"],
            "finish": "soft matte",
            "views": {panel: 0.0},
            "regions": [print_, cloth_region(), *cords, ground_below("walnut")],
        },
        flat(back, middle, span, seed),
        0.82,
        ("table",),
        measures=SIZES,
    )


SCENES = (_scene(False, 240, 31.6, 148, (12, 12), 8), _scene(True, 260, 30.8, 150, (12, 14), 9))
