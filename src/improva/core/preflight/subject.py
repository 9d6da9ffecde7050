"""The subject of the checks: the pair, its geometry, and one reduced rendering of the flat."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import cv2
import numpy as np
import pyvips
from numpy.typing import NDArray

from ..artwork.content import Content, find_content
from ..artwork.pixels import Artwork, as_array
from ..artwork.reading import ArtFacts
from ..artwork.traits import Traits, find_traits
from ..cached_property import cached_property
from ..colour import Floats, lab
from ..design import Design, LinkedPanel, Piece, Placement
from ..fit import Placed, place
from ..origin import Origin
from ..pieces import Extra, Lettering, LetteringShape, lettering_shape
from ..pieces.text import lettering_box
from ..render import on_blank, render_level
from ..template import Box, Panel, Template
from ..words.font import open_font

ANALYSIS_PX = 1000
"""Longest side of the rendering that is checked, in px: 4 px per mm on a tumbler's wrap."""

SUBPIXEL_BITS = 4
SUBPIXELS = 2**SUBPIXEL_BITS


@dataclass(frozen=True)
class Subject:
    """One artwork on one panel, to be checked. ``art`` may be a proxy: its facts are the original's.

    Pictures and boxes are those of the level panel: a tapered wall is examined as its level rectangle.
    ``profile`` is the printer's ICC profile, where the seller gives one; ``known`` the artwork's traits, where they were
    found before; ``origin`` what is noted of where it comes from; ``altered`` whether it was changed since it was had.
    A panel that is ``linked`` has its leader's ``placement``, and is looked at through the motion between them.
    ``extras`` is what is laid with the artwork, with their ``fonts`` and the ``others``' artworks by their hashes.
    """

    template: Template
    panel: Panel
    art: Artwork
    placement: Placement
    profile: bytes | None = None
    known: Traits | None = None
    origin: Origin | None = None
    altered: bool = False
    extras: tuple[Extra, ...] = ()
    fonts: Mapping[str, bytes] = field(default_factory=dict)
    others: Mapping[str, Artwork] = field(default_factory=dict)
    linked: LinkedPanel | None = None

    @property
    def facts(self) -> ArtFacts:
        """Return the artwork's facts."""
        return self.art.facts

    @cached_property
    def placed(self) -> Placed:
        """Return the artwork's exact place."""
        if self.linked is None:
            return place(self.panel, self.facts.size, self.placement)
        return replace(place(self.linked.design.panel, self.facts.size, self.placement), through=self.linked.motion)

    @cached_property
    def level(self) -> Panel:
        """Return the panel, with a tapered wall as its level rectangle."""
        return self.panel.level()

    @cached_property
    def field(self) -> Panel:
        """The rectangle that :attr:`placed` refers to."""
        return self.panel.field(self.placement.lay)

    def limit(self, name: str) -> float:
        """Return a limit of the blank."""
        return self.template.limit(name)

    @property
    def design(self) -> Design:
        """Return the pair as a design."""
        if self.linked is not None:
            return Design(self.template, self.panel, (), linked=self.linked)
        return Design(self.template, self.panel, (Piece("", self.facts.size, self.placement),), self.extras, self.fonts)

    def set_words(self, lettering: Lettering) -> LetteringShape:
        """The design's words, set in their font."""
        return lettering_shape(lettering, open_font(self.fonts[lettering.font]))

    def vector(self, key: str) -> bool:
        """Return whether another artwork is vector art."""
        return key in self.others and self.others[key].facts.vector

    @cached_property
    def flat(self) -> NDArray[np.uint8]:
        """The print file, reduced to :data:`ANALYSIS_PX`: (h, w, 3 or 4) sRGB."""
        return self._rendered(self.design)

    def _rendered(self, design: Design) -> NDArray[np.uint8]:
        w, h = self.level.file_mm
        factor = ANALYSIS_PX / max(w, h)
        size = (max(8, round(w * factor)), max(8, round(h * factor)))
        return as_array(render_level(design, self.opener, size))

    def opener(self, key: str) -> Artwork:
        """Return the artwork of a piece by its key."""
        return self.others[key] if key else self.art

    @property
    def px_per_mm(self) -> float:
        """Density of :attr:`flat`."""
        return float(self.flat.shape[1] / self.level.file_mm[0])

    @cached_property
    def seen(self) -> NDArray[np.uint8]:
        """:attr:`flat` on the blank's own colour: (h, w, 3)."""
        return as_array(on_blank(pyvips.Image.new_from_array(self.flat, interpretation="srgb"), self.template.blank_colour))

    def trimmed(self, image: NDArray[Any]) -> NDArray[Any]:
        """Crop an image (h, w, …) of the whole file to the trim."""
        bleed = round(self.panel.bleed_mm * self.px_per_mm)
        h, w = image.shape[:2]
        return image[bleed : h - bleed, bleed : w - bleed]

    def zone(self, inset_mm: float, share: float = 1.0) -> NDArray[np.bool_]:
        """Return the trim's points at least a distance inside its outline, (h, w); with ``share``, of a smaller size cut from
        its middle."""
        mask = np.zeros(self.trim_lab.shape[:2], np.uint8)
        middle = np.array(self.level.trim_mm) / 2
        line = np.array(self.level.line(inset_mm / share)) * share + middle * (1 - share)
        line = line * self.px_per_mm - 0.5  # from edges to centres of points
        if len(line):
            cv2.fillPoly(mask, [(line * SUBPIXELS).round().astype(np.int32)], 1, shift=SUBPIXEL_BITS)
        return mask.astype(bool)

    @cached_property
    def file_lab(self) -> Floats:
        """The whole file as seen, in Lab (h, w, 3)."""
        return lab(self.seen)

    @cached_property
    def trim_lab(self) -> Floats:
        """The trim as seen, in Lab (h, w, 3)."""
        return np.ascontiguousarray(self.trimmed(self.file_lab))

    @cached_property
    def trim_alpha(self) -> NDArray[np.uint8] | None:
        """The trim's alpha, (h, w), or None for a print without bare parts."""
        return self.trimmed(self.flat[..., 3]) if self.flat.shape[2] == 4 else None

    @cached_property
    def content(self) -> Content:
        """The important content of the artwork, without extra pieces."""
        if not self.extras:
            return find_content(self.trim_lab, self.trim_alpha)
        alone = replace(self, extras=())
        return find_content(alone.trim_lab, alone.trim_alpha)

    @cached_property
    def traits(self) -> Traits:
        """The traits of the artwork's own pixels."""
        return self.known or find_traits(self.art)

    @cached_property
    def mm_per_px(self) -> float:
        """Print length of one pixel of the picture that :attr:`traits` were measured on; the smaller of both directions."""
        _, _, w, h = self.placed.box
        px = self.traits.px if self.placed.tiling is None or self.placement.rotate_deg % 180 == 0 else self.traits.px[::-1]
        left = 1 - self.placement.blend if self.placed.tiling else 1.0
        return min(w / px[0], h / px[1]) / left

    @cached_property
    def words(self) -> list[Words]:
        """Rows of lettering as printed, inside the trim; for a repeat, those on its first tile."""
        boxes = []
        for row in self.traits.rows:
            for copy in self.placed.copies():
                box = self._on_print(copy, row.box)
                if self.placed.tiling is None and not _meets(box, self.level):
                    continue
                boxes.append(Words(box, row.height_px * self.mm_per_px, row.stroke_px * self.mm_per_px))
        for extra in self.extras:
            if isinstance(extra, Lettering):
                shape = self.set_words(extra)
                boxes.append(Words(lettering_box(extra, shape, self.level.trim_mm, letters_only=True), shape.cap_mm, 0.0))
        return boxes

    def _on_print(self, copy: Placed, box_px: tuple[int, int, int, int]) -> Box:
        """Return the bounding box of a part of the picture, in mm on the level panel."""
        w, h = self.traits.px
        x0, y0, x1, y1 = box_px[0] / w, box_px[1] / h, (box_px[0] + box_px[2]) / w, (box_px[1] + box_px[3]) / h
        points = [copy.from_art(u, v) for u, v in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))]
        if self.panel.cone is not None and self.placement.lay == "flat":
            points = [tuple(float(c) for c in self.panel.cone.to_level(*point)) for point in points]  # type: ignore[misc]
        xs, ys = zip(*points, strict=True)
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


@dataclass(frozen=True)
class Words:
    """A row of lettering in print: its box, the height of its letters and the width of their strokes, in mm."""

    box: Box
    height_mm: float
    stroke_mm: float


def _meets(box: Box, level: Panel) -> bool:
    x, y, w, h = box
    return x < level.trim_mm[0] and y < level.trim_mm[1] and x + w > 0 and y + h > 0
