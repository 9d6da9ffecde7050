"""A stage: camera, lights, ground and parts of one Mitsuba scene, with the reflectance to bake.

Lengths are in centimetres; x runs right, y away from the camera, z up. A shape named ``lid@2`` is one more of ``lid``.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import cv2
import mitsuba as mi
import numpy as np
from numpy.typing import NDArray

from studio import shapes

Point = Sequence[float]
STEEL = {"type": "roughconductor", "material": "Cr", "alpha": 0.16, "distribution": "ggx"}
CLEAR = 0.96
PLASTER_CM, PLASTER_DEEP = 90.0, 0.22
"""Of a plastered wall: length of its relief before it repeats, and its depth in the units of u and v."""


def rgb(*value: float) -> dict[str, Any]:
    """A plain linear colour."""
    return {"type": "rgb", "value": list(value) if len(value) == 3 else [value[0]] * 3}


def bitmap(values: NDArray[np.floating], **more: Any) -> dict[str, Any]:
    """A texture of (h, w) plain values."""
    return {"type": "bitmap", "bitmap": mi.Bitmap(np.ascontiguousarray(values[..., None], np.float32)), "raw": True, **more}


@dataclass
class Stage:
    """The elements of one render.

    Attributes:
        size: picture size in px.
        reflectance: number or texture a region; regions not named are black.
        folder: where meshes are written.
    """

    size: tuple[int, int]
    reflectance: dict[str, Any]
    folder: Path
    parts: dict[str, Any] = field(default_factory=lambda: {"type": "scene"})
    lens: tuple[Point, Point, Point, float] = ((0, -1, 0), (0, 0, 0), (0, 0, 1), 20.0)

    @property
    def to(self) -> Any:
        """A fresh transform."""
        return mi.ScalarTransform4f()

    def rho(self, region: str) -> dict[str, Any]:
        """The reflectance of a region in this render."""
        value = self.reflectance.get(region, 0.0)
        return value if isinstance(value, dict) else rgb(value)

    def coat(self, colour: Any, roughness: float = 0.3, clearcoat: float = 0.9, **more: Any) -> dict[str, Any]:
        """A painted, glazed or moulded surface; ``colour`` is a region's name or a texture."""
        return {
            "type": "principled",
            "base_color": self._colour(colour),
            "roughness": roughness,
            "specular": 0.5,
            "clearcoat": clearcoat,
            "clearcoat_gloss": CLEAR,
            **more,
        }

    def cloth(
        self,
        colour: Any,
        relief: NDArray[np.floating] | None = None,
        depth: float = 0.0,
        times: Point = (1, 1),
        sheen: float = 0.25,
    ) -> dict[str, Any]:
        """Cloth, lit from both sides: matt with a little sheen; ``relief`` is its weave, ``depth`` how deep in uv units."""
        material: dict[str, Any] = {
            "type": "principled",
            "base_color": self._colour(colour),
            "roughness": 0.85,
            "specular": 0.12,
            "sheen": sheen,
            "sheen_tint": 0.0,
        }
        if relief is not None:
            to_uv = self.to.scale([times[0], times[1], 1])
            material = {"type": "bumpmap", "arbitrary": bitmap(relief, to_uv=to_uv), "scale": depth, "bsdf": material}
        return {"type": "twosided", "bsdf": material}

    def _colour(self, colour: Any) -> Any:
        return self.rho(colour) if isinstance(colour, str) else colour

    def add(self, name: str, mesh: Path, bsdf: dict[str, Any], at: Any = None) -> None:
        """Put a mesh on the stage."""
        self.parts[name] = {"type": "ply", "filename": str(mesh), "bsdf": bsdf, **({} if at is None else {"to_world": at})}

    def turned(self, name: str, outline: shapes.Profile, bsdf: dict[str, Any], at: Any = None, **more: Any) -> None:
        """Add a solid of revolution; ``more`` goes to :func:`shapes.revolve`."""
        self.add(name, shapes.revolve(outline, self.folder / f"{name}.ply", **more), bsdf, at)

    def camera(self, eye: Point, aim: Point, fov: float, focus: Point, aperture: float = 0.4, up: Point = (0, 0, 1)) -> None:
        """A thin lens at ``eye`` with a horizontal angle of view of ``fov`` degrees, sharp at the point ``focus``."""
        ahead = (np.asarray(aim, float) - eye) / math.dist(eye, aim)
        self.lens = (eye, aim, up, fov)
        self.parts["sensor"] = {
            "type": "thinlens",
            "fov": fov,
            "fov_axis": "x",
            "aperture_radius": aperture,
            "focus_distance": float(np.dot(np.asarray(focus, float) - eye, ahead)),
            "near_clip": 1.0,
            "far_clip": 3000.0,
            "to_world": self.to.look_at(origin=list(eye), target=list(aim), up=list(up)),
            "film": {
                "type": "hdrfilm",
                "width": self.size[0],
                "height": self.size[1],
                "rfilter": {"type": "box"},
                "pixel_format": "rgb",
                "component_format": "float32",
            },
            "sampler": {"type": "independent"},
        }

    def project(self, point: Point) -> list[float]:
        """Return the position of a point in the picture, in px from its top left corner."""
        eye, aim, up, fov = self.lens
        ahead = (np.asarray(aim, float) - eye) / math.dist(eye, aim)
        right = np.cross(ahead, up)
        right /= np.linalg.norm(right)
        away = np.asarray(point, float) - eye
        scale = self.size[0] / 2 / math.tan(math.radians(fov / 2)) / float(away @ ahead)
        x, y = float(away @ right) * scale, float(away @ np.cross(right, ahead)) * scale
        return [round(self.size[0] / 2 + x, 1), round(self.size[1] / 2 - y, 1)]

    def softbox(self, name: str, at: Point, aim: Point, w: float, h: float, light: Point) -> None:
        """A lamp of w × h cm that sends ``light`` (linear R, G, B) towards ``aim``."""
        frame = self.to.look_at(origin=list(at), target=list(aim), up=[0, 0, 1]) @ self.to.scale([w / 2, h / 2, 1])
        self.parts[name] = {"type": "rectangle", "to_world": frame, "emitter": {"type": "area", "radiance": rgb(*light)}}

    def around(self, *light: float) -> None:
        """Faint light from everywhere."""
        self.parts["around"] = {"type": "constant", "radiance": rgb(*light)}

    def quad(self, name: str, corner: Point, along: Point, down: Point, bsdf: dict[str, Any]) -> None:
        """A flat piece: u runs along ``along`` from ``corner``, v along ``down``."""
        c, a, d = (np.asarray(v, float) for v in (corner, along, down))
        normal = np.cross(d, a)
        normal /= np.linalg.norm(normal)
        rows = [(*(c + a * u + d * v), *normal, u, v) for v in (0, 1) for u in (0, 1)]
        path = self.folder / f"{name}.ply"
        shapes.write_ply(path, np.array(rows, "<f4"), np.array([[0, 2, 3], [0, 3, 1]]))
        self.add(name, path, bsdf)

    def table(
        self, size: tuple[float, float], middle: Point = (0, 0, 0), roughness: float = 0.5, fixed: dict[str, Any] | None = None
    ) -> None:
        """A level ground, the region ``table``, of w × h cm; surfaces are laid on it at their real size. Or one of a ``fixed`` colour."""
        w, h = size
        x, y, z = middle
        self.quad(
            "table",
            (x - w / 2, y + h / 2, z),
            (w, 0, 0),
            (0, -h, 0),
            {
                "type": "twosided",
                "bsdf": {
                    "type": "principled",
                    "base_color": fixed or self.rho("table"),
                    "roughness": roughness,
                    "specular": 0.3,
                },
            },
        )

    def wall(
        self,
        size: tuple[float, float],
        middle: Point,
        relief: NDArray[np.floating] | None = None,
        fixed: dict[str, Any] | None = None,
    ) -> None:
        """An upright backdrop, the region ``wall``, of w × h cm, or of a ``fixed`` colour.

        ``relief`` is its plaster's height over :data:`PLASTER_CM`.
        """
        w, h = size
        x, y, z = middle
        paint: dict[str, Any] = {"type": "diffuse", "reflectance": fixed or self.rho("wall")}
        if relief is not None:
            to_uv = self.to.scale([w / PLASTER_CM, h / PLASTER_CM, 1])
            paint = {"type": "bumpmap", "arbitrary": bitmap(relief, to_uv=to_uv), "scale": PLASTER_DEEP, "bsdf": paint}
        self.quad(
            "wall",
            (x - w / 2, y, z + h / 2),
            (w, 0, 0),
            (0, 0, -h),
            {"type": "twosided", "bsdf": paint},
        )


def relief_of(cells: NDArray[np.floating]) -> NDArray[np.float32]:
    """A weave's height as a texture in 0…1 with its finest grain taken off."""
    soft = cv2.GaussianBlur(np.asarray(cells, np.float32), (0, 0), 0.7)
    return np.asarray((soft - soft.min()) / max(float(np.ptp(soft)), 1e-6), np.float32)
