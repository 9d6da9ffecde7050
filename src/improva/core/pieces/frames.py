"""Picture frames: cards, strips and grids of slots for photographs."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Literal, get_args

from ..errors import PieceError
from ..template import Box
from ..units import effective_dpi
from .blending import FARTHEST_MM, ArtRef, Mixing, between, colours

Layout = Literal["single", "instant", "strip", "grid", "round"]
LAYOUTS: tuple[Layout, ...] = get_args(Layout)
MOST_SLOTS = 64
INSTANT_FOOT = 3.6
"""Width of the broad foot of an instant print, in widths of its rim. From memory."""

ZOOM_LIMITS = (1.0, 20.0)


@dataclass(frozen=True)
class Slot:
    """The content of a slot: a picture, or None while the slot is empty.

    Attributes:
        focus: the point of the picture, in fractions, that comes to lie in the slot's middle as far as no edge bares.
        zoom: times the size that just covers the slot.
    """

    art: ArtRef | None = None
    focus: tuple[float, float] = (0.5, 0.5)
    zoom: float = 1.0

    def __post_init__(self) -> None:
        for value in self.focus:
            between("focus", value, 0, 1)
        between("zoom", self.zoom, *ZOOM_LIMITS)


@dataclass(frozen=True)
class Cell:
    """Position of one slot and of its card, in mm from the upper left corner of all frames; ``is_round`` for a circle."""

    slot: Box
    card: Box
    is_round: bool = False


@dataclass(frozen=True)
class Frames:
    """Frames in rows and columns.

    Attributes:
        layout: ``single`` one frame each, ``instant`` with a broad foot, ``strip`` and ``grid`` on one common card,
            ``round`` in rings.
        across, down: how many slots.
        size_mm: all frames together.
        rim_mm: width of the frame around a slot; ``gap_mm`` between frames, on a common card between slots.
        shift_mm, rotate_deg: of the middle from the panel's middle, and clockwise about it.
        slots: row by row; those beyond are empty.
    """

    layout: Layout = "instant"
    across: int = 2
    down: int = 1
    size_mm: tuple[float, float] = (120.0, 70.0)
    rim_mm: float = 4.0
    gap_mm: float = 5.0
    colour: str = "#ffffff"
    line: str | None = None
    shift_mm: tuple[float, float] = (0.0, 0.0)
    rotate_deg: float = 0.0
    slots: tuple[Slot, ...] = ()
    mixing: Mixing = field(default_factory=Mixing)

    def __post_init__(self) -> None:
        if self.layout not in LAYOUTS:
            raise PieceError(f"The frames '{self.layout}' are not known: choose one of {', '.join(LAYOUTS)}.")
        if not (self.across >= 1 <= self.down and self.across * self.down <= MOST_SLOTS):
            raise PieceError(f"{self.across} × {self.down} slots cannot be laid: use {MOST_SLOTS} at most.")
        for side in self.size_mm:
            between("size", side, 0.1, FARTHEST_MM)
        between("rim", self.rim_mm, 0, 500)
        between("gap", self.gap_mm, 0, 500)
        for value in (*self.shift_mm, self.rotate_deg):
            between("shift", value, -FARTHEST_MM, FARTHEST_MM)
        colours(self.colour, self.line)
        self.cells()

    def slot(self, index: int) -> Slot:
        """Return the content of a slot."""
        return self.slots[index] if index < len(self.slots) else Slot()

    def cells(self) -> list[Cell]:
        """Return the positions of the slots, row by row. Raises :class:`PieceError` where rims and gaps leave no room for
        pictures."""
        w, h = self.size_mm
        common = self.layout in ("strip", "grid")
        edge = self.rim_mm if common else 0.0
        each = (
            (w - 2 * edge - self.gap_mm * (self.across - 1)) / self.across,
            (h - 2 * edge - self.gap_mm * (self.down - 1)) / self.down,
        )
        rim = 0.0 if common else self.rim_mm
        foot = INSTANT_FOOT * self.rim_mm if self.layout == "instant" else rim
        boxes = []
        for row in range(self.down):
            for column in range(self.across):
                x, y = edge + column * (each[0] + self.gap_mm), edge + row * (each[1] + self.gap_mm)
                slot = (x + rim, y + rim, each[0] - 2 * rim, each[1] - rim - foot)
                if min(slot[2:]) <= 0.05:
                    raise PieceError(
                        "Rims and gaps leave no room for the pictures: make the frames larger or the rims thinner."
                    )
                card = (0.0, 0.0, w, h) if common else (x, y, *each)
                if self.layout == "round":
                    side = min(slot[2:])
                    slot = (slot[0] + (slot[2] - side) / 2, slot[1] + (slot[3] - side) / 2, side, side)
                    card = (slot[0] - rim, slot[1] - rim, side + 2 * rim, side + 2 * rim)
                boxes.append(Cell(slot, card, self.layout == "round"))
        return boxes

    def centre(self, trim_mm: tuple[float, float]) -> tuple[float, float]:
        """Return the centre of the frames, in mm of the trim."""
        return trim_mm[0] / 2 + self.shift_mm[0], trim_mm[1] / 2 + self.shift_mm[1]

    def box(self, trim_mm: tuple[float, float]) -> Box:
        """Return the bounding box of the rotated frames, in mm of the trim."""
        cx, cy = self.centre(trim_mm)
        c, s = abs(math.cos(math.radians(self.rotate_deg))), abs(math.sin(math.radians(self.rotate_deg)))
        w, h = self.size_mm[0] * c + self.size_mm[1] * s, self.size_mm[0] * s + self.size_mm[1] * c
        return cx - w / 2, cy - h / 2, w, h


def covering(slot: Slot, cell: Cell) -> tuple[float, float, float, float]:
    """Return the visible part of a slot's picture as x, y, width, height, in fractions of the picture."""
    assert slot.art is not None, "an empty slot shows nothing"
    w, h = slot.art.size.px
    ratio = (cell.slot[2] / cell.slot[3]) / (w / h)
    part = (min(1.0, ratio) / slot.zoom, min(1.0, 1 / ratio) / slot.zoom)
    x, y = (min(1 - p, max(0.0, f - p / 2)) for f, p in zip(slot.focus, part, strict=True))
    return x, y, *part


def slot_dpi(slot: Slot, cell: Cell) -> float:
    """Return the effective resolution of a slot's picture: pixels per printed inch."""
    assert slot.art is not None, "an empty slot has no picture"
    return effective_dpi(slot.art.size.px[0] * covering(slot, cell)[2], cell.slot[2])
