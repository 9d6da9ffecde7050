"""Marketplaces' limits. The shipped ones are invented: sellers set the limits of their own marketplaces."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from ..errors import ListingError

LONGEST = 20_000


@dataclass(frozen=True)
class Market:
    """Limits of a listing. Lengths are in characters.

    Attributes:
        title: what it is called; ``invented`` tells the ones that ship.
        title_least, title_most: of the listing's title.
        repeats_most: how often one word may stand in the title.
        tags_most, tag_most: how many tags, and how long each.
        description_most, search_most, alt_most: of the description, the search description, and a picture's words.
        pictures_most, least_px: how many pictures, and the least pixels of a picture's shorter side.
        film_s: the longest film taken, in seconds; 0 where none is.
    """

    title: str
    title_least: int = 15
    title_most: int = 110
    repeats_most: int = 1
    tags_most: int = 12
    tag_most: int = 24
    description_most: int = 6000
    search_most: int = 150
    alt_most: int = 200
    pictures_most: int = 10
    least_px: int = 1200
    film_s: float = 15.0
    invented: bool = False

    def __post_init__(self) -> None:
        if not self.title.strip() or len(self.title) > 60:
            raise ListingError("A marketplace needs a name of up to 60 letters.")
        for name in ("title_most", "repeats_most", "tag_most", "description_most", "search_most", "alt_most", "pictures_most"):
            if not 1 <= getattr(self, name) <= LONGEST:
                raise ListingError(f"'{name.replace('_', ' ')}' must be a number from 1 to {LONGEST}.")
        if not 0 <= self.title_least <= self.title_most:
            raise ListingError("The least length of a title cannot be above its greatest.")
        if not (0 <= self.tags_most <= 100 and 0 <= self.least_px <= 5000 and 0 <= self.film_s <= 600):
            raise ListingError("Tags go up to 100, a picture's least pixels to 5000, a film to 600 s.")


MARKETS = MappingProxyType(
    {
        "valley-stalls": Market("Valley Stalls", invented=True),
        "summit-exchange": Market("Summit Exchange", 10, 72, 2, 8, 30, 2500, 120, 140, 8, 1600, 0.0, invented=True),
        "own-shop": Market("A web shop of one's own", 5, 160, 3, 30, 40, 10_000, 160, 250, 10, 1000, 60.0, invented=True),
    }
)
"""Invented marketplaces that ship as examples."""
