"""Coverage of each pixel by a shape. Shapes of axis-aligned boxes are exact and cheap at any size."""

from __future__ import annotations

from functools import reduce
from itertools import pairwise

import numpy as np
import pyvips
from shapely import Polygon, box
from shapely.geometry.base import BaseGeometry

from ..template import Panel
from .lines import Region, drawn, path_of

BOX_TOLERANCE_MM2 = 1e-6


def _is_box(ring: Polygon) -> bool:
    return float(box(*ring.bounds).area - ring.area) < BOX_TOLERANCE_MM2


def _boxes(shape: BaseGeometry) -> list[tuple[int, tuple[float, float, float, float]]] | None:
    """Split a shape into boxes to add (1) and to subtract (-1); None for other shapes."""
    boxes = []
    for part in getattr(shape, "geoms", [shape]):
        if part.geom_type != "Polygon" or part.is_empty:
            continue
        for sign, ring in ((1, part.exterior), *((-1, hole) for hole in part.interiors)):
            polygon = Polygon(ring)
            if not _is_box(polygon):
                return None
            boxes.append((sign, polygon.bounds))
    return boxes


def _covered(start: float, end: float, first: int, count: int) -> np.ndarray:
    """Return the coverage of pixels between two positions on a line."""
    at = first + np.arange(count, dtype=np.float64)
    return np.asarray(np.clip(end - at, 0, 1) - np.clip(start - at, 0, 1), np.float32)


def coverage(shape: BaseGeometry, region: Region, panel: Panel, size_px: tuple[int, int]) -> pyvips.Image:
    """Return the coverage of each pixel of a region by a shape in mm of the trim: one band, 0…255.

    The cover of an upright box is the product of its cover across and down.
    """
    boxes = _boxes(shape)
    if not boxes and boxes is not None:
        return pyvips.Image.black(region[2], region[3])
    if boxes is None:
        path = f'<path d="{path_of(shape)}" fill="#000" fill-rule="evenodd"/>'
        return drawn(path, region, panel, size_px)[3]
    left, top, w, h = region
    across, down = size_px[0] / panel.file_mm[0], size_px[1] / panel.file_mm[1]
    fx, fy, *_ = panel.file_box
    rows = np.array([_covered((x0 - fx) * across, (x1 - fx) * across, left, w) for _, (x0, _, x1, _) in boxes])
    columns = np.array([s * _covered((y0 - fy) * down, (y1 - fy) * down, top, h) for s, (_, y0, _, y1) in boxes])
    # Most lines are like the one before: one line is drawn for each run of them, and repeated.
    starts = [0, *(np.flatnonzero(np.any(np.diff(columns, axis=1), axis=0)) + 1), h]
    runs = []
    for start, end in pairwise(int(v) for v in starts):
        line = np.clip(columns[:, start] @ rows * 255 + 0.5, 0, 255).astype(np.uint8)
        runs.append(pyvips.Image.new_from_array(line[None, :]).replicate(1, end - start))
    return runs[0] if len(runs) == 1 else reduce(lambda above, run: above.join(run, "vertical"), runs)
