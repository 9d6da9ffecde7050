"""All repositories of one data folder."""

from __future__ import annotations

from .artworks import Artworks
from .batches import Batches
from .blanks import Blanks
from .calibrations import Calibrations
from .database import Database
from .fonts import Fonts
from .history import History
from .jobs import JobTable
from .listings import Listings
from .made_files import MadeFiles
from .order_items import OrderItems
from .origins import Origins
from .own_scenes import OwnScenes
from .pairs import Pairs
from .preflight_reports import PreflightReports
from .preparations import Preparations
from .presets import Presets
from .pressings import Pressings
from .providers import Providers
from .selling import Selling


class Store:
    """The repositories of one data folder, one for each kind of thing that is stored."""

    def __init__(self, database: Database) -> None:
        self.database = database
        self.artworks = Artworks(database)
        self.batches = Batches(database)
        self.blanks = Blanks(database)
        self.calibrations = Calibrations(database)
        self.fonts = Fonts(database)
        self.history = History(database)
        self.jobs = JobTable(database)
        self.listings = Listings(database)
        self.made_files = MadeFiles(database)
        self.order_items = OrderItems(database)
        self.origins = Origins(database)
        self.own_scenes = OwnScenes(database)
        self.pairs = Pairs(database)
        self.preflight_reports = PreflightReports(database)
        self.preparations = Preparations(database)
        self.presets = Presets(database)
        self.pressings = Pressings(database)
        self.providers = Providers(database)
        self.selling = Selling(database)
