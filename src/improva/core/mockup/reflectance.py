"""Reflectance of unprinted parts: a colour, a surface, or a cloth's colour with its weave."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..colour import Floats
from ..ink import colour_reflectance
from .maps import PrintMap
from .scene import Region
from .surface import OpenSurface, seen_surface
from .view import View


@dataclass(frozen=True)
class Beneath:
    """What lies under a print on cloth.

    Attributes:
        reflectance: (3,), or (h, w, 3) in the print's window, B, G, R.
        relief: what the weave multiplies ink on it by, (h, w, 1) in the print's window; None where ink hides the weave.
    """

    reflectance: Floats
    relief: Floats | None = None


@dataclass(frozen=True)
class Reflectance:
    """Reflectance of a part at each pixel of a picture, B, G, R.

    Attributes:
        mean: of all of it, (3,); all there is of a plain colour.
        surface: of a surface, (h, w, 3), in the part of the picture that ``uv`` covers.
        relief: share of a weave's shading that ink on it shows too.
    """

    mean: Floats
    surface: Floats | None = None
    uv: PrintMap | None = None
    relief: float = 0.0

    def rows(self, rows: slice, width: int) -> Floats:
        """Return some rows of the picture, (rows, width, 3)."""
        out = np.empty((rows.stop - rows.start, width, 3), np.float32)
        out[:] = self.mean
        if self.surface is not None and self.uv is not None and (part := self.uv.window(rows)):
            inside, window = part
            cv2.copyTo(self.surface[inside], (~self.uv.far[inside]).view(np.uint8), out[window])
        return out

    def shaded(self, light: Floats, rows: slice) -> Floats:
        """Return some rows of the picture under light of shape (rows, width, 3)."""
        if self.surface is None:
            return np.asarray(cv2.transform(light, np.diag(self.mean)), np.float32)
        return light * self.rows(rows, light.shape[1])

    def beneath(self, seen: PrintMap) -> Beneath:
        """Return what lies under a print."""
        if self.surface is None or self.uv is None:
            return Beneath(self.mean)
        part = np.ascontiguousarray(self.rows(seen.rows, max(seen.columns.stop, self.uv.columns.stop))[:, seen.columns])
        if not self.relief:
            return Beneath(part)
        shading = part[..., 1:2] / max(float(self.mean[1]), 1e-6)  # a weave shades all channels alike
        return Beneath(part, np.asarray(1 + self.relief * (shading - 1), np.float32))


def reflected(view: View, region: Region, wanted: str | None, open_surface: OpenSurface) -> Reflectance:
    """Return the reflectance of a part for its colour or surface. Raises :class:`SceneError` for an unknown colour."""
    seen = view.grounds.get(region.id)
    colour, _, weave = (wanted or region.surface or region.default or "").rpartition(" ")
    surface = open_surface(weave) if seen is not None and region.size_mm is not None else None
    if surface is None and seen is not None and region.surface is not None:  # a colour of cloth leaves the cloth's own weave
        own = open_surface(region.surface)
        surface, colour = (own, wanted or "") if own is not None and own.tints else (None, "")
    if surface is None or seen is None or region.size_mm is None:  # a colour; or, without surfaces, the region's own colour
        return Reflectance(np.ascontiguousarray(colour_reflectance(region.colour(wanted))[::-1]))
    tint = colour_reflectance(region.colour(colour))[::-1] if colour or surface.tints else np.ones(3, np.float32)
    texture = seen_surface(
        surface, region.size_mm, seen, None if view.blur is None else view.blur[seen.rows, seen.columns], view.cores
    )
    if (tint != 1).any():
        cv2.multiply(texture, (*map(float, tint), 1.0), dst=texture)  # type: ignore[call-overload]
    return Reflectance(surface.mean * tint, texture, seen, surface.relief)
