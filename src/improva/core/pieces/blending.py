"""Blend a piece with what is below it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from ..colour import parse_hex
from ..design import ArtSize
from ..errors import PieceError
from ..units import finite

Blend = Literal[
    "normal",
    "multiply",
    "screen",
    "overlay",
    "darken",
    "lighten",
    "color-dodge",
    "color-burn",
    "hard-light",
    "soft-light",
    "difference",
    "exclusion",
    "hue",
    "saturation",
    "color",
    "luminosity",
]
Clip = Literal["", "artwork", "beneath"]
CLIPS: tuple[Clip, ...] = get_args(Clip)
BLENDS: tuple[Blend, ...] = get_args(Blend)
"""Blend modes by their names in W3C Compositing and Blending Level 1, 9.1 and 9.2."""

Mirror = Literal["", "across", "down", "both"]
MIRRORS: tuple[Mirror, ...] = get_args(Mirror)
"""Not mirrored; left and right exchanged; top and bottom exchanged; both."""

FARTHEST_MM = 10_000.0


@dataclass(frozen=True)
class ArtRef:
    """Reference to a second artwork: its content hash and its size."""

    art: str
    size: ArtSize


@dataclass(frozen=True)
class Mixing:
    """Blend mode, opacity, clipping, order and mirroring of a piece.

    One that is clipped to the ``artwork`` lies on it, beneath what lies in front, and only where that has ink; one that
    is clipped to the piece ``beneath``, the one before it in their order, lies on that in the same way.

    Attributes:
        flip: the piece is mirrored where it lies.
        twin: a mirrored copy of it lies on the other side of the panel's middle; with ``both`` there are four of them.
    """

    opacity: float = 1.0
    blend: Blend = "normal"
    behind: bool = False
    clipped: Clip = ""
    flip: Mirror = ""
    twin: Mirror = ""

    def __post_init__(self) -> None:
        between("opacity", self.opacity, 0, 1)
        if self.clipped not in CLIPS:
            raise PieceError("A piece is clipped to the artwork, to the piece beneath it, or to nothing.")
        if self.flip not in MIRRORS or self.twin not in MIRRORS:
            raise PieceError("A piece is mirrored across, down, both ways, or not at all.")
        if self.blend not in BLENDS:
            raise PieceError(f"The blend '{self.blend}' is not known: choose one of {', '.join(BLENDS)}.")


def between(what: str, value: float, least: float, most: float) -> None:
    """Check that a number lies within limits. Raises :class:`PieceError`."""
    if not least <= finite(value, what) <= most:
        raise PieceError(f"A {what} of {value:g} is out of reach: use {least:g} to {most:g}.")


def colours(*given: str | None) -> None:
    """Check colour values. Raises :class:`PlacementError`."""
    for colour in given:
        if colour is not None:
            parse_hex(colour)
