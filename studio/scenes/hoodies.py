"""Hoodies worn by people: plain ones with a print, and ones that are printed all over."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from studio import light
from studio.bake import Scene
from studio.draped.hoodie import BLANK, CENTRE
from studio.hoodies import ASH, BIRCH, CANVAS, DAMSON, ELM, Worn
from studio.sets import pack, part
from studio.stage import Stage
from studio.wardrobe import CLOTHS, turned_round

Place = tuple[float, float, float]
Wear = Callable[[Stage, Worn, bool], None]
"""Puts a person who wears a hoodie, printed all over or not, on a stage."""

PRINTS = {"front": (12 * 25.4, 12 * 25.4, 110.0), "back": (12 * 25.4, 14 * 25.4, 95.0)}
"""Width and height of a print, and how far below the shoulder's highest point it begins, in mm."""

INK, SAND, OLIVE, SLATE = (0.030, 0.036, 0.052), (0.24, 0.20, 0.14), (0.075, 0.075, 0.045), (0.055, 0.062, 0.07)


NECK_Z = 160.8
"""Height of the base of a neck in pictures, cm: the camera stands higher for taller people."""


def _camera(stage: Stage, who: Worn, eye: Place, aim: Place, fov: float, focus: Place, aperture: float) -> None:
    more = float(who.body.joint("neck01")[2]) - NECK_Z
    up = [(x, y, z + more) for x, y, z in (eye, aim, focus)]
    stage.camera(up[0], up[1], fov, up[2], aperture)


def in_lobby(stage: Stage, who: Worn, all_over: bool) -> None:
    """Seen from the front in a wide light room with a wooden floor."""
    _camera(stage, who, (18, -372, 136), (1, 0, 118.5), 20.7, (0, -15, 132), 2.2)
    light.place(stage, "lobby", -104, (0.72, 0.70, 0.84), 1.8)
    stage.softbox("window", (-240, -160, 220), (0, 0, 122), 100, 160, (5.0, 5.6, 7.2))
    who.put(stage, INK, all_over)


def at_dawn(stage: Stage, who: Worn, all_over: bool) -> None:
    """Seen from behind, looking over rocks to hills in the last light."""
    _camera(stage, who, (-34, -372, 140), (0, 0, 118.5), 20.7, (0, -14, 132), 2.4)
    light.place(stage, "dawn", 96, (1.6, 1.68, 1.3), 1.6)
    stage.softbox("sky", (-260, -170, 300), (0, 0, 125), 150, 150, (2.7, 2.55, 2.5))
    turned_round(stage, lambda: who.put(stage, SAND, all_over))


def in_workshop(stage: Stage, who: Worn, all_over: bool) -> None:
    """Seen from beside, in a high workshop."""
    _camera(stage, who, (-165, -326, 138), (0, 0, 118.5), 20.7, (-6, -14, 128), 2.2)
    light.place(stage, "workshop", 40, (0.60, 0.62, 0.66), 2.6)
    stage.softbox("window", (170, -250, 220), (0, 0, 122), 120, 160, (7.0, 7.0, 7.0))
    who.put(stage, SLATE, all_over)


def by_meadow(stage: Stage, who: Worn, all_over: bool) -> None:
    """Seen from a little beside, at the edge of a meadow in the first sun."""
    _camera(stage, who, (88, -372, 130), (1, 0, 118.5), 20.7, (0, -15, 124), 2.2)
    light.place(stage, "sunrise", 82, 1.15, 1.6, (2.0, 1.7, 1.3), 2.5)
    stage.softbox("sky", (-220, -220, 260), (0, 0, 122), 150, 150, (3.0, 3.1, 3.3))
    who.put(stage, OLIVE, all_over)


def plain_regions(panel: str) -> list[dict[str, Any]]:
    """Return the pack's entries of a plain hoodie whose front or back is printed."""
    (x, y), (w, h, top) = CANVAS.places[panel], PRINTS[panel]
    box = [round(v, 2) for v in (x + 10 * CENTRE - w / 2, y + top, w, h)]
    print_ = {"id": panel, "title": f"{panel.title()} print", "panel": panel, "on": "garment", "box_mm": box}
    garment = {"id": "garment", "title": "Garment", "size_mm": list(CANVAS.size), "surface": "jersey", "default": "White"}
    return [print_, {**garment, "colours": CLOTHS}, part("cords", "Cords", CLOTHS)]


def all_over_regions(panel: str) -> list[dict[str, Any]]:
    """Return the pack's entries of a hoodie that is printed all over, and is seen from its front or its back."""
    seen = [p for p in BLANK.panels if p.id != "pocket" or panel == "front"]  # some of the other side is seen beside the arms
    prints = [{"id": p.id, "title": p.title, "panel": p.id, "on": "garment"} for p in seen]
    plain = {"White": "#f1f0ec", "Black": "#1a1a1c", "Grey": "#8e8f92"}
    return [
        *prints,
        {"id": "garment", "title": "Undyed cloth", "default": "White", "colours": {"White": "#f3f2ee"}},
        {**part("trim", "Ribbing", plain), "default": "Black"},
        part("inside", "Inside of the hood", plain),
        part("cords", "Cords", plain),
    ]


def _plain(ending: str, title: str, wear: Wear, who: Worn, exposure: float, panel: str) -> Scene:
    return _scene("hoodie", ending, title, panel, plain_regions(panel), lambda stage: wear(stage, who, False), exposure)


def _all_over(ending: str, title: str, wear: Wear, who: Worn, exposure: float, panel: str) -> Scene:
    return _scene(BLANK.id, ending, title, panel, all_over_regions(panel), lambda stage: wear(stage, who, True), exposure)


def _scene(
    template: str,
    ending: str,
    title: str,
    panel: str,
    regions: list[dict[str, Any]],
    build: Callable[[Stage], None],
    exposure: float,
) -> Scene:
    views, lead = {panel: 0.0}, ending == "lobby"
    told = pack(f"{template}-worn-{ending}", template, title, "lifestyle", "soft matte", views, regions, lead=lead)
    return Scene(told, build, exposure, ())


SCENES = (
    _plain("lobby", "Worn, in a light room", in_lobby, ASH, 1.0, "front"),
    _plain("dawn", "Worn, from behind, at dawn", at_dawn, ELM, 0.46, "back"),
    _plain("workshop", "Worn, in a workshop", in_workshop, BIRCH, 1.0, "front"),
    _plain("meadow", "Worn, by a meadow", by_meadow, DAMSON, 1.0, "front"),
    _all_over("lobby", "Worn, in a light room", in_lobby, DAMSON, 1.0, "front"),
    _all_over("dawn", "Worn, from behind, at dawn", at_dawn, ASH, 0.46, "back"),
    _all_over("workshop", "Worn, in a workshop", in_workshop, ELM, 1.0, "front"),
    _all_over("meadow", "Worn, by a meadow", by_meadow, BIRCH, 1.0, "front"),
)
