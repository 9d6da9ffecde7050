"""The application's services of one data folder, wired together. Nothing is computed here."""

from __future__ import annotations

from pathlib import Path

from ..sandbox import Here, Reader
from ..store import Database, Store
from .artworks import ArtworkLibrary
from .blanks import BlankShelf
from .fonts import FontLibrary
from .own_scenes import PhotoScenes
from .pairs import PairLoader
from .preflight import Preflight
from .previews import Previews
from .render_cache import RenderCache
from .scenes import SceneLibrary
from .turns import Turns


class Services:
    """The services that a request, a command or a job uses.

    Args:
        database: of the data folder, or of a snapshot of it for a job.
        render_cache: shared by services that work on the same scenes; a new one by default.
        reader: reads foreign files; by default in this process, without limits.
    """

    def __init__(self, database: Database, render_cache: RenderCache | None = None, reader: Reader | None = None) -> None:
        self.reader = reader or Here()
        self.turns = Turns()
        self.store = Store(database)
        self.render_cache = render_cache or RenderCache()
        self.scenes = SceneLibrary(self.store.own_scenes.folder)
        self.fonts = FontLibrary(self.store)
        self.blanks = BlankShelf(self.store, self.scenes)
        self.artworks = ArtworkLibrary(self.store, self.render_cache, self.reader)
        self.pairs = PairLoader(self.store, self.blanks, self.artworks, self.fonts, self.scenes)
        self.preflight = Preflight(self.store, self.blanks, self.artworks, self.turns)
        self.previews = Previews(self.store, self.blanks, self.artworks, self.scenes, self.render_cache)
        self.own_scenes = PhotoScenes(self.store, self.blanks, self.artworks, self.scenes, self.reader)

    @classmethod
    def of_folder(cls, data: Path, reader: Reader | None = None) -> Services:
        """Return the services of a data folder, and create the folder if it is missing.

        Raises:
            NewerDatabaseError: a newer version of Improva has written the database.
        """
        return cls(Database(data), reader=reader)
