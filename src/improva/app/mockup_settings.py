"""Which mock-ups of a pair are made: its settings, and presets adapted to another blank."""

from __future__ import annotations

from typing import Any

from ..core.errors import SceneError
from ..core.mockup.scene import Region, SceneInfo
from ..store import PresetRow
from ..store.models.mockups import MockupSettings, ShotModel
from ..surfaces import SURFACES
from .errors import NotFoundError
from .pair import Pair
from .services import Services
from .shots import shot_of


def settings_of_pair(pair: Pair) -> MockupSettings:
    """Return a pair's mock-up settings without scenes and colours that no longer exist. The default is the first view."""
    if not pair.row.mockup_settings:
        first = pair.scenes[0]
        return MockupSettings(shots=[ShotModel(scene_id=first.id, view=next(iter(first.views)))])
    mockup_settings = MockupSettings.model_validate(pair.row.mockup_settings)
    regions = [region for info in pair.scenes for region in info.regions]
    variants = {part: [c for c in colours if _has(regions, part, c)] for part, colours in mockup_settings.variants.items()}
    shots = [shot for shot in mockup_settings.shots if _known(pair, shot, mockup_settings)]
    return mockup_settings.model_copy(update={"shots": shots, "variants": variants})


def _has(regions: list[Region], part: str, colour: str) -> bool:
    """Return whether every scene that has a part offers a colour for it."""
    try:
        for region in regions:
            if region.id == part:
                region.check(colour, SURFACES)
    except SceneError:
        return False
    return True


def _known(pair: Pair, shot: ShotModel, mockup_settings: MockupSettings) -> bool:
    try:
        shot_of(pair, shot, mockup_settings)
    except SceneError:
        return False
    return True


def picture_parameters(pair: Pair, settings: MockupSettings) -> dict[str, Any]:
    """Return the parameters of a job that makes pictures of a pair: they say all that the pictures depend on."""
    return {**pair.job_parameters, "colours": pair.row.colours, "mockup_settings": settings.model_dump()}


def find_preset(services: Services, name: str) -> PresetRow:
    """Return a preset by its name.

    Raises:
        NotFoundError: there is no such preset.
    """
    row = next((row for row in services.store.presets.all() if row.name == name), None)
    if row is None:
        raise NotFoundError("There is no preset of that name any more.")
    return row


def fitted(pair: Pair, wanted: MockupSettings) -> MockupSettings:
    """Adapt a preset made with one blank to another: its scenes where they show it, else scenes of the same kind and view."""
    own = {info.id: info for info in pair.scenes}
    shots: list[ShotModel] = []
    for shot in wanted.shots:
        info = own.get(shot.scene_id) or _likest(list(own.values()), shot)
        if info is None:
            continue
        view = shot.view if shot.view in info.views else None
        angle = shot.angle if info.turns else None
        colours = {name: c for name, c in shot.colours.items() if any(r.id == name for r in info.regions)}
        shots.append(
            ShotModel(
                scene_id=info.id,
                view=view if angle is None else None,
                angle=angle,
                colours=colours,
                measured=shot.measured and bool(info.measures),
                close=shot.close,
            )
        )
    unique = {shot.model_dump_json(): shot for shot in shots}
    return wanted.model_copy(update={"shots": list(unique.values())})


def _likest(scenes: list[SceneInfo], shot: ShotModel) -> SceneInfo | None:
    """Return the scene of the same kind as a shot's, recognised by the end of its id; else the first."""
    ending = shot.scene_id.rpartition("-")[2]
    return next((s for s in scenes if s.id.endswith(ending)), scenes[0] if scenes else None)
