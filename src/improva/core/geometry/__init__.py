"""Geometry of blanks: developing a body's surface on to a plane, and back."""

from .cone import Cone, cone_from_measures

__all__ = [
    "Cone",
    "cone_from_measures",
]
