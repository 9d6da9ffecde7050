"""What requests and answers look like. The page's TypeScript types are generated from these."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from ..core.design import Laying, Placing
from ..core.sewing.seams import Follow

StatusName = Literal["pass", "warn", "fail"]
FitName = Literal["cover", "contain", "actual", "stretch", "repeat"]
RepeatName = Literal["grid", "half-drop", "brick", "mirror"]
LayName = Literal["bent", "flat"]
RouteName = Literal["press", "upload"]
WayName = Literal["alone", "flow", "mirror"]


class Shape(BaseModel):
    """A body whose unknown keys are errors, not silently dropped."""

    model_config = ConfigDict(extra="forbid")


class PairPath(BaseModel):
    """Which artwork on which blank."""

    artwork_id: int
    template_id: str


class PanelQuery(BaseModel):
    """Which panel of the blank; its first where none is named."""

    panel: str | None = None


class PlacingBody(Shape):
    """How a picture lies on a panel; lengths in mm, turns clockwise in degrees."""

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

    def to_core(self) -> Placing:
        """The core's value. Raises :class:`BadPlacing`."""
        return Placing(**self.model_dump())

    @classmethod
    def of(cls, placing: Placing) -> PlacingBody:
        """From the core's value."""
        return cls(**{name: getattr(placing, name) for name in cls.model_fields})


class FollowBody(Shape):
    """What a panel shows of another's design, past a seam."""

    seam: str = Field(max_length=80)
    way: WayName

    def to_core(self) -> Follow:
        """The core's value."""
        return Follow(self.seam, self.way)


LAYING: TypeAdapter[PlacingBody | FollowBody] = TypeAdapter(PlacingBody | FollowBody)
"""What a panel carries: a placing of its own, or what it follows."""


def laying_json(laying: Laying | None) -> str:
    """What a panel carries as requests tell it; nothing for an empty one."""
    if laying is None:
        return ""
    if isinstance(laying, Follow):
        return FollowBody(seam=laying.seam, way=laying.way).model_dump_json()
    return PlacingBody.of(laying).model_dump_json()


class Art(Shape):
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


class RegionShape(Shape):
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


class SceneShape(Shape):
    """A scene that a blank can be shown in."""

    id: str
    title: str
    kind: str
    templates: list[str]
    views: dict[str, float]
    turns: bool
    px: tuple[int, int]
    regions: list[RegionShape]
    mirrored: list[str] = Field(description="Views that show the scene the other way round")
    finish: str
    measures: int = Field(description="How many measures can be drawn beside the blank")
    photograph: bool = Field(description="Made of a photograph of the seller's own")


class FixShape(Shape):
    """A mend: what the button says and what it changes of the placing."""

    label: str
    placing: dict[str, object]
    piece: int | None = Field(default=None, description="Which piece it changes, where it changes one")
    values: dict[str, object] = Field(default_factory=dict)


class CheckShape(Shape):
    """The answer of one check."""

    id: str
    title: str
    status: StatusName
    measured: float | None
    limit: float | None
    unit: str
    message: str
    why: str
    fix: FixShape | None
    more: list[FixShape]
    where: list[tuple[float, float, float, float]]


class ProofShape(Shape):
    """The judgement of a placing."""

    placed_mm: tuple[float, float, float, float]
    effective_dpi: tuple[float, float]
    verdict: StatusName
    checks: list[CheckShape]
    pieces: list[tuple[float, float, float, float] | None] = Field(description="Where each piece laid with it lies")


class Cell(Shape):
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


class BoardBlank(Shape):
    """A blank as the board's head shows it."""

    id: str
    title: str
    kind: str
    size_mm: tuple[float, float]
    panels: int


class Board(Shape):
    """What is on the range board; cells come row by row."""

    artworks: list[Art]
    templates: list[BoardBlank]


class BoardRow(Shape):
    """The cells of one artwork, a blank each."""

    cells: list[Cell]


class ChoicesBody(Shape):
    """Route, and how the mock-up stands."""

    route: RouteName
    angle: float = Field(ge=-36000, le=36000)
    colours: dict[str, str | None]


class MadeFile(Shape):
    """A file that has been made and can be fetched."""

    name: str
    url: str
    bytes: int
    about: str = Field(description="Its pixels, pages or files, in a few words")
