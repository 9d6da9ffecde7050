"""Request and response models of sewing."""

from __future__ import annotations

from pydantic import Field

from ...store.models.base import RowId
from ...store.models.placement import FollowModel, PlacementModel, WayName
from .common import In, Out

Point = tuple[float, float]


class SeamStateOut(Out):
    """A seam, its course, and how well the design continues over it."""

    id: str
    title: str
    leader: str
    follower: str
    lies_on: bool
    on: list[Point] = Field(description="Along the leader's edge, in mm of its trim; of what lies on, its outline there")
    off: list[Point] = Field(description="What is sewn to it, in mm of the follower's trim")
    known: list[Point] = Field(description="Two points of what lies on, in mm of its trim, that are found again on a sample")
    way: WayName
    off_mm: float | None = Field(description="How far the design is off at worst; null where both sides have their own")
    delta_e: float | None = Field(description="How far colours are apart along it, the median; null where a side is empty")
    runs_on: bool | None = Field(description="Whether it runs on within the sewing tolerance")


class SewnPanelOut(Out):
    """A panel's position in a face: x' = a x + c y + e, y' = b x + d y + f, in mm."""

    panel: str
    matrix: tuple[float, float, float, float, float, float]
    content: PlacementModel | FollowModel | None = Field(description="What it carries, as its flat is asked for")
    design: tuple[float, float, float, float, float, float] = Field(
        description="From its trim to that of the panel whose design it shows"
    )


class FaceStateOut(Out):
    """One side of the sewn product, lying flat."""

    title: str
    panels: list[SewnPanelOut] = Field(description="In the order they are laid down")


class CalibrationOut(Out):
    """A calibration from a sample."""

    id: RowId
    provider: str
    seam: str
    right_mm: float
    down_mm: float
    sample: str
    made_on: str


class SewingStateOut(Out):
    """The seams and faces of a pair."""

    faces: list[FaceStateOut]
    seams: list[SeamStateOut]
    tolerance_mm: float
    provider: str
    corrections: dict[str, Point] = Field(description="By seam, what holds now: mm right and down")
    calibrations: list[CalibrationOut]


class CalibrationIn(In):
    """The total offset of a seam's follower from its nominal place."""

    provider: str = Field(default="", max_length=80)
    seam: str = Field(max_length=80)
    right_mm: float = Field(ge=-200, le=200, allow_inf_nan=False)
    down_mm: float = Field(ge=-200, le=200, allow_inf_nan=False)
    sample: str = Field(default="", max_length=200)


class SamplePointsIn(In):
    """Points marked on a photograph of a sample, in fractions of its width and height."""

    seam: str = Field(max_length=80)
    px: tuple[int, int] = Field(description="The photograph's pixels")
    known: tuple[Point, Point] = Field(description="The two points of the follower that the answer to 'sewing' names")
    on: Point = Field(description="Where a line of the design meets the edge, beside the follower")
    off: Point = Field(description="Where the same line goes on, upon the follower")


class SampleShiftOut(Out):
    """The offset of a follower measured on a sample."""

    right_mm: float
    down_mm: float


class SewnByIn(In):
    """The provider who sews the blank."""

    provider: str = Field(max_length=80)
