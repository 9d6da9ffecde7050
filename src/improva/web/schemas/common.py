"""Request and response models of several resources. The page's TypeScript types are generated from these schemas."""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal, Self

from flask_openapi3 import FileStorage
from pydantic import AfterValidator, BaseModel, Field, model_validator

from ...app.progress import PairState
from ...store.models.base import RowId

StatusName = Literal["pass", "warn", "fail"]
RouteName = Literal["press", "upload"]


PAIR_AT = "/api/pairs/<int:artwork_id>/<template_id>"


HIDDEN = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069]")
"""Characters that are not text: control characters but tab and line ends, and those that reverse the order of what follows
(Unicode Standard Annex 9, 2.1 to 2.6). A title with one would read otherwise than it is."""


def _refuse_hidden(value: Any) -> None:
    """Refuse hidden characters in the texts of a request. Raises :class:`ValueError`."""
    if isinstance(value, str) and (found := HIDDEN.search(value)):
        raise ValueError(f"the text holds a hidden character (U+{ord(found[0]):04X}): remove it")
    if isinstance(value, dict):
        for name, part in value.items():
            _refuse_hidden(name)
            _refuse_hidden(part)
    elif isinstance(value, list | tuple):
        for part in value:
            _refuse_hidden(part)


def _visible(text: str) -> str:
    _refuse_hidden(text)
    return text


VisibleText = Annotated[str, AfterValidator(_visible)]
"""A text without hidden characters, in an address."""


class In(BaseModel):
    """Base of request models. Unknown keys are refused at any depth, so that typing errors do not go unnoticed, and so are hidden
    characters."""

    @model_validator(mode="before")
    @classmethod
    def refuse_hidden_characters(cls, value: Any) -> Any:
        """Refuse hidden characters in any text of the request. Raises :class:`ValueError`."""
        _refuse_hidden(value)
        return value

    @classmethod
    def model_validate(cls, obj: Any, **options: Any) -> Self:
        """Validate a request's value. Raises :class:`pydantic.ValidationError` also for unknown keys."""
        return super().model_validate(obj, **{"extra": "forbid", **options})


class Out(BaseModel):
    """Base of response models."""


class UploadForm(BaseModel):
    """A form with one file, as its part ``file``."""

    file: FileStorage


class PairPath(BaseModel):
    """Path of a pair: an artwork on a blank."""

    artwork_id: RowId
    template_id: str


class PanelQuery(BaseModel):
    """A panel of the blank; the first one by default."""

    panel: str | None = None


class EditQuery(BaseModel):
    """What an edit is based on."""

    based_on: VisibleText | None = Field(
        default=None, max_length=64, description="The key of the state that was edited; without it, any state is replaced"
    )


class PanelEditQuery(PanelQuery, EditQuery):
    """A panel of the blank, and what an edit of it is based on."""


class ArtworkOut(Out):
    """An artwork on the board."""

    id: RowId
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
    """A part of a scene with a variable colour."""

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
    """A scene for a blank."""

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
    """A fix: its button's label, and its changes to the placement or a piece."""

    label: str
    placement: dict[str, object]
    piece: int | None = Field(default=None, description="Which piece it changes, where it changes one")
    values: dict[str, object] = Field(default_factory=dict)


class CheckOut(Out):
    """The result of one check."""

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
    """The preflight report of a panel."""

    placed_mm: tuple[float, float, float, float]
    effective_dpi: tuple[float, float]
    verdict: StatusName
    checks: list[CheckOut]
    pieces: list[tuple[float, float, float, float] | None] = Field(description="Where each extra lies")
    calm_roll_mm: float | None = Field(
        description="The roll at which the seam of a wrap lies in the calmest place; None where it cannot be rolled"
    )
    cut_lines: list[list[tuple[float, float]]] = Field(description="Where a shape is cut out round its artwork, mm of the trim")


class CellOut(Out):
    """A pair on the board."""

    artwork_id: RowId
    template_id: str
    fitted: bool
    pictured: bool
    printed: bool
    pressed: bool
    listed: bool
    state: PairState = Field(description="The next thing to do")
    verdict: StatusName | None = Field(description="None while it has not been judged")
    blocker: str | None = Field(description="The gravest finding, in a few words")
    open: int = Field(description="How many findings there are")
    shown: str = Field(description="Address of the cell's picture; it changes when the picture does")


class BoardBlankOut(Out):
    """A blank in the board's header."""

    id: str
    title: str
    kind: str
    size_mm: tuple[float, float]
    panels: int


class BoardOut(Out):
    """The range board; cells are fetched row by row."""

    artworks: list[ArtworkOut]
    templates: list[BoardBlankOut]


class BoardRowOut(Out):
    """The cells of one artwork, one per blank."""

    cells: list[CellOut]


class PairStatesOut(Out):
    """The states of an artwork's pairs by blank."""

    artwork_id: RowId
    states: dict[str, PairState]


class BoardStatesOut(Out):
    """How far each pair of the board has come."""

    artworks: list[PairStatesOut]


class ChoicesIn(In):
    """The route, and the mock-up's angle and colours."""

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
    """A made file for download."""

    name: str
    url: str
    bytes: int
    about: str = Field(description="Its pixels, pages or files, in a few words")
