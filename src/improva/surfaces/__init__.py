"""Shipped surfaces: backgrounds to stand a blank on, and weaves that shade a cloth's colour. Drawn by ``studio.surfaces``."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from importlib import resources
from typing import Literal

import cv2
import numpy as np

from ..core.colour import LINEAR_OF_BYTE
from ..core.mockup.surface import FULL, Surface


@dataclass(frozen=True)
class ShippedSurface:
    """A shipped surface with a descriptive name. ``use`` is ground or cloth; ``blurred`` marks one that was taken out of
    focus, ``relief`` how much of a weave ink on it shows."""

    id: str
    title: str
    size_mm: tuple[float, float]
    use: Literal["ground", "cloth"] = "ground"
    blurred: bool = False
    relief: float = 0.0


SURFACES: dict[str, ShippedSurface] = {
    surface.id: surface
    for surface in (
        ShippedSurface("oak", "Oiled oak", (720, 720)),
        ShippedSurface("walnut", "Dark walnut", (720, 720)),
        ShippedSurface("limed", "Limed boards", (720, 720)),
        ShippedSurface("slate", "Slate", (600, 600)),
        ShippedSurface("marble", "Pale marble", (800, 800)),
        ShippedSurface("linen", "Linen cloth", (240, 240)),
        ShippedSurface("plaster", "Limewashed wall", (1800, 1800)),
        ShippedSurface("lawn", "Lawn", (1500, 1500)),
        ShippedSurface("garden", "Garden, out of focus", (4200, 4200), blurred=True),
        ShippedSurface("jersey", "Fine knit", (45, 45), "cloth", relief=0.6),
        ShippedSurface("heather", "Heather", (160, 160), "cloth"),
        ShippedSurface("washed", "Vintage wash", (420, 420), "cloth"),
    )
}


@lru_cache(maxsize=2)
def surface(surface_id: str) -> Surface | None:
    """Return a shipped surface, or None for an unknown id."""
    known = SURFACES.get(surface_id)
    if known is None:
        return None
    file = resources.files(__name__).joinpath(f"{surface_id}.jpg").read_bytes()
    pixels = np.asarray(cv2.imdecode(np.frombuffer(file, np.uint8), cv2.IMREAD_COLOR), np.uint8)
    if known.use == "cloth":
        weave = Surface.of(known.title, LINEAR_OF_BYTE.astype(np.float32)[pixels], known.size_mm, tints=True)
        return replace(weave, relief=known.relief)
    table = (LINEAR_OF_BYTE * FULL + 0.5).astype(np.uint16).reshape(1, 256)
    return Surface.laid(known.title, np.asarray(cv2.LUT(pixels, table), np.uint16), known.size_mm, blurred=known.blurred)
