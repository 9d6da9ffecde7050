"""What can be laid with an artwork on a panel: words, bands of pattern, picture frames, a second artwork. In mm, and re-editable."""

from .band import Band
from .boxes import piece_box
from .carrying import carried_piece
from .frames import Frames, Slot
from .lettering import Lettering, LetteringShape, lettering_shape
from .mixing import BLENDS, ArtRef, Mixing
from .overlay import Overlay

Extra = Lettering | Band | Frames | Overlay
"""A piece that is laid with the artwork."""

__all__ = [
    "BLENDS", "ArtRef", "Band", "Extra", "Frames", "Lettering", "LetteringShape", "Mixing", "Overlay", "Slot", "carried_piece",
    "lettering_shape", "piece_box",
]  # fmt: skip
