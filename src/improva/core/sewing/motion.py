"""Rigid motions of one panel into another's coordinates: turned, moved, and perhaps turned over. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]


@dataclass(frozen=True)
class Motion:
    """``x' = R(turn) · F · x + shift``, where F turns the left to the right if the motion is ``flipped``.

    ``turn_deg`` is clockwise on a sheet whose y points down.
    """

    turn_deg: float = 0.0
    shift_mm: tuple[float, float] = (0.0, 0.0)
    flipped: bool = False

    @property
    def matrix(self) -> Points:
        """The linear part, (2, 2)."""
        a = math.radians(self.turn_deg)
        turn = np.array([[math.cos(a), -math.sin(a)], [math.sin(a), math.cos(a)]])
        return turn @ np.diag([-1.0, 1.0]) if self.flipped else turn

    @property
    def is_shift(self) -> bool:
        """Whether it only moves."""
        return not self.flipped and abs((self.turn_deg + 180) % 360 - 180) < 1e-9

    def __call__(self, points: Sequence[Sequence[float]] | Points) -> Points:
        """Points (n, 2) moved."""
        return np.asarray(points, float) @ self.matrix.T + self.shift_mm

    def then(self, after: Motion) -> Motion:
        """This motion and another after it."""
        x, y = after([self.shift_mm])[0]
        turn = after.turn_deg + (-self.turn_deg if after.flipped else self.turn_deg)
        return Motion(turn, (float(x), float(y)), self.flipped != after.flipped)

    def back(self) -> Motion:
        """The motion that undoes this one."""
        turn = self.turn_deg if self.flipped else -self.turn_deg
        undone = Motion(turn, flipped=self.flipped)
        x, y = -undone([self.shift_mm])[0]
        return Motion(turn, (float(x), float(y)), self.flipped)

    def moved(self, right_mm: float, down_mm: float) -> Motion:
        """The same with its result moved."""
        return Motion(self.turn_deg, (self.shift_mm[0] + right_mm, self.shift_mm[1] + down_mm), self.flipped)


def fitted(points: Points, onto: Points, flipped: bool = False) -> Motion:
    """The motion that brings points (n, 2) nearest to their partners by least squares; ``flipped``: turned over as well.

    Source: Arun, Huang and Blostein, "Least-Squares Fitting of Two 3-D Point Sets", IEEE PAMI 9, 1987; in the plane the turn
    follows from one arctangent.
    """
    points = Motion(flipped=flipped)(points)
    middle, target = points.mean(axis=0), onto.mean(axis=0)
    a, b = points - middle, onto - target
    turn = math.degrees(math.atan2(float((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum()), float((a * b).sum())))
    x, y = target - Motion(turn)(middle[None])[0]
    return Motion(turn, (float(x), float(y)), flipped)
