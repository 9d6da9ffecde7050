"""Placements as requests send them."""

from __future__ import annotations

from ...store.models.placement import FollowModel, PlacementModel
from .common import In


class PlacementIn(In, PlacementModel):
    """How a picture lies on a panel, as a request sends it."""


class FollowIn(In, FollowModel):
    """What a panel shows of another's design, as a request sends it."""
