"""Rigid motions from one panel's coordinates into another's: rotation, shift and optional reflection. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]


@dataclass(frozen=True)
class Motion:
    """``x' = R(turn) · F · x + shift``, where F reflects left and right if the motion is ``flipped``.

    ``turn_deg`` is clockwise on a sheet whose y points down.
    """

    turn_deg: float = 0.0
    shift_mm: tuple[float, float] = (0.0, 0.0)
    flipped: bool = False

    @property
    def matrix(self) -> Points:
        """Return the linear part, (2, 2)."""
        a = math.radians(self.turn_deg)
        turn = np.array([[math.cos(a), -math.sin(a)], [math.sin(a), math.cos(a)]])
        return turn @ np.diag([-1.0, 1.0]) if self.flipped else turn

    @property
    def is_shift(self) -> bool:
        """Return whether the motion only shifts."""
        return not self.flipped and abs((self.turn_deg + 180) % 360 - 180) < 1e-9

    def __call__(self, points: Sequence[Sequence[float]] | Points) -> Points:
        """Apply the motion to points (n, 2)."""
        return np.asarray(points, float) @ self.matrix.T + self.shift_mm

    def then(self, after: Motion) -> Motion:
        """Return this motion followed by another."""
        x, y = after([self.shift_mm])[0]
        turn = after.turn_deg + (-self.turn_deg if after.flipped else self.turn_deg)
        return Motion(turn, (float(x), float(y)), self.flipped != after.flipped)

    def back(self) -> Motion:
        """Return the inverse motion."""
        turn = self.turn_deg if self.flipped else -self.turn_deg
        undone = Motion(turn, flipped=self.flipped)
        x, y = -undone([self.shift_mm])[0]
        return Motion(turn, (float(x), float(y)), self.flipped)

    def moved(self, right_mm: float, down_mm: float) -> Motion:
        """Return the motion with an additional shift of its result."""
        return Motion(self.turn_deg, (self.shift_mm[0] + right_mm, self.shift_mm[1] + down_mm), self.flipped)


def fitted(points: Points, onto: Points, flipped: bool = False) -> Motion:
    """Return the motion that maps points (n, 2) to their partners with the least squared error; ``flipped`` includes a
    reflection.

    Source: Arun, Huang and Blostein, "Least-Squares Fitting of Two 3-D Point Sets", IEEE PAMI 9, 1987; in the plane the turn
    follows from one arctangent.
    """
    points = Motion(flipped=flipped)(points)
    middle, target = points.mean(axis=0), onto.mean(axis=0)
    a, b = points - middle, onto - target
    turn = math.degrees(math.atan2(float((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum()), float((a * b).sum())))
    x, y = target - Motion(turn)(middle[None])[0]
    return Motion(turn, (float(x), float(y)), flipped)
