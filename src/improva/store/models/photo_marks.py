"""The seller's marks on a photograph, as stored."""

from __future__ import annotations

from pydantic import Field

from ...core.mockup.photo import MOST_DABS, Dab, Marks
from .base import StoredModel

At = tuple[float, float]


class DabModel(StoredModel):
    """A round brush dab: see :class:`improva.core.mockup.photo.Dab`."""

    at: At
    reach: float = Field(gt=0, le=0.5)
    keep: bool


class MarksModel(StoredModel):
    """All marks on a photograph: see :class:`improva.core.mockup.photo.Marks`."""

    points: list[At] = Field(max_length=6)
    size_mm: At | None = None
    offset_mm: At = (0.0, 0.0)
    facing_deg: float = Field(default=0, ge=-360, le=360)
    box: tuple[float, float, float, float] | None = None
    product: list[DabModel] = Field(default_factory=list, max_length=MOST_DABS)
    front: list[DabModel] = Field(default_factory=list, max_length=MOST_DABS)
    plain: At | None = None
    colour: str = "#f2f1ed"

    def to_core(self) -> Marks:
        """The core's value."""
        product, front = (tuple(Dab(d.at, d.reach, d.keep) for d in dabs) for dabs in (self.product, self.front))
        return Marks(
            tuple(self.points), self.size_mm, self.offset_mm, self.facing_deg, self.box, product, front, self.plain, self.colour
        )
