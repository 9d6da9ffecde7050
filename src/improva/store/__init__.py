"""What is kept between sessions: SQLite by plain SQL, and blobs named by the hash of their content."""

from .artworks import ArtRow, Artworks
from .batches import Batches, BatchRow, NewJob
from .blanks import BlankFile, Blanks
from .calibrations import CalibrationRow, Calibrations
from .database import Database
from .fonts import FontRow, Fonts
from .jobs import JobRow, JobTable
from .listings import HandedIn, Listings
from .made import Made, MadeRow
from .origins import Origins
from .own_scenes import OwnSceneRow, OwnScenes
from .pairs import PairRow, Pairs, Placings
from .preparations import Preparations, PreparedRow
from .pressings import PressingRow, Pressings, PressRow
from .providers import ProviderRow, Providers, SampleRow
from .records import Deed, Hit, Records
from .saved_looks import LookRow, Looks
from .selling import Selling

__all__ = [
    "ArtRow",
    "Artworks",
    "BatchRow",
    "Batches",
    "BlankFile",
    "Blanks",
    "CalibrationRow",
    "Calibrations",
    "Database",
    "Deed",
    "FontRow",
    "Fonts",
    "HandedIn",
    "Hit",
    "JobRow",
    "JobTable",
    "Listings",
    "LookRow",
    "Looks",
    "Made",
    "MadeRow",
    "NewJob",
    "Origins",
    "OwnSceneRow",
    "OwnScenes",
    "PairRow",
    "Pairs",
    "Placings",
    "Preparations",
    "PreparedRow",
    "PressRow",
    "PressingRow",
    "Pressings",
    "ProviderRow",
    "Providers",
    "Records",
    "SampleRow",
    "Selling",
]
