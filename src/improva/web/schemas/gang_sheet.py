"""Request and response models of the gang sheet."""

from __future__ import annotations

from pydantic import Field

from ...store.models.gang_sheet import GangItemModel, GangModel
from .common import In, Out
from .printing import JobOut


class GangPlaceOut(Out):
    """One print on a sheet."""

    item: int
    sheet: int
    box: tuple[float, float, float, float]
    turned: bool


class GangItemOut(GangItemModel):
    """A panel of a pair with its print's title, size and picture."""

    title: str
    size_mm: tuple[float, float]
    print_box: tuple[float, float, float, float] = Field(description="Where the print lies on it, in mm")
    picture: str
    mirrored: bool


class GangStateOut(Out):
    """The packed gang sheet."""

    gang: GangModel
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    items: list[GangItemOut]
    puts: list[GangPlaceOut]
    sheets_mm: list[tuple[float, float]]
    waste: float
    problem: str | None
    jobs: list[JobOut]


class GangIn(In, GangModel):
    """The gang sheet."""
