"""What is kept between sessions: SQLite by plain SQL, and blobs named by the hash of their content."""

from .artworks import ArtRow, Artworks
from .database import Database
from .made import Made, MadeRow
from .pairs import PairRow, Pairs

__all__ = ["ArtRow", "Artworks", "Database", "Made", "MadeRow", "PairRow", "Pairs"]
