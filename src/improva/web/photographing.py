"""Marked photographs of one data folder, and the scenes they make."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ..core.artwork.pixels import as_array
from ..core.errors import BadScene, ImprovaError
from ..core.mockup.pack_zip import FILES, unzip_pack
from ..core.mockup.photo import PHOTO_PX, PhotoScene, goes_round, make_scene, names_of, suggested
from ..core.output import slug
from ..core.render import on_blank
from ..core.template import Panel, Template
from ..scenes import packs
from ..store import OwnSceneRow
from ..store.database import key_of
from ..work.room import Kept, Room
from .desk import Desk
from .own_scene_shapes import MarksBody, OwnSceneState
from .problems import NotHere

PREVIEW_PX = 1000
LEFT_OUT = (26, 30, 28, 150)
"""What does not belong to the product is laid over with this, R, G, B, alpha."""


class Photographing:
    """Marked photographs of one data folder, and the scenes they make."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self._drafts: Kept[PhotoScene | ImprovaError] = Kept(Room(4))

    def row(self, scene_id: int) -> OwnSceneRow:
        """One of them. Raises :class:`NotHere`."""
        found = self.desk.own_scenes.get(scene_id)
        if found is None:
            raise NotHere("There is no scene of yours of that number any more.")
        return found

    def photo(self, row: OwnSceneRow, most_px: int) -> NDArray[np.uint8]:
        """The photograph (h, w, 3), upright, no larger than that. Raises :class:`NotHere` for one that came as a file."""
        if row.photo_id is None:
            raise NotHere("This scene came as a file, and has no photograph to mark.")
        image = on_blank(self.desk.original(self.desk.art(row.photo_id)).image((1, 1)))
        return as_array(image.thumbnail_image(most_px, height=most_px, size="down"))

    def known(self, row: OwnSceneRow) -> tuple[Template, Panel, MarksBody]:
        """The blank and panel it shows, and what is marked or suggested. Raises :class:`BadTemplate`."""
        template = self.desk.template(row.template_id)
        panel = template.panel(row.panel_id)
        held = row.marks or {"points": suggested(panel), "colour": template.blank_colour}
        return template, panel, MarksBody.model_validate(held)

    def key(self, row: OwnSceneRow) -> str:
        """A hash of all that the scene depends on."""
        template, panel, marks = self.known(row)
        return key_of(row.photo_id, template.id, repr(panel), marks.model_dump())[:16]

    def draft(self, row: OwnSceneRow) -> PhotoScene:
        """The scene at looking size, made once for each state of its marks. Raises what :func:`make_scene` does."""

        def make() -> PhotoScene | ImprovaError:
            template, panel, marks = self.known(row)
            try:
                return make_scene(self.photo(row, PREVIEW_PX), template, panel, marks.to_core(), f"draft-{row.id}", row.title)
            except ImprovaError as problem:
                return problem

        found = self._drafts.get(self.key(row), make)
        if isinstance(found, ImprovaError):
            raise found
        return found

    def state(self, row: OwnSceneRow) -> OwnSceneState:
        """A scene as it is answered."""
        template, panel, marks = self.known(row)
        w, h = self.desk.art(row.photo_id or 0).facts.px
        outline, said, problem = list[tuple[float, float]](), list[str](), None
        try:
            draft = self.draft(row)
            size = draft.told["px"]
            outline = [(x / size[0], y / size[1]) for x, y in draft.place.outline]
            said = draft.said
        except ImprovaError as wrong:
            problem = str(wrong)
        return OwnSceneState(
            id=row.id, title=row.title, template=template.id, template_title=template.title, panel=panel.id,
            panels={p.id: p.title for p in template.panels}, photo_id=row.photo_id or 0, px=(w, h), marks=marks,
            names=list(names_of(panel)), round=goes_round(panel), outline=outline, said=said, problem=problem,
            key=self.key(row), pack=row.pack,
        )  # fmt: skip

    def make(self, row: OwnSceneRow) -> str:
        """Make the scene at full size, a pack as any other; answers with its id."""
        template, panel, marks = self.known(row)
        name = row.pack or f"own-{slug(row.title)}-{row.id}"
        made = make_scene(self.photo(row, PHOTO_PX), template, panel, marks.to_core(), name, row.title)
        self.desk.own_scenes.put_pack(name, made.write)
        self.desk.own_scenes.set_pack(row.id, name)
        self.desk.forget_templates()
        return name

    def take_in(self, data: bytes) -> OwnSceneRow:
        """A pack that comes as a ZIP. Raises :class:`BadScene`."""
        with tempfile.TemporaryDirectory() as place:
            info = unzip_pack(data, Path(place))
            if info.id != slug(info.id):
                raise BadScene(f"'{info.id}' cannot be a scene's id: small letters, digits and hyphens only.")
            if info.id in packs():
                raise BadScene(f"There is a scene '{info.id}' already: take it away first, or give this one another id.")
            shown = [self.desk.templates()[i] for i in info.templates if i in self.desk.templates()]
            if not shown:
                raise BadScene(f"This scene shows {', '.join(info.templates)}, which is not on the shelf of blanks.")
            for region in info.regions:
                if region.panel:
                    shown[0].panel(region.panel)
            self.desk.own_scenes.put_pack(info.id, lambda folder: _copy(Path(place), folder))
        row = self.desk.own_scenes.add(None, shown[0].id, info.printed().panel or "", info.title, info.id)
        self.desk.forget_templates()
        return row


def _copy(source: Path, target: Path) -> None:
    for name in FILES:
        if (source / name).exists():
            shutil.copyfile(source / name, target / name)


def left_out(cover: NDArray[np.float32]) -> NDArray[np.uint8]:
    """What does not belong to the product, as (h, w, 4) to be laid over the photograph."""
    over = np.empty((*cover.shape, 4), np.uint8)
    over[:] = LEFT_OUT
    over[..., 3] = (LEFT_OUT[3] * (1 - np.clip(cover, 0, 1)) + 0.5).astype(np.uint8)
    return over
