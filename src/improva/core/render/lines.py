"""Draw shapes on a part of a panel: generated SVG in mm, at the panel's density."""

from __future__ import annotations

import math

import pyvips
from shapely.geometry.base import BaseGeometry

from ..artwork.pixels import TRANSPARENT
from ..template import Box, Panel

Region = tuple[int, int, int, int]
"""Left, top, width and height in px of the print file."""


def region_of(box: Box, panel: Panel, size_px: tuple[int, int], spare_px: int = 2) -> Region | None:
    """Return the whole pixels around a box of the panel, within its file; None for a box outside."""
    across, down = size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1]
    x, y = box[0] - panel.file_box[0], box[1] - panel.file_box[1]
    left = max(0, math.floor(x * across) - spare_px)
    top = max(0, math.floor(y * down) - spare_px)
    right = min(size_px[0], math.ceil((x + box[2]) * across) + spare_px)
    bottom = min(size_px[1], math.ceil((y + box[3]) * down) + spare_px)
    return (left, top, right - left, bottom - top) if right > left and bottom > top else None


def drawn(body: str, region: Region, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Draw SVG elements in mm of the trim on a region: sRGB with alpha."""
    left, top, w, h = region
    across, down = panel.file_mm[0] / size_px[0], panel.file_mm[1] / size_px[1]
    x, y, *_ = panel.file_box
    view = f"{left * across + x:.6f} {top * down + y:.6f} {w * across:.6f} {h * down:.6f}"
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}" height="{h}" viewBox="{view}" preserveAspectRatio="none">'
        f"{body}</svg>"
    )
    return pyvips.Image.svgload_buffer(svg.encode(), unlimited=True).copy(interpretation="srgb")


def placed_on(image: pyvips.Image, region: Region, size_px: tuple[int, int]) -> pyvips.Image:
    """Place a region's image on the whole file, transparent elsewhere."""
    if region == (0, 0, *size_px):
        return image
    return image.embed(region[0], region[1], *size_px, extend="background", background=TRANSPARENT)


def path_of(shape: BaseGeometry) -> str:
    """Return a shape's rings as an SVG path for the even-odd rule."""
    parts = [part for part in getattr(shape, "geoms", [shape]) if part.geom_type == "Polygon" and not part.is_empty]
    rings = [ring for part in parts for ring in (part.exterior, *part.interiors)]
    return "".join("M" + "L".join(f"{x:.4f} {y:.4f}" for x, y in list(ring.coords)[:-1]) + "Z" for ring in rings)
