"""The 20 oz straight tumbler with lid and straw on an oak table, in two soft boxes and a window's fill."""

from __future__ import annotations

import math
from pathlib import Path
from typing import Any

import mitsuba as mi
import numpy as np

from . import shapes, surfaces

CM_PER_IN = 2.54
RADIUS = 9.3 * CM_PER_IN / (2 * math.pi)
FOOT = 0.55  # coated, unprinted, below the wrap
WRAP = 8.2 * CM_PER_IN
TOP = FOOT + WRAP
STEEL = 0.62  # bare steel band under the lid

PACK: dict[str, Any] = {
    "id": "straight-tumbler-studio",
    "title": "Straight tumbler on oak, studio light",
    "kind": "studio",
    "templates": ["tumbler-20oz-straight"],
    "views": {"front": 0.0, "right": 90.0, "back": 180.0, "left": -90.0},
    "turns": True,
    "camera": "85 mm look, 0.9 m away, 11 degrees above level, focus on the print",
    "finish": "gloss",
    "surroundings": ["table", "wall"],
    "regions": [
        {"id": "wrap", "title": "Print", "panel": "wrap"},
        {"id": "lid", "title": "Lid", "default": "Snow",
         "colours": {"Snow": "#f2f1ed", "Ink": "#1d1f23", "Pine": "#2f4a3e", "Rowan": "#a8322b"}},
        {"id": "straw", "title": "Straw", "default": "Snow",
         "colours": {"Snow": "#f2f1ed", "Ink": "#1d1f23", "Pine": "#2f4a3e", "Rowan": "#a8322b"}},
    ],
}  # fmt: skip
EXPOSURE = 1.16


def _plastic(colour: Any, roughness: float, clearcoat: float) -> dict[str, Any]:
    return {"type": "principled", "base_color": colour, "roughness": roughness, "specular": 0.5,
            "clearcoat": clearcoat, "clearcoat_gloss": 0.96}  # fmt: skip


def _outlines() -> dict[str, shapes.Profile]:
    r, edge = RADIUS, 0.32
    lip = TOP + STEEL
    rim = 0.11
    out = r + 0.10
    lid_top = lip + 0.62
    return {
        "foot": shapes.profile([(0.05, 0.09), (r - 0.75, 0.09), (r - 0.55, 0.0)],
                               shapes.arc((r - edge, edge), edge, -90, 0), [(r, FOOT)]),
        "wrap": shapes.profile([(r, FOOT), (r, TOP)]),
        "steel": shapes.profile([(r - 0.012, TOP), (r - 0.03, lip - rim)], shapes.arc((r - rim, lip - rim), rim, 0, 180),
                                [(r - 2 * rim, lip - 2.0)]),
        "lid": shapes.profile([(r - 0.30, lip - 0.1), (r - 0.30, lip + 0.06), (out - 0.08, lip + 0.06)],
                              shapes.arc((out - 0.08, lip + 0.14), 0.08, -90, 0, 5),
                              shapes.arc((out - 0.17, lid_top - 0.17), 0.17, 0, 90, 8),
                              shapes.arc((out - 0.52, lid_top - 0.10), 0.10, 90, 180, 5),
                              shapes.arc((out - 0.72, lid_top - 0.30), 0.10, 0, -90, 5),
                              [(1.05, lid_top - 0.40)], shapes.arc((0.95, lid_top - 0.30), 0.10, -90, -180, 5),
                              [(0.85, lid_top - 0.14)], shapes.arc((0.77, lid_top - 0.14), 0.08, 0, 90, 5),
                              [(0.0, lid_top - 0.06)]),
        "grommet": shapes.profile(shapes.arc((0.42, 0.0), 0.10, -90, 90, 9), [(0.33, 0.1), (0.33, -0.1)]),
        "straw": shapes.profile([(0.31, -6.0), (0.31, 4.4)], shapes.arc((0.285, 4.4), 0.025, 0, 180, 6), [(0.26, 1.0)]),
    }  # fmt: skip


def scene(size: tuple[int, int], reflectance: dict[str, Any], folder: Path) -> dict[str, Any]:
    """The Mitsuba scene with the given reflectance (number or texture dict) a region."""

    def grey(region: str) -> Any:
        value = reflectance.get(region, 0.0)
        return value if isinstance(value, dict) else {"type": "rgb", "value": [value] * 3}

    t = mi.ScalarTransform4f
    mesh = {name: str(shapes.revolve(o, folder / f"{name}.ply")) for name, o in _outlines().items()}
    lean = t().translate([0.35, 0.2, TOP + STEEL + 0.3]) @ t().rotate([0, 1, 0], 7.5) @ t().rotate([1, 0, 0], -3)
    oak, rough = surfaces.oak(min(4096, 2 * size[0]), min(4096, 2 * size[0]))
    wall = surfaces.plaster()
    to_planks = t().rotate([0, 0, 1], 90) @ t().scale([2.3, 0.7, 1])  # the grain runs away from the camera

    def ply(name: str, bsdf: dict[str, Any], **more: Any) -> dict[str, Any]:
        return {"type": "ply", "filename": mesh[name], "bsdf": bsdf, **more}

    def bitmap(pixels: Any, raw: bool = False) -> dict[str, Any]:
        pixels = np.ascontiguousarray(pixels if pixels.ndim == 3 else pixels[..., None])
        linear = pixels if raw else np.where(pixels <= 0.04045, pixels / 12.92, ((pixels + 0.055) / 1.055) ** 2.4)
        return {"type": "bitmap", "bitmap": mi.Bitmap(linear.astype(np.float32)), "raw": True}

    def panel(origin: list[float], target: list[float], w: float, h: float, rgb: list[float]) -> dict[str, Any]:
        frame = t().look_at(origin=origin, target=target, up=[0, 0, 1]) @ t().scale([w / 2, h / 2, 1])
        return {"type": "rectangle", "to_world": frame,
                "emitter": {"type": "area", "radiance": {"type": "rgb", "value": rgb}}}  # fmt: skip

    steel = {"type": "roughconductor", "material": "Cr", "alpha": 0.16, "distribution": "ggx"}
    aim = [0.0, 0.0, 13.0]
    eye = [0.0, -118.0, 33.0]
    return {
        "type": "scene",
        "sensor": {
            "type": "thinlens", "fov": 20.3, "fov_axis": "x", "aperture_radius": 0.42,
            "focus_distance": math.dist(eye, [0, -2.2, 12]), "near_clip": 1.0, "far_clip": 2000.0,
            "to_world": t().look_at(origin=eye, target=aim, up=[0, 0, 1]),
            "film": {"type": "hdrfilm", "width": size[0], "height": size[1], "rfilter": {"type": "box"},
                     "pixel_format": "rgb", "component_format": "float32"},
            "sampler": {"type": "independent"},
        },
        "wrap": ply("wrap", _plastic(grey("wrap"), 0.30, 0.9)),
        "foot": ply("foot", _plastic({"type": "rgb", "value": [0.80, 0.80, 0.79]}, 0.30, 0.9)),
        "steel": ply("steel", {"type": "twosided", "bsdf": steel}),
        "lid": ply("lid", {"type": "twosided", "bsdf": _plastic(grey("lid"), 0.28, 0.35)}),
        "grommet": ply("grommet", _plastic(grey("straw"), 0.35, 0.1), to_world=lean @ t().translate([0, 0, 0.3])),
        "straw": ply("straw", {"type": "twosided", "bsdf": _plastic(grey("straw"), 0.25, 0.5)}, to_world=lean),
        "table": {"type": "rectangle", "to_world": t().translate([0, 6, 0]) @ t().scale([110, 58, 1]),
                  "bsdf": {"type": "principled", "roughness": {**bitmap(rough, raw=True), "to_uv": to_planks}, "specular": 0.4,
                           "base_color": {**bitmap(oak), "to_uv": to_planks}}},
        "wall": {"type": "rectangle",
                 "to_world": t().translate([0, 150, 60]) @ t().rotate([1, 0, 0], 90) @ t().scale([260, 160, 1]),
                 "bsdf": {"type": "diffuse", "reflectance": {**bitmap(wall), "to_uv": t().scale([3, 2, 1])}}},
        "key": panel([-76, -46, 46], [0, 0, 12], 40, 78, [17.0, 15.7, 14.2]),
        "fill": panel([74, 6, 34], [0, 0, 12], 16, 84, [5.4, 5.8, 6.4]),
        "top": panel([-14, 34, 84], [0, 6, 6], 44, 24, [4.2, 4.1, 4.0]),
        "wash": panel([-90, 80, 110], [10, 150, 30], 50, 50, [15.0, 14.2, 13.0]),
        "around": {"type": "constant", "radiance": {"type": "rgb", "value": [0.13, 0.135, 0.145]}},
    }  # fmt: skip
