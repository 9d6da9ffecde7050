"""Scenes from the seller's own photographs: marks become maps, a mask becomes cover, the photograph's light becomes base and
basis.

The result is an ordinary scene pack. What is marked: where the print lies (:mod:`.places`), what belongs to the product and
what lies in front of it (:mod:`.masks`), and a spot that shows the blank's own colour (:mod:`.light`).
"""

from .marks import MOST_DABS, Dab, Marks, goes_round, names_of
from .masks import product_mask
from .photo_scene import PHOTO_PX, PhotoScene, make_scene
from .print_area import Place, place_of, suggested

__all__ = [
    "MOST_DABS",
    "PHOTO_PX",
    "Dab",
    "Marks",
    "PhotoScene",
    "Place",
    "goes_round",
    "make_scene",
    "names_of",
    "place_of",
    "product_mask",
    "suggested",
]
