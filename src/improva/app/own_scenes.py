"""The seller's own scenes: marked photographs and imported scene packs."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import as_array
from ..core.errors import ImprovaError, SceneError
from ..core.mockup.photo import PHOTO_PX, PhotoScene, make_scene, suggested
from ..core.output import slug
from ..core.render import on_blank
from ..core.template import Panel, Template
from ..io.atomic import work_folder
from ..io.scene_pack import read_info
from ..io.scene_pack_writer import write_photo_scene
from ..io.scene_pack_zip import FILES
from ..sandbox import Reader
from ..store import OwnSceneRow, Store
from ..store.database import key_of
from ..store.models.photo_marks import MarksModel
from .artworks import ArtworkLibrary
from .blanks import BlankShelf
from .cache import Memo, SizedLru
from .errors import NotFoundError
from .foreign_files import SCENE_PACK
from .scenes import SceneLibrary

PREVIEW_PX = 1000
LEFT_OUT = (26, 30, 28, 150)
"""Colour drawn over what does not belong to the product: R, G, B, alpha."""


class PhotoScenes:
    """The marked photographs of one data folder and their scenes."""

    def __init__(
        self, store: Store, blanks: BlankShelf, artworks: ArtworkLibrary, scenes: SceneLibrary, reader: Reader
    ) -> None:
        self._reader = reader
        self._store, self._blanks, self._artworks, self._scenes = store, blanks, artworks, scenes
        self._drafts: Memo[PhotoScene | ImprovaError] = Memo(SizedLru(4))

    def row(self, scene_id: int) -> OwnSceneRow:
        """Return the row of a scene. Raises :class:`NotFoundError`."""
        scene = self._store.own_scenes.get(scene_id)
        if scene is None:
            raise NotFoundError("This scene no longer exists.")
        return scene

    def photo(self, row: OwnSceneRow, most_px: int) -> NDArray[np.uint8]:
        """Return the photograph (h, w, 3), upright, no larger than ``most_px``. Raises :class:`NotFoundError` for an imported pack."""
        if row.photo_id is None:
            raise NotFoundError("This scene came as a file, and has no photograph to mark.")
        image = on_blank(self._artworks.open(self._artworks.get(row.photo_id)).image((1, 1)))
        return as_array(image.thumbnail_image(most_px, height=most_px, size="down"))

    def known(self, row: OwnSceneRow) -> tuple[Template, Panel, MarksModel]:
        """Return the blank, the panel, and the stored or suggested marks. Raises :class:`TemplateError`."""
        template = self._blanks.get(row.template_id)
        panel = template.panel(row.panel_id)
        marks = row.marks or {"points": suggested(panel), "colour": template.blank_colour}
        return template, panel, MarksModel.model_validate(marks)

    def key(self, row: OwnSceneRow) -> str:
        """Return a hash of all that the scene depends on."""
        template, panel, marks = self.known(row)
        return key_of(row.photo_id, template.id, repr(panel), marks.model_dump())[:16]

    def marked(self, row: OwnSceneRow) -> list[Any]:
        """Return what a seller edits, as a JSON value: panel, title and marks."""
        return [row.panel_id, row.title, self.known(row)[2].model_dump()]

    def draft(self, row: OwnSceneRow) -> PhotoScene:
        """Return the scene at preview size, made once per state of its marks. Raises what :func:`make_scene` raises."""

        def make() -> PhotoScene | ImprovaError:
            template, panel, marks = self.known(row)
            try:
                return make_scene(self.photo(row, PREVIEW_PX), template, panel, marks.to_core(), f"draft-{row.id}", row.title)
            except ImprovaError as problem:
                return problem

        cached = self._drafts.get(self.key(row), make)
        if isinstance(cached, ImprovaError):
            raise cached
        return cached

    def make(self, row: OwnSceneRow) -> str:
        """Write the scene at full size as a scene pack, and return its id."""
        template, panel, marks = self.known(row)
        name = row.pack or f"own-{slug(row.title)}-{row.id}"
        scene = make_scene(self.photo(row, PHOTO_PX), template, panel, marks.to_core(), name, row.title)
        self._store.own_scenes.put_pack(name, lambda folder: write_photo_scene(scene, folder))
        self._store.own_scenes.set_pack(row.id, name)
        self._blanks.refresh()
        return name

    def take_in(self, data: bytes) -> OwnSceneRow:
        """Import a scene pack from a ZIP. Raises :class:`SceneError`."""
        with work_folder(self._store.database.work, "pack") as place:
            self._reader.read(SCENE_PACK, data, str(place))
            info = read_info(place)
            if info.id != slug(info.id):
                raise SceneError(f"'{info.id}' cannot be a scene's id: small letters, digits and hyphens only.")
            if info.id in self._scenes.packs():
                raise SceneError(f"There is a scene '{info.id}' already: remove it first, or give this one another id.")
            shown = [self._blanks.all()[i] for i in info.templates if i in self._blanks.all()]
            if not shown:
                raise SceneError(f"This scene shows {', '.join(info.templates)}, which is not on the shelf of blanks.")
            for region in info.regions:
                if region.panel:
                    shown[0].panel(region.panel)
            self._store.own_scenes.put_pack(info.id, lambda folder: _copy(place, folder))
        row = self._store.own_scenes.add(None, shown[0].id, info.printed().panel or "", info.title, info.id)
        self._blanks.refresh()
        return row


def _copy(source: Path, target: Path) -> None:
    for name in FILES:
        if (source / name).exists():
            shutil.copyfile(source / name, target / name)


def left_out(cover: NDArray[np.float32]) -> NDArray[np.uint8]:
    """Return the mask of what lies in front of the product, (h, w, 4), as an overlay on the photograph."""
    over = np.empty((*cover.shape, 4), np.uint8)
    over[:] = LEFT_OUT
    over[..., 3] = (LEFT_OUT[3] * (1 - np.clip(cover, 0, 1)) + 0.5).astype(np.uint8)
    return over
