"""Everything stored in a data folder: SQLite by plain SQL, and files named by the hash of their content."""

from .artworks import ArtRow, Artworks
from .batches import Batches, BatchRow, NewJob
from .blanks import BlankFile, Blanks
from .calibrations import CalibrationRow, Calibrations
from .database import Database
from .fonts import FontRow, Fonts
from .history import Event, History, Hit
from .jobs import JobRow, JobTable
from .listings import HandedIn, Listings
from .made_files import MadeFileRow, MadeFiles
from .origins import Origins
from .own_scenes import OwnSceneRow, OwnScenes
from .pairs import PairRow, Pairs, Placements
from .preflight_reports import PreflightReports
from .preparations import Preparations, PreparedRow
from .presets import PresetRow, Presets
from .pressings import PressingRow, Pressings, PressRow
from .providers import ProviderRow, Providers, SampleRow
from .repositories import Store
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
    "Event",
    "FontRow",
    "Fonts",
    "HandedIn",
    "History",
    "Hit",
    "JobRow",
    "JobTable",
    "Listings",
    "MadeFileRow",
    "MadeFiles",
    "NewJob",
    "Origins",
    "OwnSceneRow",
    "OwnScenes",
    "PairRow",
    "Pairs",
    "Placements",
    "PreflightReports",
    "Preparations",
    "PreparedRow",
    "PresetRow",
    "Presets",
    "PressRow",
    "PressingRow",
    "Pressings",
    "ProviderRow",
    "Providers",
    "SampleRow",
    "Selling",
    "Store",
]
