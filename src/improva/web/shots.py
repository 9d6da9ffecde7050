"""Which scenes are pictured, how, against the scenes there are."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field, replace

from ..core.errors import BadScene
from ..core.mockup.grade import PLAIN, Grade
from ..core.mockup.labels import Caption
from ..core.mockup.picture import check_scene
from ..core.mockup.scene import SceneInfo
from ..scenes import scene
from ..surfaces import SURFACES
from .show_shapes import MOST_SHOTS, BackdropBody, ShotBody, Showing
from .work import Work


@dataclass(frozen=True)
class Shot:
    """A scene as it is pictured."""

    info: SceneInfo
    view: str
    angle: float
    mirrored: bool = False
    colours: dict[str, str | None] = field(default_factory=dict)
    grade: Grade = PLAIN
    clear: bool = False
    measured: bool = False
    close: bool = False
    captions: tuple[Caption, ...] = ()
    backdrop: BackdropBody | None = None
    named_by: tuple[str, ...] = ()
    places: dict[str, int] = field(default_factory=dict)

    @property
    def name(self) -> str:
        """What tells its file from others of the same scene."""
        return "-".join(
            [
                self.view,
                *self.named_by,
                *(["size"] if self.measured else []),
                *(["detail"] if self.close else []),
                *(["clear"] if self.clear else ["on-photo"] if self.backdrop else []),
            ]
        )


def shot_of(work: Work, asked: ShotBody, showing: Showing) -> Shot:
    """What is asked, against the scenes there are. Raises :class:`BadScene`."""
    info = scene(asked.scene_id, work.template)
    check_scene(info, work.template)
    if asked.angle is not None and not info.turns:
        raise BadScene(f"{info.title} does not turn: choose one of its views, {', '.join(info.views)}.")
    view = asked.view if asked.angle is None else f"{asked.angle:g}deg"
    angle = info.angle(asked.view) if asked.angle is None else asked.angle
    colours = {name: colour for name, colour in {**work.row.colours, **asked.colours}.items()
               if any(r.id == name for r in info.regions)}  # fmt: skip
    for name, colour in colours.items():
        info.region(name).check(colour, SURFACES)
    return Shot(info, view or next(iter(info.views)), angle, asked.view in info.mirrored, colours, showing.grade.to_core(),
                showing.clear, asked.measured, asked.close, tuple(c.to_core() for c in showing.captions), showing.backdrop,
                places=_places(work, info, showing))  # fmt: skip


def _places(work: Work, info: SceneInfo, showing: Showing) -> dict[str, int]:
    """The artworks that other places of a scene show; the pair's own needs no word."""
    known = {r.id for r in info.places}
    return {place: art for place, art in showing.places.get(info.id, {}).items() if place in known and art != work.art.id}


def shots_of(work: Work, showing: Showing) -> list[Shot]:
    """Every shot that is asked, in each of the colours that are asked of its parts. Raises :class:`BadScene`."""
    found = []
    for each in showing.shots:
        info = scene(each.scene_id, work.template)
        parts = [(r.id, showing.variants[r.id]) for r in info.regions if showing.variants.get(r.id)]
        for chosen in itertools.product(*(colours for _, colours in parts)):
            more = dict(zip((part for part, _ in parts), chosen, strict=True))
            asked = each.model_copy(update={"colours": {**each.colours, **more}})
            found.append(replace(shot_of(work, asked, showing), named_by=tuple(chosen)))
    if len(found) > MOST_SHOTS:
        raise BadScene(f"These are {len(found)} pictures, and {MOST_SHOTS} are made at once: choose fewer scenes or colours.")
    return found
