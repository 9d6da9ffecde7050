"""What requests and answers about pictures look like."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, field_validator

from ..core.mockup.grade import Grade
from ..core.mockup.labels import INK, MOST_LETTERS, PAPER, Caption, Place
from ..core.mockup.view import LEAST_PX, MAX_PICTURE_PX
from .shapes import Shape

PictureFormat = Literal["jpg", "png", "webp"]
FilmFormat = Literal["mp4", "webp", "gif"]
MOST_SHOTS = 200


class GradeBody(Shape):
    """Light beyond the scene's own: see :class:`improva.core.mockup.grade.Grade`."""

    exposure: float = Field(default=0, ge=-2, le=2)
    warmth: float = Field(default=0, ge=-1, le=1)
    vignette: float = Field(default=0, ge=0, le=1)
    softness: float = Field(default=0, ge=0, le=1)

    def to_core(self) -> Grade:
        """The core's value."""
        return Grade(**self.model_dump())


class CaptionBody(Shape):
    """Words on every picture: see :class:`improva.core.mockup.labels.Caption`."""

    text: str = Field(min_length=1, max_length=MOST_LETTERS)
    font: str = "sans-bold"
    size: float = Field(default=0.045, ge=0.01, le=0.3)
    place: Place = "top-left"
    colour: str = INK
    plate: str | None = PAPER
    round: bool = Field(default=False, description="A round badge")
    over: bool = Field(default=False, description="It may lie over the product")

    def to_core(self) -> Caption:
        """The core's value. Raises :class:`BadOutput` and :class:`BadPlacing` for what cannot be."""
        values = self.model_dump()
        return Caption(round_=values.pop("round"), **values)


class BackdropBody(Shape):
    """A photograph of the seller's own that the product is laid on."""

    artwork_id: int = Field(description="The photograph, kept aside from the board")
    across: float = Field(default=0.5, ge=0, le=1, description="Where the product's middle stands, in picture widths")
    foot: float = Field(default=0.9, ge=0, le=1.2, description="Where its foot stands, in picture heights")
    size: float = Field(default=0.6, ge=0.05, le=1.5, description="How tall it is, in picture heights")


class ShotBody(Shape):
    """A scene and how it is seen: a named view, or an angle. Its colours come before those of the pair."""

    scene_id: str
    view: str | None = None
    angle: float | None = Field(default=None, ge=-36000, le=36000)
    colours: dict[str, str] = Field(default_factory=dict)
    measured: bool = Field(default=False, description="With its measures drawn beside it")
    close: bool = Field(default=False, description="The print from near by")


class Showing(Shape):
    """All that is chosen at the Show station: a look, when it is kept under a name."""

    shots: list[ShotBody] = Field(default_factory=list, max_length=MOST_SHOTS)
    variants: dict[str, list[str]] = Field(
        default_factory=dict, description="Colours of parts in each of which every picture is made"
    )
    sizes: list[tuple[int, int]] = Field(default_factory=lambda: [(2000, 2000)], min_length=1, max_length=6)
    format: PictureFormat = "jpg"
    grade: GradeBody = Field(default_factory=GradeBody)
    captions: list[CaptionBody] = Field(default_factory=list, max_length=8)
    clear: bool = Field(default=False, description="Only the product and its shadow, on a transparent ground")
    backdrop: BackdropBody | None = None
    sheet: bool = Field(default=False, description="A contact sheet too")
    listed: bool = Field(default=True, description="A JSON file beside them that says what each picture shows")
    places: dict[str, dict[str, int]] = Field(
        default_factory=dict, description="By scene and place, the artworks that are shown there in place of the pair's own"
    )

    @field_validator("sizes")
    @classmethod
    def can_be(cls, sizes: list[tuple[int, int]]) -> list[tuple[int, int]]:
        """Refuse sizes that no picture can have."""
        for w, h in sizes:
            if min(w, h) < LEAST_PX or w * h > MAX_PICTURE_PX:
                raise ValueError(f"a picture of {w} × {h} px cannot be made: {LEAST_PX} px a side to 25 megapixels")
        return sizes


class FilmBody(Shape):
    """A film of the blank turning once round."""

    scene_id: str
    seconds: float = Field(default=6, ge=4, le=15)
    size: tuple[int, int] = (1080, 1080)
    format: FilmFormat = "mp4"


class Finding(Shape):
    """Something about the pictures that a buyer might hold against the seller."""

    status: Literal["warn", "fail"]
    message: str


class SurfaceShape(Shape):
    """A surface that a ground can show, or a weave that a cloth can have."""

    id: str
    title: str
    use: Literal["ground", "cloth"]


class ShowState(Shape):
    """What is chosen of a pair's pictures, what can be, and what is to be said about it."""

    showing: Showing
    surfaces: list[SurfaceShape]
    findings: list[Finding]
    pictures: int = Field(description="How many will be made")


class LookShape(Shape):
    """A look as it is kept."""

    name: str
    showing: Showing
    colours: dict[str, str | None] = Field(description="Of parts, grounds and backdrops")


class LookList(Shape):
    """All looks, by name."""

    looks: list[LookShape]


class LookBody(Shape):
    """What a look keeps."""

    showing: Showing
    colours: dict[str, str | None]
