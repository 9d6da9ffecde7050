"""How the prints of a pair's panels meet along their seams."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.colour import Floats, lab
from ..core.sewing.linked_panels import Link
from ..core.sewing.mismatch import colour_difference_along, offset_along
from ..core.sewing.seams import Seam
from ..store.database import key_of
from .pair import Pair
from .services import Services


@dataclass(frozen=True)
class SeamMatch:
    """How well a design continues across a seam.

    Attributes:
        off_mm: the largest mismatch; None if both sides have their own designs.
        delta_e: how far the colours on both sides are apart, the median ΔE2000; None where a side is empty.
    """

    off_mm: float | None
    delta_e: float | None


class SewnPair:
    """One pair's panels and their seams; each panel is rendered once."""

    def __init__(self, services: Services, pair: Pair) -> None:
        self.pair = pair
        self._services, self._labs = services, dict[str, Floats | None]()

    def link(self, panel_id: str) -> Link | None:
        """Return the first panel of a panel's chain of links, and the link; None for one that follows no other."""
        return self.pair.who_leads(panel_id, self.pair.placements)

    def match(self, seam: Seam) -> SeamMatch:
        """Measure how well the design continues across a seam."""
        pair = self.pair
        leader, follower = pair.template.panel(seam.leader), pair.template.panel(seam.follower)
        off = offset_along(seam, pair.template, (self.link(seam.leader), self.link(seam.follower)), pair.corrections)
        key = key_of("apart", seam.id, pair.panel_key(leader), pair.panel_key(follower), pair.corrections.get(seam.id))
        apart = self._services.preflight.results.get(key, lambda: self._colour_difference(seam))
        return SeamMatch(None if off is None else float(off.max()), apart)

    def _colour_difference(self, seam: Seam) -> float | None:
        one, other = self._lab(seam.leader), self._lab(seam.follower)
        if one is None or other is None:
            return None
        return float(np.median(colour_difference_along(seam, self.pair.template, self.pair.corrections, (one, other))))

    def _lab(self, panel_id: str) -> Floats | None:
        """Return a panel's reduced print in CIE Lab, (h, w, 3); None for an empty panel."""
        if panel_id not in self._labs:
            panel = self.pair.template.panel(panel_id)
            content = self.pair.content(panel) if panel in self.pair.printed else None
            reduced = self._services.preflight.reduced_print
            self._labs[panel_id] = None if content is None else lab(reduced(self.pair, panel, content))
        return self._labs[panel_id]
