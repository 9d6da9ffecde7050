"""Mugs: the handle to the right, to the left, behind; both sides; from above."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import bodies, shapes
from studio.bake import Scene
from studio.bodies import Mug
from studio.sets import GLAZE, books, grounds, part, room, studio_light, vase, window_light
from studio.stage import Stage, rgb

PRINT = {"id": "wrap", "title": "Print", "panel": "wrap"}
HANDLE = part("handle", "Handle", GLAZE)
INSIDE = part("inside", "Inside", GLAZE)
PROPS = ("table", "wall", "book", "vase", "grass", "bar")


def put_mug(stage: Stage, mug: Mug, x: float, y: float, handle_deg: float, print_: str = "wrap", more: str = "") -> None:
    """A mug with its handle at an angle of the table: 0 is to the right, 90 away, 180 to the left."""
    at = stage.to.translate([x, y, 0]) @ stage.to.rotate([0, 0, 1], handle_deg)
    gap = mug.gap_deg / 2
    glaze = (0.16, 0.6)
    stage.turned(print_, bodies.mug_print(mug), stage.coat(print_, *glaze), at, arc_deg=(gap, 360 - gap))
    stage.turned(f"shell{more}", bodies.mug_shell(mug), stage.coat(rgb(0.83, 0.825, 0.81), *glaze), at)
    stage.turned(f"inside{more}", bodies.mug_inside(mug), {"type": "twosided", "bsdf": stage.coat("inside", *glaze)}, at)
    line, half = bodies.mug_handle(mug)
    stage.add(
        f"handle{more}",
        shapes.tube(line, half, stage.folder / f"handle{more}.ply"),
        {"type": "twosided", "bsdf": stage.coat("handle", *glaze)},
        at,
    )


def one(
    mug: Mug,
    handle_deg: float,
    x: float,
    shaded: Callable[[Stage], None],
    props: bool = False,
    eye: Any = (0.0, -95.0, 23.0),
    aim_z: float = 5.0,
    fov: float = 13.4,
) -> Callable[[Stage], None]:
    """One mug on a table."""

    def build(stage: Stage) -> None:
        high = mug.height / 2
        stage.camera(eye, (0, 0, aim_z * mug.height / 9.54), fov * (mug.height / 9.54) ** 0.85, (x, -3.4, high), 0.36)
        shaded(stage)
        room(stage)
        put_mug(stage, mug, x, 0, handle_deg)
        if props:
            books(stage, (-16, 34, 0), -10)
            vase(stage, (15, 42, 0), (0.30, 0.34, 0.33))

    return build


def pair(mug: Mug) -> Callable[[Stage], None]:
    """Both sides in one picture: handles outwards."""

    def build(stage: Stage) -> None:
        stage.camera((0, -118, 30), (0, 0, 4.4 * mug.height / 9.54), 18.4 * (mug.height / 9.54) ** 0.5, (0, -3.6, 5), 0.36)
        studio_light(stage, 6, fill=2.2)
        room(stage)
        put_mug(stage, mug, -6.9, 0, 172, "wrap-1", "@1")
        put_mug(stage, mug, 6.9, 0, 8, "wrap-2", "@2")

    return build


def scenes_of(mug: Mug, name: str) -> list[Scene]:
    """All scenes of one size of mug."""
    r, h = mug.r, mug.height
    base = {"templates": [name], "finish": "gloss", "turns": False, "unprinted": True}

    def sizes(x: float) -> tuple[Any, ...]:
        return (
            ("Height", (x - r - 1.4, 0, 0), (x - r - 1.4, 0, h), 10 * h),
            ("Across", (x - r, -1, h + 1.2), (x + r, -1, h + 1.2), 20 * r),
        )

    def pack(
        ending: str, title: str, kind: str, views: dict[str, float], surface: str, wall: str, **more: Any
    ) -> dict[str, Any]:
        return {
            "id": f"{name}-{ending}",
            "title": title,
            "kind": kind,
            "views": views,
            **base,
            **more,
            "regions": [PRINT, HANDLE, INSIDE, *grounds(surface, wall)],
        }

    studio = lambda stage: studio_light(stage, 6, fill=2.2)  # noqa: E731
    window = lambda stage: window_light(stage, 5)  # noqa: E731
    both = pack("both", "Both sides", "studio", {"both sides": 0.0}, "limed", "Mist")
    both["regions"] = [
        {"id": "wrap-1", "title": "Print, left mug", "panel": "wrap", "place": "left"},
        {"id": "wrap-2", "title": "Print, right mug", "panel": "wrap", "place": "right"},
        *both["regions"][1:],
    ]
    return [
        Scene(
            pack(
                "studio",
                "On oak, studio light",
                "studio",
                {"handle right": 0.0, "handle left": 0.0},
                "oak",
                "Sand",
                mirrored=["handle left"],
                lead=True,
            ),
            one(mug, 4, -1.3, studio),
            1.0,
            PROPS,
            measures=sizes(-1.3),
            hard=True,
        ),
        Scene(
            pack("behind", "Handle behind, by the window", "lifestyle", {"handle behind": 0.0}, "walnut", "Chalk"),
            one(mug, 90, 0, window, True),
            1.25,
            PROPS,
            hard=True,
        ),
        Scene(both, pair(mug), 0.80, PROPS, hard=True),
        Scene(
            pack(
                "above",
                "From above, the inside seen",
                "lifestyle",
                {"handle right": 0.0, "handle left": 0.0},
                "linen",
                "Chalk",
                mirrored=["handle left"],
            ),
            one(mug, -14, -1.2, window, eye=(0.0, -72.0, 60.0), aim_z=4.0, fov=15.2),
            1.0,
            PROPS,
            hard=True,
        ),
    ]


SCENES = (*scenes_of(bodies.MUG_11, "mug-11oz"), *scenes_of(bodies.MUG_15, "mug-15oz"))
