"""What requests and answers about a seller's own scenes look like."""

from __future__ import annotations

from flask_openapi3 import FileStorage
from pydantic import BaseModel, Field

from ..core.mockup.photo import MOST_DABS, Dab, Marks
from .shapes import Shape

At = tuple[float, float]


class DabBody(Shape):
    """A round touch: see :class:`improva.core.mockup.photo.Dab`."""

    at: At
    reach: float = Field(gt=0, le=0.5)
    keep: bool


class MarksBody(Shape):
    """What is marked on a photograph: see :class:`improva.core.mockup.photo.Marks`."""

    points: list[At] = Field(max_length=6)
    size_mm: At | None = None
    offset_mm: At = (0.0, 0.0)
    facing_deg: float = Field(default=0, ge=-360, le=360)
    box: tuple[float, float, float, float] | None = None
    product: list[DabBody] = Field(default_factory=list, max_length=MOST_DABS)
    front: list[DabBody] = Field(default_factory=list, max_length=MOST_DABS)
    plain: At | None = None
    colour: str = "#f2f1ed"

    def to_core(self) -> Marks:
        """The core's value."""
        product, front = (tuple(Dab(d.at, d.reach, d.keep) for d in dabs) for dabs in (self.product, self.front))
        return Marks(tuple(self.points), self.size_mm, self.offset_mm, self.facing_deg, self.box, product, front, self.plain,
                     self.colour)  # fmt: skip


class OwnSceneState(Shape):
    """A scene of the seller's own, as it is marked, and what is to be said about it."""

    id: int
    title: str
    template: str
    template_title: str
    panel: str
    panels: dict[str, str] = Field(description="Titles of the blank's panels")
    photo_id: int
    px: tuple[int, int]
    marks: MarksBody
    names: list[str] = Field(description="What the points are called")
    round: bool
    outline: list[At] = Field(description="The print's edge, in fractions of the photograph; empty where the points cannot be")
    said: list[str]
    problem: str | None
    key: str = Field(description="Changes with the marks: pictures of the mask and of the design are asked for with it")
    pack: str | None = Field(description="The scene's id, once it is made")


class OwnSceneLine(Shape):
    """A scene of the seller's own in a list."""

    id: int
    title: str
    template: str
    photo: bool = Field(description="Whether it is a marked photograph, or came as a file")
    pack: str | None


class OwnSceneList(Shape):
    """The seller's own scenes."""

    scenes: list[OwnSceneLine]


class BeginBody(Shape):
    """A photograph, kept aside from the board, and the blank it shows."""

    photo_id: int
    template_id: str
    panel_id: str | None = None


class MarkBody(Shape):
    """What is marked now."""

    title: str = Field(min_length=1, max_length=80)
    panel: str
    marks: MarksBody


class OwnScenePath(BaseModel):
    """Which scene."""

    scene_id: int


class KeyQuery(BaseModel):
    """A state's key: pictures may be kept under it."""

    key: str = ""


class DesignQuery(KeyQuery):
    """Which artwork is shown."""

    artwork_id: int


class PackForm(BaseModel):
    """A scene pack's ZIP, as a form's part named ``file``."""

    file: FileStorage
