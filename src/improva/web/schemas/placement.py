"""Request models of placements."""

from __future__ import annotations

from ...store.models.placement import FollowModel, PlacementModel
from .common import In


class PlacementIn(In, PlacementModel):
    """A placement of an artwork on a panel."""


class FollowIn(In, FollowModel):
    """A link of a panel to another panel's design."""
