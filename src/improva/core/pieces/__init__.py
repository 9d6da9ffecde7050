"""Pieces beside the artwork on a panel: words, bands, picture frames and a second artwork. They stay editable; lengths in mm."""

from .adaptation import adapt_piece
from .band import Band
from .blending import BLENDS, ArtRef, Mixing
from .boxes import piece_box
from .frames import Frames, Slot
from .overlay import Overlay
from .text import Lettering, LetteringShape, lettering_shape

Extra = Lettering | Band | Frames | Overlay
"""A piece that is added to the artwork of a panel."""

__all__ = [
    "BLENDS",
    "ArtRef",
    "Band",
    "Extra",
    "Frames",
    "Lettering",
    "LetteringShape",
    "Mixing",
    "Overlay",
    "Slot",
    "adapt_piece",
    "lettering_shape",
    "piece_box",
]
