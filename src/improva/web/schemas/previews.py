"""Request models of previews of unsaved content."""

from __future__ import annotations

from pydantic import Field, FiniteFloat

from ...core.design import PanelContent
from ...store.models.mockups import MockupSettings
from ...store.models.pieces import PieceModel
from ...store.models.placement import FollowModel, PlacementModel
from .common import In, Out, PanelQuery
from .pieces import MOST_PIECES


class FlatQuery(PanelQuery):
    """The width of a flat's picture; ``of`` only makes addresses distinct."""

    width: int = Field(default=900, ge=64, le=2400)
    of: str = ""


class EditedContentIn(In):
    """A panel's content while it is edited; ``pieces`` of null means the saved ones."""

    content: PlacementModel | FollowModel | None = Field(default=None, description="Null for an empty panel")
    pieces: list[PieceModel] | None = Field(default=None, max_length=MOST_PIECES)

    def panel_content(self) -> PanelContent | None:
        """The core's value. Raises :class:`PlacementError`."""
        return self.content.to_core() if self.content else None


class FlatPreviewIn(EditedContentIn):
    """A preview of the flat with a width in px."""

    width: int = Field(default=900, ge=64, le=2400)


class MockupPreviewIn(EditedContentIn):
    """A quick mock-up of edited content."""

    scene: str | None = Field(default=None, description="The blank's first scene where null")
    colours: dict[str, str | None] = Field(default_factory=dict)
    angle: float = Field(default=0, ge=-36000, le=36000)
    view: str | None = None
    measured: bool = False
    nudged: dict[str, tuple[FiniteFloat, FiniteFloat]] = Field(
        default_factory=dict, description="By seam: mm right and down by which its follower is sewn elsewhere"
    )
    settings: MockupSettings | None = Field(default=None, description="The preview is then as the finished mock-ups will be")
    width: int = Field(default=900, ge=160, le=1600)
    height: int = Field(default=900, ge=160, le=1600)


class SeamMatchOut(Out):
    """The match of a wrap's two ends: ΔE2000 along the seam from top to bottom, and the usual step inside the picture."""

    along: list[float]
    limit: float
    height_mm: float
    side_mm: float
