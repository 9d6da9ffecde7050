"""What requests and answers look like. The page's TypeScript types are generated from these."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from ..core.design import Placing

StatusName = Literal["pass", "warn", "fail"]
FitName = Literal["cover", "contain", "actual", "stretch", "repeat"]
RepeatName = Literal["grid", "half-drop", "brick", "mirror"]
LayName = Literal["bent", "flat"]
RouteName = Literal["press", "upload"]


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


class ConeShape(Shape):
    """How a tapered wall rolls out."""

    inner_radius_mm: float
    outer_radius_mm: float
    sweep_deg: float
    slant_mm: float
    box_mm: tuple[float, float]
    widens_down: bool
    top_mm: float
    bottom_mm: float
    height_mm: float


class KeepOutShape(Shape):
    """A part of a panel where nothing that matters may lie."""

    title: str
    box: tuple[float, float, float, float]


class PanelShape(Shape):
    """A panel of a template, in mm. ``worn_mm`` is the level rectangle of a tapered wall, else the trim."""

    id: str
    title: str
    shape: str
    trim_mm: tuple[float, float]
    worn_mm: tuple[float, float]
    bleed_mm: float
    safe_mm: float
    seam_zone_mm: float
    tab_mm: float
    gap_mm: float
    closes: bool
    dpi: float
    file_px: tuple[int, int]
    file_mm: tuple[float, float]
    keep_out: list[KeepOutShape]
    cut_line: list[tuple[float, float]]
    safe_line: list[tuple[float, float]]
    starts: str
    cone: ConeShape | None


class TemplateShape(Shape):
    """A blank, with the provenance of its figures."""

    id: str
    title: str
    kind: str
    route: RouteName
    default_fit: str
    least_dpi: float
    good_dpi: float
    blank_colour: str
    substrate: str
    finishes: list[str]
    unprinted: str
    sizes: dict[str, float]
    half_transparent: str
    own: bool
    limits: dict[str, float]
    looks: dict[str, object]
    panels: list[PanelShape]
    provenance: dict[str, str]


class LimitShape(Shape):
    """A limit that a blank is judged by: what holds now, what ships, and how far it may be moved."""

    name: str
    title: str
    unit: str
    value: float
    default: float
    least: float
    most: float
    source: str
    changed: bool


class Blank(Shape):
    """A blank on the shelf."""

    template: TemplateShape
    on_board: bool
    limits: list[LimitShape]
    guides: dict[str, str] = Field(description="File name of the provider's guide by panel")
    profile: str | None = Field(description="File name of the printer's ICC profile")


class Shelf(Shape):
    """Every blank there is."""

    blanks: list[Blank]


class RegionShape(Shape):
    """A part of a scene whose colour may change."""

    id: str
    title: str
    panel: str | None
    colours: dict[str, str]
    default: str | None


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


class FixShape(Shape):
    """A mend: what the button says and what it changes of the placing."""

    label: str
    placing: dict[str, object]


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


class Cell(Shape):
    """One artwork on one blank, as the board shows it."""

    artwork_id: int
    template_id: str
    fitted: bool
    pictured: bool
    printed: bool
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
    """Everything on the range board."""

    artworks: list[Art]
    templates: list[BoardBlank]
    cells: list[Cell]


class PanelState(Shape):
    """How far one panel of a pair has come."""

    id: str
    title: str
    printed: bool
    verdict: StatusName | None


class CountOffer(Shape):
    """A number of repeats that fits, and how wide one then is."""

    around: int
    pitch_mm: float


class Pair(Shape):
    """One artwork on one blank, as the bench shows it with one of its panels in front."""

    artwork: Art
    template: TemplateShape
    scenes: list[SceneShape]
    panel: str
    panels: list[PanelState]
    placing: PlacingBody | None = Field(description="None while the panel stays empty")
    default_placing: PlacingBody | None
    proposed_because: str
    offers: list[CountOffer] = Field(description="Numbers of repeats near the one there is")
    sisters: list[str] = Field(description="Ids of other blanks of this kind on the board")
    guide: bool = Field(description="Whether a provider's guide can be laid over this panel")
    can_undo: bool
    can_redo: bool
    route: RouteName
    angle: float
    colours: dict[str, str | None]
    proof: ProofShape | None
    verdict: StatusName
    pictured: bool
    printed: bool


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
    px: tuple[int, int]
