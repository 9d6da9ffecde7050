"""Shapes of blanks: how a body's surface lies flat, and the way back."""

from .cone import Cone, cone_from_measures

__all__ = [
    "Cone",
    "cone_from_measures",
]
