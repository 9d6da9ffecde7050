"""What the checks look at: the pair, its geometry, and a reduced rendering of the flat made once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ..artwork.pixels import Artwork, as_array
from ..artwork.reading import ArtFacts
from ..colour import Floats, lab, parse_hex
from ..design import Design, Piece, Placing
from ..fit import Placed, place
from ..render import render
from ..template import Panel, Template

ANALYSIS_PX = 1000
"""Longest side of the rendering that is looked at: 4 px a millimetre on a tumbler's wrap."""


@dataclass(frozen=True)
class Subject:
    """One artwork on one panel, under judgement. ``art`` may be a proxy: its facts are the original's."""

    template: Template
    panel: Panel
    art: Artwork
    placing: Placing

    @property
    def facts(self) -> ArtFacts:
        """The artwork's facts."""
        return self.art.facts

    @cached_property
    def placed(self) -> Placed:
        """The artwork's exact place."""
        return place(self.panel, self.facts.size, self.placing)

    @property
    def design(self) -> Design:
        """The pair as a design of one piece."""
        return Design(self.template, self.panel, (Piece("", self.facts.size, self.placing),))

    @cached_property
    def flat(self) -> NDArray[np.uint8]:
        """The print file, reduced to :data:`ANALYSIS_PX`: (h, w, 3 or 4) sRGB."""
        w, h = self.panel.file_mm
        factor = ANALYSIS_PX / max(w, h)
        size = (max(8, round(w * factor)), max(8, round(h * factor)))
        return as_array(render(self.design, lambda _: self.art, size))

    @property
    def px_per_mm(self) -> float:
        """Density of :attr:`flat`."""
        return float(self.flat.shape[1] / self.panel.file_mm[0])

    @cached_property
    def seen(self) -> NDArray[np.uint8]:
        """:attr:`flat` laid on the blank's own colour: (h, w, 3)."""
        if self.flat.shape[2] == 3:
            return self.flat
        alpha = self.flat[..., 3:].astype(np.float32) / 255
        blank = np.array(parse_hex(self.template.blank_colour), np.float32)
        return (self.flat[..., :3] * alpha + blank * (1 - alpha) + 0.5).astype(np.uint8)

    @cached_property
    def trim_lab(self) -> Floats:
        """The trim as seen, in Lab (h, w, 3)."""
        bleed = round(self.panel.bleed_mm * self.px_per_mm)
        h, w = self.seen.shape[:2]
        return lab(self.seen[bleed : h - bleed, bleed : w - bleed])
