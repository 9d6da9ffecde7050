"""What answers about a pair on the bench look like."""

from __future__ import annotations

from pydantic import Field

from .blank_shapes import TemplateShape
from .piece_shapes import PieceBody
from .shapes import Art, FollowBody, PlacingBody, ProofShape, RouteName, SceneShape, Shape, StatusName, WayName


class PanelState(Shape):
    """How far one panel of a pair has come."""

    id: str
    title: str
    printed: bool
    follows: str | None = Field(description="Title of the panel whose design it shows")
    verdict: StatusName | None


class JoinShape(Shape):
    """A seam past which a panel may follow another, and what it does now."""

    seam: str
    title: str
    leader: str = Field(description="Title of the panel that leads")
    lies_on: bool = Field(description="Whether it lies on its leader, as a pocket does")
    ways: list[WayName]
    way: WayName


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
    placing: PlacingBody | None = Field(description="None while the panel stays empty or follows another")
    follow: FollowBody | None = Field(description="What it shows of another panel's design")
    joins: list[JoinShape] = Field(description="The seams past which this panel may follow another")
    default_placing: PlacingBody | None
    proposed_because: str
    offers: list[CountOffer] = Field(description="Numbers of repeats near the one there is")
    sisters: list[str] = Field(description="Ids of other blanks of this kind on the board")
    guide: bool = Field(description="Whether a provider's guide can be laid over this panel")
    laid_key: str = Field(description="Changes with anything that is decided of any panel")
    can_undo: bool
    can_redo: bool
    route: RouteName
    angle: float
    colours: dict[str, str | None]
    proof: ProofShape | None
    verdict: StatusName
    palette: list[str] = Field(description="The artwork's main colours, the largest first")
    beside: list[Art] = Field(description="The artworks that are laid with it, on this panel")
    pieces: list[PieceBody] = Field(description="What is laid with the artwork on this panel, in its order")
    pictured: bool
    printed: bool
    pressed: bool
    listed: bool = Field(description="Taken by a marketplace")
    priced: str | None = Field(description="Its price with the currency, once it has one")
