"""A hoodie: the panels of the all-over template with ribbed hem and cuffs, worn with its hood down.

Lengths in cm; x right, y away from the viewer, z up. Ribbing: common practice, no published source.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray
from shapely import LineString, distance, points

from improva.catalogue import template
from studio.cloth.material import FLEECE
from studio.cloth.mesh import Cloth, Seam, sew
from studio.cloth.panels import Panel, cut
from studio.draped.from_template import cut_from, sides_of
from studio.draped.tshirt import length_of
from studio.draped.tshirt_worn import neck_point
from studio.draped.worn import Motion, Wearer, dress, lens, on_seams
from studio.people.body import Body, Pose
from studio.people.poses import arm

Points = NDArray[np.float64]
Middle = Callable[[Points, Points], Points]

BLANK = template("hoodie-all-over")
SCALE = 0.95
"""Of a cut panel's length in the finished garment, whose edges are turned in."""

CLOTH = replace(FLEECE, thickness=0.12)
"""Fleece that is pressed together gives way: its layers come nearer than they lie when they are free."""

CUT = ("front", "back", "sleeve-left", "sleeve-right", "hood-left", "hood-right")
RIB, CUFF = 6.5, 6.5
RIB_PULL, CUFF_PULL = 0.80, 0.84
"""Height of the ribbing at hem and sleeves, and its length against that of the edge it is sewn to."""

CENTRE = 30.0 * SCALE
"""Of front and back, from the left edge of their trim."""

SLEEVE_MIDDLE = 23.0 * SCALE
SLOPE = 8.5
"""How far sleeves point down when the hoodie lies flat, degrees: their caps are shallow."""

PULL = np.array([0.0, 700.0, 0.0])
"""Acceleration that draws the hood back, cm/s²."""

SPACING = 1.5
MOTION = Motion(45, 100, 60, 25)

LEANING = 35.0
"""How far the hood leans back at first, degrees."""

ROUND, THICK = 9.0, 4.2
NECK = 7.5 * SCALE


def panels(spacing: float) -> tuple[list[Panel], list[Seam]]:
    """Return all panels and seams: those of the template, and strips of rib at hem and cuffs."""
    made, seams = cut_from(BLANK, CUT, SCALE, spacing)
    by_name = {panel.name: panel for panel in made}

    def strip(name: str, on: str, pull: float, height: float, seed: int) -> Panel:
        edge = by_name[on].sides["edge-0"]
        long = pull * length_of(by_name[on].flat[edge])
        corners = [(0.0, 0.0), (long, 0.0), (long, height), (0.0, height), (0.0, 0.0)]
        sides = {side: np.array(corners[i : i + 2]) for i, side in enumerate(("free", "right", "sewn", "left"))}
        ends = max(4, round(height / spacing) + 1)
        return cut(name, sides, spacing, {"sewn": len(edge), "free": len(edge), "right": ends, "left": ends}, seed)

    for seed, (name, on) in enumerate((("rib-front", "front"), ("rib-back", "back"))):
        made.append(strip(name, on, RIB_PULL, RIB, 20 + seed))
        seams.append(((on, "edge-0"), (name, "sewn")))
    seams += [(("rib-front", "right"), ("rib-back", "left")), (("rib-front", "left"), ("rib-back", "right"))]
    for seed, side in enumerate(("left", "right")):
        made.append(strip(f"cuff-{side}", f"sleeve-{side}", CUFF_PULL, CUFF, 24 + seed))
        seams.append(((f"sleeve-{side}", "edge-0"), (f"cuff-{side}", "sewn")))
        seams.append(((f"cuff-{side}", "right"), (f"cuff-{side}", "left")))
    return made, seams


def placed(made: list[Panel], origin: Points, middle: Middle) -> dict[str, Points]:
    """Return where each panel's points lie before the hoodie is worn: flat, its layers a little apart, the hood upright."""
    front = sides_of(BLANK, BLANK.panel("front"), SCALE)
    closed = [LineString(front[name] - [CENTRE, 0]) for name in ("side-left.first", "shoulder-left.first")]
    tip = front["shoulder-left.first"][0] - [CENTRE, 0]
    foot = -70.0 * SCALE

    def gap(x: Points, y: Points) -> Points:
        at = points(np.abs(x), y)
        return lens(np.minimum(distance(closed[0], at), distance(closed[1], at)), ROUND, THICK)

    found = {}
    for panel in made:
        x, y = panel.flat.T
        name = panel.name
        if name in ("front", "back", "rib-front", "rib-back"):
            layer = -1.0 if name.endswith("front") else 1.0
            if name.startswith("rib"):
                x, y = (x - x.max() / 2) / RIB_PULL, y - y.max() + foot
                spread = gap(x, np.full_like(x, foot))
            else:
                x = x - CENTRE
                spread = gap(x, y)
            at = np.column_stack([-layer * x, layer * spread, y]) + origin
            at[:, 1] += middle(at[:, 0], at[:, 2]) - origin[1]
        elif name.startswith(("sleeve", "cuff")):
            at = _sleeve_at(name, x, y, tip, origin, middle)
        else:
            at = _hood_at(name, panel, origin)
        found[name] = at
    return found


def _sleeve_at(name: str, x: Points, y: Points, tip: Points, origin: Points, middle: Middle) -> Points:
    """A sleeve is folded along its middle."""
    left = name.endswith("left")
    if name.startswith("cuff"):
        x, y = (x - x.max() / 2) / CUFF_PULL, y - y.max() - 60.0 * SCALE
        wide = np.full_like(x, np.abs(x).max())
    else:
        x = x - SLEEVE_MIDDLE
        # from the underarm's width to that of the hem
        wide = np.interp(y, [-60.0 * SCALE, -10.5 * SCALE, 0.0], [12.0 * SCALE, SLEEVE_MIDDLE, SLEEVE_MIDDLE])
    down = np.radians(SLOPE)
    along, across = np.array([np.cos(down), -np.sin(down)]), np.array([-np.sin(down), -np.cos(down)])
    fold = np.abs(x)
    where = tip + np.outer(-y, along) + np.outer(fold, across)
    back = (x > 0) == left
    apart = lens(np.minimum(fold, np.maximum(wide - fold, 0)), ROUND, THICK)
    at = np.column_stack([(1 if left else -1) * where[:, 0], np.zeros_like(x), where[:, 1]]) + origin
    at[:, 1] = middle(at[:, 0], at[:, 2]) + np.where(back, 1, -1) * apart
    return at


def _hood_at(name: str, panel: Panel, origin: Points) -> Points:
    """A half of the hood: leaning back beside the neck's place, its lower edge on the neckline."""
    left = name == "hood-left"
    x, y = panel.flat.T
    from_face = x if left else 29.0 * SCALE - x
    crown = panel.flat[panel.sides["hood.first" if left else "hood.second"]]
    neck = panel.sides["neck-left-front.second" if left else "neck-right-front.second"]
    throat = panel.flat[neck[0] if left else neck[-1]]
    near = np.minimum(distance(LineString(crown), points(x, y)), np.linalg.norm(panel.flat - throat, axis=1))
    out = lens(np.asarray(near), ROUND, NECK + 0.5)
    high = y + 35.4
    dip = np.where(from_face < 13.3, 9.5 * (1 - from_face / 13.3) ** 2, 2.8 * ((from_face - 13.3) / 8) ** 2)
    drop = dip * np.clip(1 - high / 18, 0, 1)
    back, up = np.sin(np.radians(LEANING)), np.cos(np.radians(LEANING))
    return np.column_stack([(1 if left else -1) * out, 0.62 * (from_face - 13.3) + back * high, up * high - drop]) + origin


def raised(body: Body, origin: Points) -> dict[str, tuple[float, float, float]]:
    """Return a pose whose arms lie in the middle of the sleeves of a hoodie that lies flat."""
    down = np.radians(SLOPE)
    reach, below = 56.0, 6.5
    x = 0.5 * 32.6 * SCALE + 7.0 + reach * np.cos(down) - below * np.sin(down)
    z = -6.0 * SCALE - reach * np.sin(down) - below * np.cos(down)
    pose: dict[str, tuple[float, float, float]] = {}
    for side, sign in (("L", 1.0), ("R", -1.0)):
        hand = origin + np.array([sign * x, 0.0, z])
        pose |= arm(body, side, (float(hand[0]), float(hand[1]), float(hand[2])), (0.0, 1.0, -0.2))
    return pose


def finished(cloth: Cloth) -> None:
    """Make ribbing, the hood's edge and the pocket's place of double cloth, and seams limp."""
    doubled = np.zeros(len(cloth.at), bool)
    for number, name in enumerate(cloth.names):
        mine = cloth.panel == number
        corners = cloth.flat[mine]
        if name.startswith(("rib", "cuff")):
            doubled[cloth.triangles[mine]] = True
        elif name == "front":
            low, high = np.array([13.0, -64.0]) * SCALE, np.array([47.0, -44.0]) * SCALE
            doubled[cloth.triangles[mine][((corners > low) & (corners < high)).all(axis=2)]] = True
        elif name.startswith("hood"):
            face = corners[..., 0] if name == "hood-left" else 29.0 * SCALE - corners[..., 0]
            doubled[cloth.triangles[mine][face < 3.0]] = True
    cloth.double(doubled, 1.7)
    cloth.stiff[on_seams(cloth)] *= 0.08


def worn(body: Body, pose: Pose, spacing: float = SPACING, motion: Motion = MOTION) -> Cloth:
    """Return the hoodie on a body, its hood down."""
    made, seams = panels(spacing)
    origin = neck_point(body, NECK + 1.5)
    waist = body.joint("spine05")[2] + 4
    wearer = Wearer(
        body,
        pose,
        origin - np.array([82.0, 30.0, 82.0]),
        origin + np.array([82.0, 44.0, 26.0]),
        first=raised(body, origin),
        keys=26,
        bridged=2.5,
        puffed=((waist - 6, 1.0), (waist, 0.0)),
        nape=(float(body.joint("neck01")[1]) + 6.0, float(origin[2]) + 2.5),
    )
    cloth = sew(made, placed(made, origin, wearer.middle), seams, CLOTH)
    return dress(cloth, wearer, finished, motion, PULL, refined=False)
