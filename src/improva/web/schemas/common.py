"""What requests and answers look like. The page's TypeScript types are generated from these."""

from __future__ import annotations

from typing import Any, Literal, Self

from flask_openapi3 import FileStorage
from pydantic import BaseModel, Field

StatusName = Literal["pass", "warn", "fail"]
RouteName = Literal["press", "upload"]


PAIR_AT = "/api/pairs/<int:artwork_id>/<template_id>"


class In(BaseModel):
    """What a request sends. A key that is not known is refused at any depth, so that a mistyped one is not lost in silence."""

    @classmethod
    def model_validate(cls, obj: Any, **options: Any) -> Self:
        """Validate a request's value. Raises :class:`pydantic.ValidationError` also for unknown keys."""
        return super().model_validate(obj, **{"extra": "forbid", **options})


class Out(BaseModel):
    """What is answered."""


class UploadForm(BaseModel):
    """A form with one file, as its part ``file``."""

    file: FileStorage


class PairPath(BaseModel):
    """Which artwork on which blank."""

    artwork_id: int
    template_id: str


class PanelQuery(BaseModel):
    """Which panel of the blank; its first where none is named."""

    panel: str | None = None


class ArtworkOut(Out):
    """An artwork on the board."""

    id: int
    title: str
    file_name: str
    sha256: str
    px: tuple[int, int]
    tagged_dpi: tuple[float, float] | None
    mode: str
    has_alpha: bool
    vector: bool
    notes: list[str]
    enlarged: float = Field(description="How many times its pixels were stretched")
    steps: int = Field(description="How many preparing steps are on")
    noted: bool = Field(description="Whether it is noted where it comes from")


class RegionOut(Out):
    """A part of a scene whose colour may change."""

    id: str
    title: str
    panel: str | None
    colours: dict[str, str]
    default: str | None
    surface: str | None
    shows: Literal["colour", "ground", "cloth"] = Field(description="What it can be given: only colours, surfaces, weaves")
    place: str | None
    around: bool = Field(description="A ground or backdrop, not a part of what is sold")


class SceneOut(Out):
    """A scene that a blank can be shown in."""

    id: str
    title: str
    kind: str
    templates: list[str]
    views: dict[str, float]
    turns: bool
    px: tuple[int, int]
    regions: list[RegionOut]
    mirrored: list[str] = Field(description="Views that show the scene the other way round")
    finish: str
    measures: int = Field(description="How many measures can be drawn beside the blank")
    photograph: bool = Field(description="Made of a photograph of the seller's own")


class FixOut(Out):
    """A mend: what the button says and what it changes of the placement."""

    label: str
    placement: dict[str, object]
    piece: int | None = Field(default=None, description="Which piece it changes, where it changes one")
    values: dict[str, object] = Field(default_factory=dict)


class CheckOut(Out):
    """The answer of one check."""

    id: str
    title: str
    status: StatusName
    measured: float | None
    limit: float | None
    unit: str
    message: str
    why: str
    fix: FixOut | None
    more: list[FixOut]
    where: list[tuple[float, float, float, float]]


class PanelReportOut(Out):
    """The judgement of a placement."""

    placed_mm: tuple[float, float, float, float]
    effective_dpi: tuple[float, float]
    verdict: StatusName
    checks: list[CheckOut]
    pieces: list[tuple[float, float, float, float] | None] = Field(description="Where each extra lies")


class CellOut(Out):
    """One artwork on one blank, as the board shows it."""

    artwork_id: int
    template_id: str
    fitted: bool
    pictured: bool
    printed: bool
    pressed: bool
    listed: bool
    verdict: StatusName | None = Field(description="None while it has not been judged")
    blocker: str | None = Field(description="The gravest finding, in a few words")
    open: int = Field(description="How many findings there are")
    shown: str = Field(description="Address of the cell's picture; it changes when the picture does")


class BoardBlankOut(Out):
    """A blank as the board's head shows it."""

    id: str
    title: str
    kind: str
    size_mm: tuple[float, float]
    panels: int


class BoardOut(Out):
    """What is on the range board; cells come row by row."""

    artworks: list[ArtworkOut]
    templates: list[BoardBlankOut]


class BoardRowOut(Out):
    """The cells of one artwork, a blank each."""

    cells: list[CellOut]


class ChoicesIn(In):
    """Route, and how the mock-up stands."""

    route: RouteName
    angle: float = Field(ge=-36000, le=36000)
    colours: dict[str, str | None]


class FindingOut(Out):
    """A finding on a listing or its mock-ups; see :class:`improva.core.findings.Finding`."""

    status: Literal["warn", "fail"]
    message: str
    subject: str
    measured: float | None
    limit: float | None


class MadeFileOut(Out):
    """A file that has been made and can be fetched."""

    name: str
    url: str
    bytes: int
    about: str = Field(description="Its pixels, pages or files, in a few words")
