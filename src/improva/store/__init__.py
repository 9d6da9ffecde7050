"""What is kept between sessions: SQLite by plain SQL, and blobs named by the hash of their content."""

from .artworks import ArtRow, Artworks
from .blanks import BlankFile, Blanks
from .database import Database
from .made import Made, MadeRow
from .pairs import PairRow, Pairs, Placings

__all__ = ["ArtRow", "Artworks", "BlankFile", "Blanks", "Database", "Made", "MadeRow", "PairRow", "Pairs", "Placings"]
