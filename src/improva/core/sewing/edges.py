"""Stretches of outlines: where they run, how long they are, and how well two of them lie on each other."""

from __future__ import annotations

import numpy as np
from shapely import LineString, Point, Polygon
from shapely.ops import substring

from ..errors import TemplateError
from ..template import Panel
from .motion import Motion, Points, fitted
from .seams import Edge, LaidOn, Seam, Way

OFF_MM = 1.0
"""How far from the outline an edge's end may be written: figures are rounded."""

STEPS = 64


def outline(panel: Panel) -> LineString:
    """A panel's trim as a closed line."""
    return LineString([*panel.line(), panel.line()[0]])


def run(panel: Panel, edge: Edge) -> LineString:
    """The stretch of the outline that an edge names, from its start to its end. Raises :class:`TemplateError`."""
    ring = outline(panel)
    places = []
    for x, y in (edge.start, edge.end):
        if ring.distance(Point(x, y)) > OFF_MM:
            raise TemplateError(f"A seam names the point {x:g}, {y:g}, which is not on the outline of '{panel.id}'.")
        places.append(ring.project(Point(x, y)))
    start, end = places
    if abs(start - end) < OFF_MM:
        raise TemplateError(f"A seam on '{panel.id}' starts where it ends: give it a length.")
    straight = substring(ring, start, end)
    low, high = sorted(places)
    past = list(substring(ring, high, ring.length).coords) + list(substring(ring, 0, low).coords)[1:]
    around = LineString(past if start > end else past[::-1])
    return min((straight, around), key=lambda line: line.length)


def spaced(line: LineString, count: int = STEPS) -> Points:
    """Points (count, 2) at even shares of a line's length, both ends among them."""
    points = [line.interpolate(share, normalized=True) for share in np.linspace(0, 1, count)]
    return np.array([(point.x, point.y) for point in points])


def pairs(seam: Seam, leader: Panel, follower: Panel, count: int = STEPS) -> tuple[Points, Points]:
    """Points (n, 2) of the leader and those of the follower that come to lie on them, each on its own panel.

    Of what lies on another, they run round all of its outline.
    """
    if isinstance(seam, LaidOn):
        points = spaced(outline(follower), count)
        return points + seam.offset_mm, points
    return spaced(run(leader, seam.first), count), spaced(run(follower, seam.second), count)


def motion_of(seam: Seam, leader: Panel, follower: Panel, way: Way = "flow") -> Motion:
    """Where the follower's points lie on the leader: to *flow*, as if the cloth were not cut, flat and with the print up; to
    *mirror*, over the leader's own print, which is then seen turned over past the seam.
    """
    if isinstance(seam, LaidOn):
        return Motion(shift_mm=seam.offset_mm)
    on, off = pairs(seam, leader, follower)
    return fitted(off, on, flipped=way == "mirror")


def agrees(seam: Seam, leader: Panel, follower: Panel) -> float:
    """By how much the follower's edge is longer than the leader's and its ease together, in mm; 0 of what lies on."""
    if isinstance(seam, LaidOn):
        return 0.0
    return float(run(follower, seam.second).length - run(leader, seam.first).length - seam.ease_mm)


def outside(seam: LaidOn, leader: Panel, follower: Panel) -> float:
    """Share of the follower that hangs over the leader's edge."""
    over = Polygon([(x + seam.offset_mm[0], y + seam.offset_mm[1]) for x, y in follower.line()])
    return float(1 - over.intersection(Polygon(leader.line())).area / over.area)
