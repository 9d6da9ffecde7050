"""What each pixel of a scene shows: its region, texture coordinates, cover and distance."""

from __future__ import annotations

import math
import tempfile
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING, Any

import cv2
import numpy as np
from numpy.typing import NDArray

from studio.tracing import mitsuba

if TYPE_CHECKING:
    from studio.bake import Scene
    from studio.stage import Point, Stage

Image = NDArray[np.float32]
ROUGH_SAMPLES, COVER_SAMPLES = 4, 144

FAR_CM = 10_000.0
"""Distance of a place that is only captured light."""


@dataclass
class Seen:
    """First hits: coverage of the product (h, w); a mask a region; u, v a mapped region; distance in cm; measures in px."""

    product: Image
    regions: dict[str, NDArray[np.bool_]] = field(default_factory=dict)
    maps: dict[str, Image] = field(default_factory=dict)
    depth: Image = field(default_factory=lambda: np.zeros((0, 0), np.float32))
    lens: dict[str, float] = field(default_factory=dict)
    measures: list[dict[str, Any]] = field(default_factory=list)

    def of(self, region: str) -> NDArray[np.bool_]:
        """Where a region is seen; the whole product where its shapes have other names."""
        return self.regions.get(region, self.product > 0)


def is_shape(part: Any) -> bool:
    """Whether an entry of a scene is a thing that can be seen, not a lamp."""
    return isinstance(part, dict) and part.get("type") in ("ply", "rectangle", "sphere", "cylinder") and "emitter" not in part


class _Hits:
    def __init__(self, described: dict[str, Any]) -> None:
        self.mi = mitsuba()
        self.names = [name for name, part in described.items() if is_shape(part)]
        for name in self.names:
            described[name]["id"] = name
        self.loaded = self.mi.load_dict(described, optimize=False)  # keeps every shape its own
        self.sensor = self.loaded.sensors()[0]
        self.numbers = {shape.id(): self._numbers(self.mi.ShapePtr(shape))[0] for shape in self.loaded.shapes()}

    def _numbers(self, shapes: Any) -> NDArray[np.uint32]:
        """The numbers under which the tracer knows shapes, 0 for none: compared in one go, not by a trace for each."""
        import drjit

        return np.array(drjit.reinterpret_array(self.mi.UInt32, shapes))

    def at(self, x: Image, y: Image, lens: Image) -> tuple[Any, dict[str, NDArray[np.bool_]]]:
        """First hits through points of the film (fractions) and of the lens (2, n); and a mask a shape."""
        mi = self.mi
        ray, _ = self.sensor.sample_ray(mi.Float(0), mi.Float(0.5), mi.Point2f(x, y), mi.Point2f(lens[0], lens[1]))
        hit = self.loaded.ray_intersect(ray)
        seen = self._numbers(hit.shape)
        masks = {name: seen == self.numbers[name] for name in self.names}
        return hit, masks


def look(scene: Scene, size: tuple[int, int]) -> Seen:
    """Compute all first hits that a pack needs."""
    from studio.bake import staged

    w, h = size
    mapped = [r["id"] for r in scene.regions if "size_mm" in r or ("panel" in r and "box_mm" not in r)]
    ys, xs = (v.astype(np.float32) for v in np.divmod(np.arange(w * h), w))
    with tempfile.TemporaryDirectory() as folder:
        stage = staged(scene, size, {}, Path(folder))
        described = stage.parts
        product = _cover(_Hits(described), scene, xs, ys, size)
        lens, measures = lens_and_measures(stage, scene)
        sharp = described["sensor"]
        sharp["type"] = "perspective"
        for part in ("aperture_radius", "focus_distance"):
            sharp.pop(part, None)
        hits = _Hits(described)
        hit, masks = hits.at((xs + 0.5) / w, (ys + 0.5) / h, np.full((2, w * h), 0.5, np.float32))  # type: ignore[arg-type]
        uv = np.array(hit.uv).reshape(2, -1).T
        view = Seen(product, depth=np.where(np.isfinite(t := np.array(hit.t)), t, FAR_CM).astype(np.float32).reshape(h, w))
        for name, mask in masks.items():
            region = name.split("@")[0]
            view.regions[region] = view.regions.get(region, np.zeros((h, w), bool)) | mask.reshape(h, w)
        for region in mapped:
            here = view.regions[region].reshape(-1, 1)
            view.maps[region] = np.where(here, uv, np.nan).astype(np.float32).reshape(h, w, 2)
        view.lens, view.measures = lens, measures
    return view


def _cover(hits: _Hits, scene: Scene, xs: Image, ys: Image, size: tuple[int, int]) -> Image:
    """Return the product's share of each pixel through the whole lens: few samples inside, many along its edges."""
    w, h = size
    rng = np.random.default_rng(5)

    def sampled(where: NDArray[np.int64], samples: int) -> Image:
        total = np.zeros(len(where), np.float32)
        turn = rng.random((4, len(where)), np.float32)
        for i in range(samples):
            # a lattice that fills the square of the pixel and that of the lens evenly, shifted for each pixel
            at = (turn + np.array([[i / samples], [i * 0.7548777], [i * 0.5698403], [i * 0.8191725]], np.float32)) % 1
            _, masks = hits.at((xs[where] + at[0]) / w, (ys[where] + at[1]) / h, at[2:])
            total += np.any([m for n, m in masks.items() if n.split("@")[0] not in scene.surroundings], axis=0)
        return total / samples  # type: ignore[return-value]

    cover = sampled(np.arange(w * h), ROUGH_SAMPLES).reshape(h, w)
    edge = cv2.dilate(cover, np.ones((5, 5))) - cv2.erode(cover, np.ones((5, 5))) > 0
    where = np.flatnonzero(edge)
    cover.reshape(-1)[where] = sampled(where, COVER_SAMPLES)
    return cover


def lens_and_measures(stage: Stage, scene: Scene) -> tuple[dict[str, float], list[dict[str, Any]]]:
    """Return a pack's entries for its lens and the blank's measures."""
    return _lens(stage), [_measure(stage, *m) for m in scene.measures]


def _measure(stage: Stage, title: str, start: Point, end: Point, mm: float) -> dict[str, Any]:
    """A measure with its ends in px of the native picture."""
    return {"title": title, "mm": round(mm, 2), "from": stage.project(start), "to": stage.project(end)}


def _lens(stage: Stage) -> dict[str, float]:
    """Where the lens is sharp, how wide it is open, and px in a cm there."""
    sensor, fov = stage.parts["sensor"], stage.lens[3]
    focus = sensor["focus_distance"]
    px_cm = stage.size[0] / 2 / math.tan(math.radians(fov / 2)) / focus
    return {"focus_cm": round(focus, 2), "open_cm": sensor["aperture_radius"], "px_cm": round(px_cm, 3)}
