"""The pattern of a T-shirt: front, back, sleeves and a rib collar. Lengths in cm.

Every panel lies with its outer side up: x to the right and y up, as one looks at it from outside. The origin of front and back is the
middle of the neck at the height of its highest point. Measures are those of a common unisex cut, size L, lying flat: common practice,
no published source.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from studio.cloth.mesh import Seam
from studio.cloth.panels import Panel, cut
from studio.shapes import spline

Points = NDArray[np.float64]


@dataclass(frozen=True)
class Cut:
    """Measures of a T-shirt.

    Attributes:
        half: half of its width, lying flat.
        length: from the highest point of the shoulder to the hem.
        sleeve: from the shoulder's end to the sleeve's hem.
        opening: half of the circumference of the sleeve's hem.
        spacing: length of a triangle's side.
    """

    half: float = 27.0
    length: float = 72.0
    sleeve: float = 22.0
    opening: float = 16.6
    spacing: float = 0.8

    @property
    def tip(self) -> Points:
        """Where the shoulder ends, on the wearer's left of the front."""
        return np.array([self.half - 3.4, -4.8])

    @property
    def underarm(self) -> Points:
        """Where side, armhole and sleeve meet."""
        return np.array([self.half - 0.2, -26.0])


NECK = 9.2
"""Half of the neck's width."""

DIPS = {"front": 9.0, "back": 2.4}
"""Of the neckline."""

COLLAR, COLLAR_PULL = 2.2, 0.94
"""Width of the collar, and its length against that of the neckline: it is stretched when it is sewn on, so that it lies close."""

HEM = 2.2

CAP = 12.6
"""Height of the sleeve above its widest place."""


def line(*points: tuple[float, float] | Points, count: int = 60) -> Points:
    """Return a smooth line through points."""
    return spline([tuple(np.asarray(p, float)) for p in points], count)


def length_of(path: Points) -> float:
    """Return the length of a line."""
    return float(np.linalg.norm(np.diff(path, axis=0), axis=1).sum())


def mirrored(path: Points) -> Points:
    """Return a line on the other side, run the other way."""
    return (path * [-1, 1])[::-1]


def armhole(shirt: Cut) -> Points:
    """Return the armhole from the underarm up to the shoulder, on the right."""
    tip, under = shirt.tip, shirt.underarm
    return line(under, (under[0] - 2.9, under[1] + 4.0), (tip[0] - 1.3, tip[1] - 11.5), tip)


def body_sides(shirt: Cut, name: str) -> dict[str, Points]:
    """Return the outline of front or back, counter-clockwise from the left end of the hem."""
    dip, foot = DIPS[name], -shirt.length
    side = line((shirt.half + 0.2, foot), (shirt.half - 0.1, foot / 2), shirt.underarm)
    shoulder = line(shirt.tip, (NECK + 6, -1.9), (NECK, 0))
    neck = line((NECK, 0), (NECK - 1.1, -0.42 * dip), (0.55 * NECK, -0.84 * dip), (0, -dip))
    hem = line((-shirt.half - 0.2, foot), (0, foot - 0.7), (shirt.half + 0.2, foot))
    return {
        "hem": hem,
        "right": side,
        "armhole-right": armhole(shirt),
        "shoulder-right": shoulder,
        "neck": np.concatenate([neck, mirrored(neck)[1:]]),
        "shoulder-left": mirrored(shoulder),
        "armhole-left": mirrored(armhole(shirt)),
        "left": mirrored(side),
    }


def cap_half(shirt: Cut) -> Points:
    """Return half of a sleeve's upper edge, from its top to the underarm: as long as the armhole."""
    wanted = length_of(armhole(shirt))

    def at(wide: float) -> Points:
        return line((0, 0), (0.30 * wide, -0.10 * CAP), (0.66 * wide, -0.62 * CAP), (wide, -CAP))

    low, high = 5.0, 40.0
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if length_of(at(middle)) < wanted else (low, middle)
    return at(low)


def sleeve_sides(shirt: Cut) -> dict[str, Points]:
    """Return the outline of a sleeve, its upper edge above, counter-clockwise from the left end of its hem."""
    half = cap_half(shirt)
    wide, foot = half[-1, 0], -shirt.sleeve
    side = line((shirt.opening, foot), (0.5 * (shirt.opening + wide) + 0.1, (foot - CAP) / 2), (wide, -CAP))
    hem = line((-shirt.opening, foot), (0, foot - 0.5), (shirt.opening, foot))
    return {
        "hem": hem,
        "right": side,
        "cap-right": half[::-1],
        "cap-left": mirrored(half[::-1]),
        "left": mirrored(side),
    }


def collar_sides(neck: Points) -> dict[str, Points]:
    """Return the outline of a strip of rib that is sewn to a neckline with its lower edge."""
    half = COLLAR_PULL * length_of(neck) / 2
    top = half * 0.985
    corners = [(-half, 0.0), (half, 0.0), (top, COLLAR), (-top, COLLAR)]
    ends = [*corners, corners[0]]
    return {name: np.array(ends[i : i + 2]) for i, name in enumerate(("sewn", "right", "free", "left"))}


def panels(shirt: Cut) -> list[Panel]:
    """Return the panels, with as many points on the sides that are sewn together."""

    def count(path: Points) -> int:
        return max(2, round(length_of(path) / shirt.spacing) + 1)

    front = body_sides(shirt, "front")
    counts = {
        **{f"armhole-{s}": count(armhole(shirt)) for s in ("left", "right")},
        **{f"cap-{s}": count(armhole(shirt)) for s in ("left", "right")},
        **{f"shoulder-{s}": count(front["shoulder-right"]) for s in ("left", "right")},
        **{s: count(front["right"]) for s in ("left", "right")},
    }
    made = [cut(name, body_sides(shirt, name), shirt.spacing, counts, seed) for seed, name in enumerate(DIPS)]
    under = {s: count(sleeve_sides(shirt)["right"]) for s in ("left", "right")}
    for seed, name in enumerate(("sleeve-left", "sleeve-right")):
        made.append(cut(name, sleeve_sides(shirt), shirt.spacing, counts | under, 4 + seed))
    for seed, name in enumerate(DIPS):
        neck = body_sides(shirt, name)["neck"]
        ends = dict.fromkeys(("left", "right"), 4)
        along = dict.fromkeys(("sewn", "free"), len(made[seed].sides["neck"]))
        made.append(cut(f"collar-{name}", collar_sides(neck), shirt.spacing, ends | along, 8 + seed))
    return made


SEAMS: list[Seam] = [
    (("front", "right"), ("back", "left")),
    (("front", "left"), ("back", "right")),
    (("front", "shoulder-right"), ("back", "shoulder-left")),
    (("front", "shoulder-left"), ("back", "shoulder-right")),
    (("sleeve-left", "left"), ("sleeve-left", "right")),
    (("sleeve-right", "left"), ("sleeve-right", "right")),
    (("front", "armhole-right"), ("sleeve-left", "cap-left")),
    (("back", "armhole-left"), ("sleeve-left", "cap-right")),
    (("front", "armhole-left"), ("sleeve-right", "cap-right")),
    (("back", "armhole-right"), ("sleeve-right", "cap-left")),
    (("front", "neck"), ("collar-front", "sewn")),
    (("back", "neck"), ("collar-back", "sewn")),
    (("collar-front", "right"), ("collar-back", "left")),
    (("collar-front", "left"), ("collar-back", "right")),
]
"""Sides that are sewn together, each pair run against each other."""
