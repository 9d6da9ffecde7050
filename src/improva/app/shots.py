"""Shots: requested pictures, checked against the scenes that exist."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field, replace

from ..core.errors import SceneError
from ..core.mockup.grade import PLAIN, Grade
from ..core.mockup.labels import Caption
from ..core.mockup.render import check_scene
from ..core.mockup.scene import SceneInfo
from ..store.models.mockups import MOST_SHOTS, BackdropModel, MockupSettings, ShotModel
from ..surfaces import SURFACES
from .pair import Pair


@dataclass(frozen=True)
class Shot:
    """A scene with all that decides its picture; ``camera`` adds what a camera would."""

    info: SceneInfo
    view: str
    angle: float
    mirrored: bool = False
    colours: dict[str, str | None] = field(default_factory=dict)
    grade: Grade = PLAIN
    camera: bool = False
    clear: bool = False
    measured: bool = False
    close: bool = False
    captions: tuple[Caption, ...] = ()
    backdrop: BackdropModel | None = None
    named_by: tuple[str, ...] = ()
    places: dict[str, int] = field(default_factory=dict)

    @property
    def name(self) -> str:
        """Return the part of the file name that differs between shots of one scene."""
        return "-".join(
            [
                self.view,
                *self.named_by,
                *(["size"] if self.measured else []),
                *(["detail"] if self.close else []),
                *(["clear"] if self.clear else ["on-photo"] if self.backdrop else []),
            ]
        )


def shot_of(pair: Pair, model: ShotModel, mockup_settings: MockupSettings) -> Shot:
    """Check one request and return its shot. Raises :class:`SceneError`."""
    info = pair.scene(model.scene_id)
    check_scene(info, pair.template)
    if model.angle is not None and not info.turns:
        raise SceneError(f"{info.title} does not turn: choose one of its views, {', '.join(info.views)}.")
    view = model.view if model.angle is None else f"{model.angle:g}deg"
    angle = info.angle(model.view) if model.angle is None else model.angle
    colours = {
        name: colour
        for name, colour in {**pair.row.colours, **model.colours}.items()
        if any(r.id == name for r in info.regions)
    }
    for name, colour in colours.items():
        info.region(name).check(colour, SURFACES)
    return Shot(
        info,
        view or next(iter(info.views)),
        angle,
        info.is_mirrored(model.view),
        colours,
        mockup_settings.grade.to_core(),
        mockup_settings.camera,
        mockup_settings.clear,
        model.measured,
        model.close,
        tuple(c.to_core() for c in mockup_settings.captions),
        mockup_settings.backdrop,
        places=_places(pair, info, mockup_settings),
    )


def _places(pair: Pair, info: SceneInfo, mockup_settings: MockupSettings) -> dict[str, int]:
    """Return the artworks that other places of a scene show, without the pair's own."""
    known = {r.id for r in info.places}
    return {
        place: art for place, art in mockup_settings.places.get(info.id, {}).items() if place in known and art != pair.art.id
    }


def shots_of(pair: Pair, mockup_settings: MockupSettings) -> list[Shot]:
    """Return every requested shot, in each of the colours requested for its parts. Raises :class:`SceneError`."""
    shots = []
    for each in mockup_settings.shots:
        info = pair.scene(each.scene_id)
        parts = [(r.id, mockup_settings.variants[r.id]) for r in info.regions if mockup_settings.variants.get(r.id)]
        for chosen in itertools.product(*(colours for _, colours in parts)):
            more = dict(zip((part for part, _ in parts), chosen, strict=True))
            model = each.model_copy(update={"colours": {**each.colours, **more}})
            shots.append(replace(shot_of(pair, model, mockup_settings), named_by=tuple(chosen)))
    if len(shots) > MOST_SHOTS:
        raise SceneError(f"These are {len(shots)} pictures, and {MOST_SHOTS} are made at once: choose fewer scenes or colours.")
    return shots
