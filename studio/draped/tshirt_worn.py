"""A T-shirt worn by a person. Lengths in cm; x right, y away from the viewer, z up."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from shapely import LineString, distance, points

from studio.cloth.material import JERSEY
from studio.cloth.mesh import Cloth, sew
from studio.cloth.panels import Panel
from studio.draped import tshirt
from studio.draped.tshirt import Cut
from studio.draped.worn import Motion, Wearer, dress, lens, on_seams
from studio.people import field
from studio.people.body import Body, Pose, triangles

Points = NDArray[np.float64]

SLOPE = 25.0
"""How far a sleeve points down when the shirt lies flat, degrees."""

Middle = Callable[[Points, Points], Points]
"""Depth y of the middle between both layers at places x, z."""

BELOW = 1.1
"""How far trousers keep the shirt from the skin below the waist."""

ROUND, THICK = 8.0, 3.6
"""Within so many cm of a seam the layers are drawn together; half of the gap between them elsewhere."""


def neck_point(body: Body, wide: float = tshirt.NECK) -> Points:
    """Return the place in space of a shirt's origin: the shoulders carry its neck points."""
    at = body.posed({})
    height = np.arange(body.joint("spine01")[2], body.joint("head")[2], 0.25)
    depth = body.joint("upperarm01.L")[1]
    column = np.stack([np.full_like(height, wide), np.full_like(height, depth), height], -1)
    inside = field.distances(at, triangles(body.skin), column) < 0
    return np.array([0.0, depth, height[inside].max() + 0.6])


def placed(shirt: Cut, panels: list[Panel], origin: Points, middle: Middle) -> dict[str, Points]:
    """Return where each panel's points lie before the shirt is worn: flat, its layers a little apart."""
    found = {}
    side = LineString(np.concatenate([tshirt.body_sides(shirt, "front")["right"]]))
    shoulder = LineString(tshirt.body_sides(shirt, "front")["shoulder-right"])
    wide = tshirt.cap_half(shirt)[-1, 0]
    down = np.radians(SLOPE)
    along, across = np.array([np.cos(down), -np.sin(down)]), np.array([-np.sin(down), -np.cos(down)])
    necks = {name: tshirt.body_sides(shirt, name)["neck"] for name in tshirt.DIPS}

    def gap(flat: Points) -> Points:
        right = points(np.abs(flat[:, 0]), flat[:, 1])
        return lens(np.minimum(distance(side, right), distance(shoulder, right)), ROUND, THICK)

    for panel in panels:
        flat = panel.flat
        layer = -1.0 if panel.name.endswith("front") else 1.0
        hand = -layer  # x of the flat back runs the other way
        if panel.name in ("front", "back"):
            at = np.column_stack([hand * flat[:, 0], layer * gap(flat), flat[:, 1]])
        elif panel.name.startswith("sleeve"):
            left = panel.name == "sleeve-left"
            fold = np.abs(flat[:, 0])
            where = shirt.tip + np.outer(-flat[:, 1], along) + np.outer(fold, across)
            back = (flat[:, 0] > 0) == left
            apart = lens(np.minimum(fold, np.maximum(wide - fold, 0)), ROUND, THICK)
            at = np.column_stack([(1 if left else -1) * where[:, 0], np.where(back, 1, -1) * apart, where[:, 1]])
        else:
            at = _collar_at(necks[panel.name.removeprefix("collar-")], flat, gap, layer, hand)
        found[panel.name] = at + origin
        found[panel.name][:, 1] = at[:, 1] + middle(found[panel.name][:, 0], found[panel.name][:, 2])
    return found


def _collar_at(neck: Points, flat: Points, gap: Callable[[Points], Points], layer: float, hand: float) -> Points:
    """The strip stands on the neckline, leaning inwards."""
    full = tshirt.COLLAR_PULL * tshirt.length_of(neck)
    steps = np.append(0, np.cumsum(np.linalg.norm(np.diff(neck, axis=0), axis=1)))
    along = (0.5 - flat[:, 0] / full) * steps[-1]  # the neckline runs from its right end to its left
    base = np.stack([np.interp(along, steps, neck[:, axis]) for axis in (0, 1)], axis=-1)
    inward = np.stack([-0.75 * base[:, 0] / tshirt.NECK, np.full(len(base), 0.8)], axis=-1)
    spread = gap(base)
    spot = base + inward * flat[:, 1:]
    return np.column_stack([hand * spot[:, 0], layer * spread, spot[:, 1]])


def sewn(shirt: Cut, origin: Points, middle: Middle) -> Cloth:
    """Return the shirt round a place."""
    panels = tshirt.panels(shirt)
    return sew(panels, placed(shirt, panels, origin, middle), tshirt.SEAMS, JERSEY)


def finished(shirt: Cut, cloth: Cloth) -> None:
    """Make hems and the rib collar of double cloth, and seams limp."""
    doubled = np.zeros(len(cloth.at), bool)
    numbers = {name: number for number, name in enumerate(cloth.names)}
    for name, edge in (
        ("front", -shirt.length),
        ("back", -shirt.length),
        ("sleeve-left", -shirt.sleeve),
        ("sleeve-right", -shirt.sleeve),
    ):
        chosen = cloth.panel == numbers[name]
        low = cloth.flat[chosen][..., 1] < edge + tshirt.HEM
        doubled[cloth.triangles[chosen][low]] = True
    for name in ("collar-front", "collar-back"):
        doubled[cloth.triangles[cloth.panel == numbers[name]]] = True
    cloth.double(doubled, 2)
    cloth.stiff[on_seams(cloth)] *= 0.05


def worn(shirt: Cut, body: Body, pose: Pose, motion: Motion | None = None) -> Cloth:
    """Return the shirt on a body."""
    origin = neck_point(body)
    reach = shirt.half + shirt.sleeve
    waist = body.joint("spine05")[2] + 4
    wearer = Wearer(
        body,
        pose,
        origin - np.array([reach, 26.0, shirt.length + 8]),
        origin + np.array([reach, 26.0, 14.0]),
        puffed=((waist - 6, BELOW), (waist, 0.0)),
    )
    cloth = sewn(shirt, origin, wearer.middle)
    return dress(cloth, wearer, lambda made: finished(shirt, made), motion)
