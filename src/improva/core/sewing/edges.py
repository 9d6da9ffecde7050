"""Stretches of panel outlines: their course, their length, and how well two of them fit together."""

from __future__ import annotations

import numpy as np
from shapely import LineString, Point, Polygon
from shapely.ops import substring

from ..errors import TemplateError
from ..template import Panel
from .motion import Motion, Points, fitted
from .seams import Edge, LaidOn, Seam, Way

OFF_MM = 1.0
"""Tolerance in mm for the end of an edge to be on the outline: the figures of templates are rounded."""

STEPS = 64


def outline(panel: Panel) -> LineString:
    """Return a panel's trim as a closed line."""
    return LineString([*panel.line(), panel.line()[0]])


def edge_line(panel: Panel, edge: Edge) -> LineString:
    """Return the stretch of the outline that an edge names, from its start to its end. Raises :class:`TemplateError`."""
    ring = outline(panel)
    places = []
    for x, y in (edge.start, edge.end, *([edge.through] if edge.through else [])):
        if ring.distance(Point(x, y)) > OFF_MM:
            raise TemplateError(f"A seam names the point {x:g}, {y:g}, which is not on the outline of '{panel.id}'.")
        places.append(ring.project(Point(x, y)))
    start, end = places[:2]
    if abs(start - end) < OFF_MM:
        raise TemplateError(f"A seam on '{panel.id}' starts where it ends: give it a length.")
    straight = substring(ring, start, end)
    low, high = sorted((start, end))
    past = list(substring(ring, high, ring.length).coords) + list(substring(ring, 0, low).coords)[1:]
    around = LineString(past if start > end else past[::-1])
    if edge.through is None:
        return min((straight, around), key=lambda line: line.length)
    return min((straight, around), key=Point(edge.through).distance)


def spaced_points(line: LineString, count: int = STEPS) -> Points:
    """Return points (count, 2) at equal distances along a line, both ends included."""
    points = [line.interpolate(share, normalized=True) for share in np.linspace(0, 1, count)]
    return np.array([(point.x, point.y) for point in points])


def pairs(seam: Seam, leader: Panel, follower: Panel, count: int = STEPS) -> tuple[Points, Points]:
    """Return points (n, 2) of the leader and the points of the follower that are sewn to them, each in mm of its own panel.

    For a panel that lies on another, they run around its whole outline.
    """
    if isinstance(seam, LaidOn):
        points = spaced_points(outline(follower), count)
        return points + seam.offset_mm, points
    return spaced_points(edge_line(leader, seam.first), count), spaced_points(edge_line(follower, seam.second), count)


def motion_of(seam: Seam, leader: Panel, follower: Panel, way: Way = "flow") -> Motion:
    """Return the motion of the follower's points on to the leader: *flow* continues the design as if the cloth were not cut;
    *mirror* reflects it at the seam."""
    if isinstance(seam, LaidOn):
        return Motion(shift_mm=seam.offset_mm)
    on, off = pairs(seam, leader, follower)
    return fitted(off, on, flipped=way == "mirror")


def length_mismatch(seam: Seam, leader: Panel, follower: Panel) -> float:
    """Return the follower's edge length minus the leader's and minus the ease, in mm; 0 for a panel that lies on another."""
    if isinstance(seam, LaidOn):
        return 0.0
    return float(edge_line(follower, seam.second).length - edge_line(leader, seam.first).length - seam.ease_mm)


def outside(seam: LaidOn, leader: Panel, follower: Panel) -> float:
    """Return the share of the follower that lies beyond the leader's edge."""
    over = Polygon([(x + seam.offset_mm[0], y + seam.offset_mm[1]) for x, y in follower.line()])
    return float(1 - over.intersection(Polygon(leader.line())).area / over.area)
