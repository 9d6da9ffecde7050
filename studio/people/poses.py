"""How people stand: arms are led to where their hands shall be. Angles in degrees, lengths in cm."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from studio.people.body import Body, Pose

Points = NDArray[np.float64]
Place = tuple[float, float, float]

AT_SHOULDER = 0.25
"""Share of the upper arm's turn about its own length that the shoulder makes."""

STRETCHED = 0.995
"""Share of an arm's length that it is stretched to at most."""


def frame(along: Points, across: Points) -> Points:
    """Return axes (3, 3) in columns: the first along a limb, the third square to it in the plane of ``across``."""
    first = along / np.linalg.norm(along)
    third = across - first * (across @ first)
    third = third / np.linalg.norm(third)
    return np.column_stack([first, np.cross(third, first), third])


def arm(body: Body, side: str, hand: Place, elbow: Place) -> dict[str, Place]:
    """Return the turns of an arm's bones that bring its wrist to a place, by the law of cosines.

    Args:
        body: whose arm it is.
        side: ``L`` or ``R``.
        hand: where the wrist shall be, on the stage.
        elbow: direction in which the elbow points.
    """
    shoulder, bend, wrist = (body.joint(f"{bone}.{side}") for bone in ("upperarm01", "lowerarm01", "wrist"))
    upper, lower = float(np.linalg.norm(bend - shoulder)), float(np.linalg.norm(wrist - bend))
    way = np.asarray(hand, float) - shoulder
    far = min(float(np.linalg.norm(way)), STRETCHED * (upper + lower))
    ahead = way / np.linalg.norm(way)
    out = np.asarray(elbow, float) - ahead * (np.asarray(elbow, float) @ ahead)
    out /= np.linalg.norm(out)
    along = (upper**2 + far**2 - lower**2) / (2 * far)
    middle = shoulder + ahead * along + out * math.sqrt(max(upper**2 - along**2, 0.0))
    end = shoulder + ahead * far
    hinge = np.cross(middle - shoulder, end - middle)
    hinge0 = np.cross(bend - shoulder, wrist - bend)
    turn_upper = frame(middle - shoulder, hinge) @ frame(bend - shoulder, hinge0).T
    turn_lower = frame(end - middle, hinge) @ frame(wrist - bend, hinge0).T
    rest = (bend - shoulder) / upper
    swing = Rotation.align_vectors([(middle - shoulder) / upper], [rest])[0].as_matrix()
    # a shoulder hardly turns about the arm's own length: most of that turn happens along the upper arm
    twist = Rotation.from_matrix(swing.T @ turn_upper).as_rotvec(degrees=True)
    first = swing @ Rotation.from_rotvec(AT_SHOULDER * twist, degrees=True).as_matrix()
    return {
        f"upperarm01.{side}": _vector(first),
        f"upperarm02.{side}": _vector(first.T @ turn_upper),
        f"lowerarm01.{side}": _vector(turn_upper.T @ turn_lower),
    }


def _vector(turned: Points) -> Place:
    x, y, z = Rotation.from_matrix(turned).as_rotvec(degrees=True).tolist()
    return x, y, z


def standing(body: Body, hands: tuple[Place, Place], elbows: tuple[Place, Place], trunk: Pose) -> dict[str, Place]:
    """Return a pose with both wrists (left, right) at places measured from the hip's middle, and the trunk's own turns."""
    hip = body.joint("root") * [0, 0, 1]
    pose: dict[str, Place] = dict(trunk)
    for side, hand, elbow in zip("LR", hands, elbows, strict=True):
        place = hip + hand
        pose |= arm(body, side, tuple(place.tolist()), elbow)
    return pose


WEIGHT_ON_ONE_LEG: Pose = {
    "spine05": (0.0, 2.0, 0.0),
    "spine03": (0.0, -2.5, 3.0),
    "spine01": (0.0, -1.5, 2.0),
    "upperleg01.L": (0.0, 2.0, 0.0),
    "neck01": (2.0, 1.0, -4.0),
}
"""The hips lean to one side, the trunk back to the other and a little round."""


def hands_behind(body: Body) -> dict[str, Place]:
    """Hands held behind the back."""
    return standing(body, ((6.0, 17.0, 6.0), (-3.0, 18.5, 9.0)), ((1.0, 0.6, 0.0), (-1.0, 0.5, 0.1)), WEIGHT_ON_ONE_LEG)


def hands_before(body: Body) -> dict[str, Place]:
    """Hands held before the belly, as somebody seen from behind looks at a thing in them."""
    return standing(body, ((7.0, -23.0, 12.0), (-6.0, -22.0, 10.0)), ((1.0, 0.25, -0.3), (-1.0, 0.3, -0.2)), WEIGHT_ON_ONE_LEG)


def hands_down(body: Body) -> dict[str, Place]:
    """Arms hanging a little bent."""
    return standing(body, ((29.0, -6.0, -8.0), (-28.0, -4.0, -7.0)), ((0.4, 1.0, 0.0), (-0.5, 1.0, 0.0)), WEIGHT_ON_ONE_LEG)


def arms_out(body: Body) -> dict[str, Place]:
    """Arms hanging well away from the trunk, as in a thick garment."""
    return standing(body, ((37.0, -8.0, -3.0), (-36.0, -6.0, -2.0)), ((0.5, 1.0, 0.0), (-0.6, 1.0, 0.0)), WEIGHT_ON_ONE_LEG)


CURLED = ((16.0, 26.0, 16.0), (20.0, 30.0, 18.0), (25.0, 33.0, 20.0), (30.0, 34.0, 22.0))
"""How far the joints of a hand at rest are bent, degrees: index to little finger, root to tip. From memory."""

TOGETHER, THUMB_IN = 0.75, 26.0
"""Share by which spread fingers come together, and how far the thumb turns to them, degrees."""


def hand_at_rest(body: Body, side: str) -> dict[str, Place]:
    """Return the turns of a hand's bones when it hangs at rest: fingers a little bent and together."""

    def way(finger: int) -> Points:
        step = body.joint(f"finger{finger}-2.{side}") - body.joint(f"finger{finger}-1.{side}")
        return np.asarray(step / np.linalg.norm(step))

    across = body.joint(f"finger5-1.{side}") - body.joint(f"finger2-1.{side}")
    inward = np.cross(across, way(3))
    inward *= np.sign(inward @ (body.joint(f"finger1-3.{side}") - body.joint(f"wrist.{side}"))) / np.linalg.norm(inward)
    pose: dict[str, Place] = {}
    for finger, bent in zip((2, 3, 4, 5), CURLED, strict=True):
        ahead = way(finger)
        bend = np.cross(ahead, inward)
        beside = np.degrees(np.arctan2(np.cross(ahead, way(3)) @ inward, ahead @ way(3)))
        together = Rotation.from_rotvec(TOGETHER * beside * inward, degrees=True)
        for joint, angle in enumerate(bent, 1):
            turn = Rotation.from_rotvec(angle * bend / np.linalg.norm(bend), degrees=True)
            pose[f"finger{finger}-{joint}.{side}"] = _vector((turn * together if joint == 1 else turn).as_matrix())
    thumb = np.cross(way(1), way(2))
    pose[f"finger1-1.{side}"] = _vector(
        Rotation.from_rotvec(THUMB_IN * thumb / np.linalg.norm(thumb), degrees=True).as_matrix()
    )
    return pose


def at_rest(body: Body) -> dict[str, Place]:
    """Arms hanging well away from the trunk, as in a thick garment, with hands at rest."""
    return arms_out(body) | hand_at_rest(body, "L") | hand_at_rest(body, "R")
