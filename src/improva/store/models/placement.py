"""Placements, and links to other panels, as stored."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, TypeAdapter

from ...core.design import PanelContent, Placement
from ...core.sewing.seams import Follow
from .base import StoredModel

FitName = Literal["cover", "contain", "actual", "stretch", "repeat"]


RepeatName = Literal["grid", "half-drop", "brick", "mirror"]


LayName = Literal["bent", "flat"]


WayName = Literal["alone", "flow", "mirror"]


class PlacementModel(StoredModel):
    """A placement; lengths in mm, rotation clockwise in degrees."""

    fit: FitName
    shift_mm: tuple[float, float]
    scale: float
    rotate_deg: float
    background: str | None
    repeat_kind: RepeatName = "grid"
    repeats_around: int | None = None
    spacing_mm: float = 0.0
    blend: float = 0.0
    copies: int = 1
    lay: LayName = "bent"
    roll_mm: float = 0.0
    brightness: float = 0.0
    saturation: float = 0.0
    white_point: float = 255.0

    def to_core(self) -> Placement:
        """The core's value. Raises :class:`PlacementError`."""
        return Placement(**self.model_dump())

    @classmethod
    def of(cls, placement: Placement) -> PlacementModel:
        """From the core's value."""
        return cls(**{name: getattr(placement, name) for name in cls.model_fields})


class FollowModel(StoredModel):
    """A link of a panel to another panel's design past a seam."""

    seam: str = Field(max_length=80)
    way: WayName

    def to_core(self) -> Follow:
        """The core's value."""
        return Follow(self.seam, self.way)


PANEL_CONTENT: TypeAdapter[PlacementModel | FollowModel] = TypeAdapter(PlacementModel | FollowModel)
"""The content of a panel: a placement of its own, or the panel that it follows."""


def content_model(content: PanelContent | None) -> PlacementModel | FollowModel | None:
    """Return a panel's content as stored and sent; None for an empty panel."""
    if content is None:
        return None
    if isinstance(content, Follow):
        return FollowModel(seam=content.seam, way=content.way)
    return PlacementModel.of(content)
