"""A pair's mock-up settings as stored."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, field_validator

from ...core.mockup.grade import Grade
from ...core.mockup.labels import INK, MOST_LETTERS, PAPER, Caption, Place
from ...core.mockup.view import LEAST_PX, MAX_PICTURE_PX
from .base import StoredModel

MOST_SHOTS = 200


PictureFormat = Literal["jpg", "png", "webp"]
FilmFormat = Literal["mp4", "webp", "gif"]


class GradeModel(StoredModel):
    """Light beyond the scene's own: see :class:`improva.core.mockup.grade.Grade`."""

    exposure: float = Field(default=0, ge=-2, le=2)
    warmth: float = Field(default=0, ge=-1, le=1)
    vignette: float = Field(default=0, ge=0, le=1)
    softness: float = Field(default=0, ge=0, le=1)

    def to_core(self) -> Grade:
        """The core's value."""
        return Grade(**self.model_dump())


class CaptionModel(StoredModel):
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
        """The core's value. Raises :class:`OutputError` and :class:`PlacementError` for what cannot be."""
        values = self.model_dump()
        return Caption(round_=values.pop("round"), **values)


class BackdropModel(StoredModel):
    """The seller's photograph that the product is placed on."""

    artwork_id: int = Field(description="The photograph, kept aside from the board")
    across: float = Field(default=0.5, ge=0, le=1, description="Where the product's middle stands, in picture widths")
    foot: float = Field(default=0.9, ge=0, le=1.2, description="Where its foot stands, in picture heights")
    size: float = Field(default=0.6, ge=0.05, le=1.5, description="How tall it is, in picture heights")


class ShotModel(StoredModel):
    """A scene with a named view or an angle. Its colours take precedence over those of the pair."""

    scene_id: str
    view: str | None = None
    angle: float | None = Field(default=None, ge=-36000, le=36000)
    colours: dict[str, str] = Field(default_factory=dict)
    measured: bool = Field(default=False, description="With its measures drawn beside it")
    close: bool = Field(default=False, description="The print as a close-up")


class MockupSettings(StoredModel):
    """All choices of the Mock-ups station; under a name, a preset."""

    shots: list[ShotModel] = Field(default_factory=list, max_length=MOST_SHOTS)
    variants: dict[str, list[str]] = Field(
        default_factory=dict, description="Colours of parts in each of which every picture is made"
    )
    sizes: list[tuple[int, int]] = Field(default_factory=lambda: [(2000, 2000)], min_length=1, max_length=6)
    format: PictureFormat = "jpg"
    grade: GradeModel = Field(default_factory=GradeModel)
    camera: bool = Field(
        default=True, description="With glow, darker corners and grain, as a camera would; off to judge colours"
    )
    captions: list[CaptionModel] = Field(default_factory=list, max_length=8)
    clear: bool = Field(default=False, description="Only the product and its shadow, on a transparent ground")
    backdrop: BackdropModel | None = None
    sheet: bool = Field(default=False, description="A contact sheet too")
    listed: bool = Field(default=True, description="A JSON file beside them that says what each picture shows")
    places: dict[str, dict[str, int]] = Field(
        default_factory=dict, description="By scene and place, the artworks that are shown there in place of the pair's own"
    )

    @field_validator("sizes")
    @classmethod
    def can_be(cls, sizes: list[tuple[int, int]]) -> list[tuple[int, int]]:
        """Check the sizes of pictures in pixels.

        Raises :class:`ValueError` for a size that cannot be made.
        """
        for w, h in sizes:
            if min(w, h) < LEAST_PX or w * h > MAX_PICTURE_PX:
                raise ValueError(f"a picture of {w} × {h} px cannot be made: {LEAST_PX} px a side to 25 megapixels")
        return sizes


class FilmModel(StoredModel):
    """A film of the blank turning once around."""

    scene_id: str
    seconds: float = Field(default=6, ge=4, le=15)
    size: tuple[int, int] = (1080, 1080)
    format: FilmFormat = "mp4"
