"""Cut a garment from the panels of its template, and sew it along the template's seams. Lengths in cm."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from shapely import LineString, Point
from shapely.ops import substring

from improva.core.sewing.edges import edge_line
from improva.core.template import Panel as TemplatePanel
from improva.core.template import Template
from studio.cloth.mesh import Seam
from studio.cloth.panels import Panel, cut
from studio.draped.tshirt import length_of

Points = NDArray[np.float64]

MM = 0.1
CLOSE_MM = 1.5


def flat_of(panel: TemplatePanel, scale: float) -> Points:
    """Return a panel's outline (n, 2), counter-clockwise, x right and y up from the upper left corner of its trim.

    ``scale`` is a length of the finished garment against that of the cut cloth, whose edges are turned in.
    """
    at = np.array(panel.line(), float) * [MM * scale, -MM * scale]
    x, y = at.T
    area = float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))
    return at if area > 0 else at[::-1]


def sides_of(template: Template, panel: TemplatePanel, scale: float) -> dict[str, Points]:
    """Return a panel's outline as sides named ``seam.first`` and ``seam.second``; those that are not sewn are ``edge-0`` and so on."""
    outline = flat_of(panel, scale)
    ring = LineString([*outline, outline[0]])
    named: list[tuple[float, float, str]] = []
    for seam in template.seams:
        for role in ("first", "second"):
            edge = getattr(seam, role, None)
            if edge is None or edge.panel != panel.id:
                continue
            line = edge_line(panel, edge)
            ends = [ring.project(Point(x * MM * scale, -y * MM * scale)) for x, y in (line.coords[0], line.coords[-1])]
            middle = line.interpolate(0.5, normalized=True)
            inside = ring.project(Point(middle.x * MM * scale, -middle.y * MM * scale))
            low, high = min(ends), max(ends)
            start, end = (low, high) if low <= inside <= high else (high, low)
            named.append((start, end, f"{seam.id}.{role}"))
    named.sort()
    found: dict[str, Points] = {}
    close = CLOSE_MM * MM
    for number, (start, end, name) in enumerate(named):
        found[name] = _stretch(ring, start, end)
        following = named[(number + 1) % len(named)][0]
        if (following - end) % ring.length > close and (end - following) % ring.length > close:
            found[f"edge-{sum(side.startswith('edge') for side in found)}"] = _stretch(ring, end, following)
    return _closed(found)


def _stretch(ring: LineString, start: float, end: float) -> Points:
    if start < end:
        return np.array(substring(ring, start, end).coords)
    return np.array([*substring(ring, start, ring.length).coords, *list(substring(ring, 0, end).coords)[1:]])


def _closed(sides: dict[str, Points]) -> dict[str, Points]:
    """Make each side begin exactly where the last one ends."""
    names = list(sides)
    for name, after in zip(names, [*names[1:], names[0]], strict=True):
        sides[after][0] = sides[name][-1]
    return sides


def cut_from(template: Template, names: Sequence[str], scale: float, spacing: float) -> tuple[list[Panel], list[Seam]]:
    """Return the named panels of a template and the seams between them."""
    sides = {name: sides_of(template, template.panel(name), scale) for name in names}
    seams: list[Seam] = []
    counts: dict[str, dict[str, int]] = {name: {} for name in names}
    for seam in template.seams:
        first, second = getattr(seam, "first", None), getattr(seam, "second", None)
        if first is None or second is None or not {first.panel, second.panel} <= set(names):
            continue
        one, other = (first.panel, f"{seam.id}.first"), (second.panel, f"{seam.id}.second")
        count = max(3, round(max(length_of(sides[p][s]) for p, s in (one, other)) / spacing) + 1)
        for panel, side in (one, other):
            counts[panel][side] = count
        seams.append((one, other))
    panels = [cut(name, sides[name], spacing, counts[name], seed) for seed, name in enumerate(names)]
    return panels, seams
