"""A loaded pair: an artwork on a blank, with a stored or suggested placement for each panel."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

from ..core.artwork.pixels import Artwork
from ..core.cached_property import cached_property
from ..core.colour import Floats
from ..core.design import Design, LinkedPanel, PanelContent, Piece, Placement
from ..core.mockup.scene import SceneInfo
from ..core.output import is_mirrored
from ..core.preflight import CheckResult
from ..core.preflight.sewn_seams import check_runs_on
from ..core.proposal import Proposal
from ..core.sewing.linked_panels import Corrections, Link, first_leader, seam_of
from ..core.sewing.seams import Follow, Seam
from ..core.template import Panel, Template
from ..stages import versions
from ..store import ArtRow, PairRow, Placements
from ..store.database import key_of
from ..store.models.placement import WayName
from ..store.pairs import placement_to_dict
from .edits import edit_key
from .pieces import NOTHING, PanelPieces, opener
from .scenes import SceneLibrary


def plain(placements: Placements) -> dict[str, Any]:
    """Return placements as plain values."""
    return {panel: placement_to_dict(placement) if placement else None for panel, placement in placements.items()}


@dataclass(frozen=True)
class Pair:
    """An artwork on a blank.

    Attributes:
        art: the artwork, prepared.
        template: the blank, with the seller's limits.
        template_key: a hash of the blank's figures and limits.
        row: what is stored of the pair.
        proposals: the suggested placement of each panel; it holds where nothing was decided.
        library: where the blank's scenes are looked up.
        pieces: the pieces on each panel: words, borders, frames, overlays.
        corrections: where calibration has shown the blank's panels to be sewn, by seam, in mm right and down.
        nudged: further shifts by seam, for a preview of a sample.
    """

    art: ArtRow
    template: Template
    template_key: str
    row: PairRow
    proposals: dict[str, Proposal]
    library: SceneLibrary
    pieces: dict[str, PanelPieces] = field(default_factory=dict)
    corrections: Corrections = field(default_factory=dict)
    nudged: Corrections = field(default_factory=dict)

    @property
    def ids(self) -> tuple[int, str]:
        """Return the ids of the artwork and the blank."""
        return self.art.id, self.template.id

    @property
    def title(self) -> str:
        """For example "Dusk on 20 oz tumbler"."""
        return f"{self.art.title} on {self.template.title}"

    @property
    def job_parameters(self) -> dict[str, Any]:
        """Return what every job on the pair says of it: its ids, and the placements that it was started with."""
        return {"artwork_id": self.art.id, "template_id": self.template.id, "of": self.placement_key}

    @property
    def scenes(self) -> list[SceneInfo]:
        """Return the scenes that show the blank."""
        return self.library.of(self.template)

    def scene(self, scene_id: str) -> SceneInfo:
        """Return a scene by its id. Raises :class:`SceneError` where there is none."""
        return self.library.get(scene_id, self.template)

    @property
    def route(self) -> str:
        """Return how the pair is printed: its own choice, else the blank's."""
        return self.row.route or self.template.route

    @property
    def mirrored(self) -> bool:
        """Return whether print files are mirrored, because the seller presses them face down."""
        return is_mirrored(self.route)

    @cached_property
    def placements(self) -> Placements:
        """Return the placement of every panel; None for an empty one."""
        return {p.id: self.row.placements.get(p.id, self.proposals[p.id].placement) for p in self.template.panels}

    @property
    def printed(self) -> list[Panel]:
        """Return the panels that carry a print; a panel that follows an empty one does not."""
        return [p for p in self.template.panels if self.design(p, self.content(p)).carries]

    def content(self, panel: Panel) -> PanelContent | None:
        """Return a panel's content: its placement, or the link to the panel that it follows."""
        return self.placements[panel.id]

    def placement(self, panel: Panel) -> Placement | None:
        """Return a panel's own placement; None where it is empty or follows another panel."""
        content = self.placements[panel.id]
        return content if isinstance(content, Placement) else None

    @cached_property
    def subject(self) -> list[str]:
        """Return what every result depends on: the version of the rendering code, the artwork's hash and the blank's hash."""
        return [*versions("artwork", "render"), self.art.sha256, self.template_key]

    @cached_property
    def placement_key(self) -> str:
        """Return a hash of all placements, text and extras."""
        piece_keys = {panel: each.key for panel, each in self.pieces.items() if each.key}
        follows = any(isinstance(content, Follow) for content in self.placements.values())
        return key_of(
            plain(self.placements), *([piece_keys] if piece_keys else []), *([dict(self.corrections)] if follows else [])
        )

    @cached_property
    def report_key(self) -> str:
        """Return a hash of all that the pair's preflight report depends on."""
        judged = self.art.origin.as_dict(), self.art.altered
        return key_of("report", versions("checks"), self.subject, self.placement_key, *judged)

    def panel_key(self, panel: Panel) -> str:
        """Return a hash of all that one panel's report depends on, with the panel that it follows and the seam between them."""
        content, beneath = self.content(panel), list[Any]()
        if isinstance(content, Follow):
            leader = self.template.panel(seam_of(self.template, content.seam).leader)
            beneath = [self.panel_key(leader), self.corrections.get(content.seam)]
        judged = versions("checks"), self.subject, self.art.origin.as_dict(), self.art.altered
        return key_of("panel", judged, plain({panel.id: content}), self.pieces_on(panel).key, beneath)

    def pieces_on(self, panel: Panel) -> PanelPieces:
        """Return a panel's text and extras."""
        return self.pieces.get(panel.id, NOTHING)

    def design(self, panel: Panel, content: PanelContent | None) -> Design:
        """Return one panel as a design; without a placement it is empty. Raises :class:`PlacementError` for a link that is not possible."""
        return self._design(panel, {**self.placements, panel.id: content})

    def _design(self, panel: Panel, now: Placements) -> Design:
        content = now[panel.id]
        if content is None:
            return Design(self.template, panel, ())
        if isinstance(content, Follow):
            return Design(self.template, panel, (), linked=self.linked_panel(panel, now))
        panel_pieces = self.pieces_on(panel)
        pieces = (Piece(self.art.sha256, self.art.facts.size, content),)
        return Design(self.template, panel, pieces, panel_pieces.extras, panel_pieces.fonts)

    def linked_panel(self, panel: Panel, now: Placements) -> LinkedPanel | None:
        """Return the panel whose design a panel continues; None for one that follows no other. Raises :class:`PlacementError`."""
        leader = self.who_leads(panel.id, now)
        if leader is None:
            return None
        return LinkedPanel(self._design(self.template.panel(leader.leader), now), leader.motion)

    def runs_on(self, panel: Panel, content: Follow, apart: Floats) -> tuple[CheckResult, ...]:
        """Check the seam that a panel follows. ``apart`` (n,) is the colour difference across it at each point."""
        now = {**self.placements, panel.id: content}
        ways = (self.who_leads(seam_of(self.template, content.seam).leader, now), self.who_leads(panel.id, now))
        return check_runs_on(self.template, panel, content, ways, self.corrections, apart)

    def way(self, seam: Seam) -> WayName:
        """Return which part of the leading panel's design the following panel of a seam shows."""
        content = self.content(self.template.panel(seam.follower))
        return content.way if isinstance(content, Follow) and content.seam == seam.id else "alone"

    def who_leads(self, panel_id: str, now: Placements) -> Link | None:
        """Return the first panel of a chain of links, and how the last one follows it."""
        follows = {name: content for name, content in now.items() if isinstance(content, Follow)}
        return first_leader(self.template, self.template.panel(panel_id), follows, self.corrections)

    def designs(self, placements: Placements | None = None) -> list[Design]:
        """Return every panel as a design for pictures, with edited contents in place of stored ones.

        Scenes show each panel where its figures say that it is sewn. What was calibrated moves a file to where it is sewn in
        truth, and there it shows what it shows here without.
        """
        back_shifts = {seam: (-right, -down) for seam, (right, down) in self.nudged.items()}
        now, drawn = {**self.placements, **(placements or {})}, replace(self, corrections=back_shifts)
        return [drawn._design(panel, now) for panel in self.template.panels]

    @property
    def edit_key(self) -> str:
        """Return the key of what is decided of the panels: their placements and pieces."""
        pieces = {panel: list(on_panel.stored) for panel, on_panel in self.pieces.items() if on_panel.stored}
        return edit_key([plain(self.row.placements), pieces])

    def with_placements(self, decided: Placements) -> Pair:
        """Return this pair with other placements on some panels, as it would be once they are stored."""
        return replace(self, row=replace(self.row, placements={**self.row.placements, **decided}))

    def with_pieces(self, panel: Panel, pieces: PanelPieces | None) -> Pair:
        """Return the pair with other text and extras on one panel; None keeps the stored ones."""
        return self if pieces is None else replace(self, pieces={**self.pieces, panel.id: pieces})

    def opener(self, main: Artwork, open_row: Callable[[ArtRow], Artwork]) -> Callable[[str], Artwork]:
        """Return a function that opens the artworks of this pair's designs."""
        return opener(main, self.art.sha256, list(self.pieces.values()), open_row)
