"""Request and response models of a pair on the bench."""

from __future__ import annotations

from pydantic import Field

from ...store.models.pieces import PieceModel
from ...store.models.placement import FollowModel, PlacementModel, WayName
from .blanks import TemplateOut
from .common import ArtworkOut, In, Out, PanelReportOut, RouteName, SceneOut, StatusName


class PanelStateOut(Out):
    """The state of one panel of a pair."""

    id: str
    title: str
    printed: bool
    follows: str | None = Field(description="Title of the panel whose design it shows")
    verdict: StatusName | None


class SeamLinkOut(Out):
    """A seam past which a panel can follow another one, and its current link."""

    seam: str
    title: str
    leader: str = Field(description="Title of the panel that leads")
    lies_on: bool = Field(description="Whether it lies on its leader, as a pocket does")
    ways: list[WayName]
    way: WayName


class CountOfferOut(Out):
    """A possible number of repeats, and its pitch."""

    around: int
    pitch_mm: float


class PairOut(Out):
    """A pair on the bench, with one panel selected."""

    contain_scale: float = Field(description="The scale at which its artwork is shown whole, with the room that it needs")
    artwork: ArtworkOut
    template: TemplateOut
    scenes: list[SceneOut]
    panel: str
    panels: list[PanelStateOut]
    placement: PlacementModel | None = Field(description="None while the panel stays empty or follows another")
    follow: FollowModel | None = Field(description="What it shows of another panel's design")
    joins: list[SeamLinkOut] = Field(description="The seams past which this panel may follow another")
    suggested_placement: PlacementModel | None
    suggestion_reason: str
    offers: list[CountOfferOut] = Field(description="Numbers of repeats near the one there is")
    other_blanks: list[str] = Field(description="Ids of other blanks of this kind on the board")
    guide: bool = Field(description="Whether a provider's guide can be laid over this panel")
    content_key: str = Field(description="Changes with anything that is decided of any panel")
    edit_key: str = Field(description="Key of this state, for `based_on` of an edit")
    can_undo: bool
    can_redo: bool
    route: RouteName
    angle: float
    colours: dict[str, str | None]
    report: PanelReportOut | None
    verdict: StatusName
    palette: list[str] = Field(description="The artwork's main colours, the largest first")
    other_artworks: list[ArtworkOut] = Field(description="Other artworks in the extras on this panel")
    pieces: list[PieceModel] = Field(description="What is laid with the artwork on this panel, in its order")
    pictured: bool
    printed: bool
    pressed: bool
    listed: bool = Field(description="Taken by a marketplace")
    priced: str | None = Field(description="Its price with the currency, once it has one")


class CopyPlacementIn(In):
    """The blanks to copy a panel's placement to."""

    template_ids: list[str] = Field(min_length=1, max_length=100)


class CopiedOut(Out):
    """The blanks that received the placement."""

    template_ids: list[str]
