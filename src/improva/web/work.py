"""A pair as loaded: the artwork, the blank, and what was decided or is proposed for each panel."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from .. import __version__
from ..core.artwork.pixels import Artwork
from ..core.colour import Floats
from ..core.design import Design, Laying, LedBy, Piece, Placing
from ..core.preflight import Verdict
from ..core.preflight.sewing import check_runs_on
from ..core.propose import Proposal
from ..core.sewing.following import Corrections, Led, led, seam_of
from ..core.sewing.seams import Follow
from ..core.template import Panel, Template
from ..store import ArtRow, PairRow, Placings
from ..store.database import key_of
from ..store.pairs import placing_to_dict
from .laying import NOTHING, Laid, opener


def plain(placings: Placings) -> dict[str, Any]:
    """Placings as plain values."""
    return {panel: placing_to_dict(placing) if placing else None for panel, placing in placings.items()}


@dataclass(frozen=True)
class Work:
    """A pair. ``template_key`` hashes the blank's figures and limits; ``proposals`` hold where nothing was decided;
    ``corrections`` are what was calibrated of this blank's seams; by ``nudged`` a follower is sewn beside that, for a look.
    """

    art: ArtRow
    template: Template
    template_key: str
    row: PairRow
    proposals: dict[str, Proposal]
    laid: dict[str, Laid] = field(default_factory=dict)
    corrections: Corrections = field(default_factory=dict)
    nudged: Corrections = field(default_factory=dict)

    @property
    def pair(self) -> tuple[int, str]:
        """Ids of the artwork and the blank."""
        return self.art.id, self.template.id

    @property
    def route(self) -> str:
        """How it is printed: decided here, or the blank's own."""
        return self.row.route or self.template.route

    @property
    def mirrored(self) -> bool:
        """Whether its files are mirrored: the seller presses them face down."""
        return self.route == "press"

    @cached_property
    def placings(self) -> Placings:
        """The placing of every panel; None for one that stays empty."""
        return {p.id: self.row.placings.get(p.id, self.proposals[p.id].placing) for p in self.template.panels}

    @property
    def printed(self) -> list[Panel]:
        """The panels that carry something; one that follows an empty one does not."""
        return [p for p in self.template.panels if self.design(p, self.laying(p)).carries]

    def laying(self, panel: Panel) -> Laying | None:
        """What holds for a panel: its placing, or what it follows."""
        return self.placings[panel.id]

    def placing(self, panel: Panel) -> Placing | None:
        """A panel's own placing; None where it is empty or follows another."""
        laying = self.placings[panel.id]
        return laying if isinstance(laying, Placing) else None

    @cached_property
    def subject(self) -> list[str]:
        """What every result depends on: this program, the art's content, and the blank's figures."""
        return [__version__, self.art.sha256, self.template_key]

    @cached_property
    def placing_key(self) -> str:
        """A hash of all placings, and of what is laid with them."""
        laid = {panel: each.key for panel, each in self.laid.items() if each.key}
        follows = any(isinstance(laying, Follow) for laying in self.placings.values())
        return key_of(plain(self.placings), *([laid] if laid else []), *([dict(self.corrections)] if follows else []))

    @cached_property
    def proof_key(self) -> str:
        """A hash of all that the proof of what was decided depends on."""
        return key_of("proof", self.subject, self.placing_key, self.art.origin.as_dict(), self.art.altered)

    def panel_key(self, panel: Panel) -> str:
        """A hash of all that one panel's proof depends on: also the panel that it follows, and how both are sewn."""
        laying, beneath = self.laying(panel), list[Any]()
        if isinstance(laying, Follow):
            leader = self.template.panel(seam_of(self.template, laying.seam).leader)
            beneath = [self.panel_key(leader), self.corrections.get(laying.seam)]
        judged = self.subject, self.art.origin.as_dict(), self.art.altered
        return key_of("panel", judged, plain({panel.id: laying}), self.laid_on(panel).key, beneath)

    def laid_on(self, panel: Panel) -> Laid:
        """What is laid with the artwork on a panel."""
        return self.laid.get(panel.id, NOTHING)

    def design(self, panel: Panel, laying: Laying | None) -> Design:
        """One panel as a design; without a placing it is empty. Raises :class:`BadPlacing` where it can follow nobody so."""
        return self._design(panel, {**self.placings, panel.id: laying})

    def _design(self, panel: Panel, now: Placings) -> Design:
        laying = now[panel.id]
        if laying is None:
            return Design(self.template, panel, ())
        if isinstance(laying, Follow):
            return Design(self.template, panel, (), led=self.led(panel, now))
        laid = self.laid_on(panel)
        pieces = (Piece(self.art.sha256, self.art.facts.size, laying),)
        return Design(self.template, panel, pieces, laid.extras, laid.fonts)

    def led(self, panel: Panel, now: Placings) -> LedBy | None:
        """Whose design a panel shows; None for one that follows nobody. Raises :class:`BadPlacing`."""
        found = self.who_leads(panel.id, now)
        if found is None:
            return None
        return LedBy(self._design(self.template.panel(found.leader), now), found.motion)

    def runs_on(self, panel: Panel, laying: Follow, apart: Floats) -> tuple[Verdict, ...]:
        """What is found along the seam that a panel follows, where colours on both sides are so far ``apart``."""
        now = {**self.placings, panel.id: laying}
        ways = (self.who_leads(seam_of(self.template, laying.seam).leader, now), self.who_leads(panel.id, now))
        return check_runs_on(self.template, panel, laying, ways, self.corrections, apart)

    def who_leads(self, panel_id: str, now: Placings) -> Led | None:
        """By whom a panel is led in the end, and how."""
        follows = {name: laying for name, laying in now.items() if isinstance(laying, Follow)}
        return led(self.template, self.template.panel(panel_id), follows, self.corrections)

    def designs(self, held: Placings | None = None) -> list[Design]:
        """Every panel as a design for pictures, with what is in the hand in place of what was decided.

        Scenes show each panel where its figures say that it is sewn. What was calibrated moves a file to where it is sewn in
        truth, and there it shows what it shows here without.
        """
        beside = {seam: (-right, -down) for seam, (right, down) in self.nudged.items()}
        now, drawn = {**self.placings, **(held or {})}, replace(self, corrections=beside)
        return [drawn._design(panel, now) for panel in self.template.panels]

    def holding(self, panel: Panel, laid: Laid | None) -> Work:
        """The same pair with other pieces laid on one panel; None for those that were decided."""
        return self if laid is None else replace(self, laid={**self.laid, panel.id: laid})

    def opener(self, main: Artwork, open_row: Callable[[ArtRow], Artwork]) -> Callable[[str], Artwork]:
        """Finds the artworks of this pair's designs: its own, and those laid with it."""
        return opener(main, self.art.sha256, list(self.laid.values()), open_row)
