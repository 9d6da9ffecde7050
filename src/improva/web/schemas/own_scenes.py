"""Request and response models of the seller's own scenes."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...store.models.base import RowId
from ...store.models.photo_marks import At, MarksModel
from .common import In, Out


class OwnSceneStateOut(Out):
    """A scene of the seller's own with its marks and findings."""

    id: RowId
    title: str
    template: str
    template_title: str
    panel: str
    panels: dict[str, str] = Field(description="Titles of the blank's panels")
    photo_id: RowId
    px: tuple[int, int]
    marks: MarksModel
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    names: list[str] = Field(description="What the points are called")
    round: bool
    outline: list[At] = Field(description="The print's edge, in fractions of the photograph; empty where the points cannot be")
    notes: list[str] = Field(description="Flaws of the photograph, in sentences")
    problem: str | None
    key: str = Field(description="Changes with the marks: pictures of the mask and of the design are asked for with it")
    pack: str | None = Field(description="The scene's id, once it is made")


class OwnSceneLineOut(Out):
    """A scene of the seller's own in a list."""

    id: RowId
    title: str
    template: str
    photo: bool = Field(description="Whether it is a marked photograph, or came as a file")
    pack: str | None


class OwnSceneListOut(Out):
    """The seller's own scenes."""

    scenes: list[OwnSceneLineOut]


class PhotoSceneIn(In):
    """A photograph, imported aside, and the blank that it shows."""

    photo_id: RowId
    template_id: str
    panel_id: str | None = None


class PhotoMarksIn(In):
    """The marks on a photograph."""

    title: str = Field(min_length=1, max_length=80)
    panel: str
    marks: MarksModel


class OwnScenePath(BaseModel):
    """Path of a scene."""

    scene_id: RowId


class KeyQuery(BaseModel):
    """A state's key, which makes pictures cacheable."""

    key: str = ""


class DesignQuery(KeyQuery):
    """The artwork to show."""

    artwork_id: RowId
