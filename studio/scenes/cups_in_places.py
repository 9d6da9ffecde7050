"""Tumblers on tables in captured places."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import bodies, places
from studio.bake import Scene
from studio.scenes.cups import (
    GLOSS,
    MATTE,
    STRAIGHT,
    TAPERED_20,
    TAPERED_30,
    TRAVEL,
    pressed_cap,
    screwed_cap,
    straw_cap,
    studio,
)
from studio.stage import Stage

Blank = tuple[Any, ...]
"""A cup, its lid, the height of its top, and the pack's entry of its template."""

SLIM: Blank = (bodies.STRAIGHT_20, straw_cap, bodies.STRAIGHT_20.lip + 0.62, STRAIGHT)
SMALL: Blank = (bodies.TAPERED_20, pressed_cap, bodies.TAPERED_20.lip + 0.3, TAPERED_20)
LARGE: Blank = (bodies.TAPERED_30, pressed_cap, bodies.TAPERED_30.lip + 0.3, TAPERED_30)
TRAVELLING: Blank = (bodies.TRAVEL, screwed_cap, bodies.TRAVEL.lip + 4.65, TRAVEL)


def _scene(
    blank: Blank,
    name: str,
    title: str,
    light: Callable[[Stage], None],
    surface: str,
    seen: tuple[float, float, float],
    exposure: float,
    aperture: float = 1.0,
    matte: bool = False,
) -> Scene:
    """One cup on a table's end; ``seen`` is the camera's height, the height it looks at and its angle of view."""
    cup, cap, top, template = blank
    eye_z, aim_z, fov = seen
    pack = {"id": name, "title": title, "kind": "lifestyle", "finish": "matte" if matte else "gloss", **template}
    return studio(
        cup,
        cap,
        pack,
        top,
        MATTE if matte else GLOSS,
        eye_z=eye_z,
        aim_z=aim_z,
        fov=fov,
        shaded=light,
        surface=surface,
        exposure=exposure,
        stands=places.slab,
        aperture=aperture,
    )


AMONG_TREES, BY_MEADOW, IN_HALL = "On a table among trees", "On a table by a meadow", "Matte, in a wide hall"
SCENES = (
    _scene(SLIM, "straight-tumbler-dawn", "On stone at dawn", places.among_rocks, "slate", (24, 13.0, 21.5), 1.0),
    _scene(SLIM, "straight-tumbler-lobby", "In a wide light room", places.in_a_lobby, "oak", (30, 13.0, 21.0), 0.95, 0.9),
    _scene(SMALL, "tapered-20-forest", AMONG_TREES, places.in_shade_of_trees, "oak", (27, 10.2, 17.0), 0.9),
    _scene(SMALL, "tapered-20-hall", IN_HALL, places.in_a_hall, "slate", (24, 9.8, 16.0), 1.0, 0.8, matte=True),
    _scene(LARGE, "tapered-30-meadow", BY_MEADOW, places.on_a_meadow, "limed", (19, 11.4, 18.6), 0.9),
    _scene(LARGE, "tapered-30-flat", "In a light room", places.in_a_flat, "marble", (28, 11.4, 18.0), 0.95, 0.9),
    _scene(TRAVELLING, "travel-tumbler-meadow", BY_MEADOW, places.on_a_meadow, "walnut", (19, 13.6, 20.6), 0.9),
    _scene(TRAVELLING, "travel-tumbler-hall", IN_HALL, places.in_a_hall, "oak", (30, 13.6, 20.4), 0.82, 0.8, matte=True),
)
