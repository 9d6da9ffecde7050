"""Mock-ups: settings, presets, pictures and films of a pair."""

from __future__ import annotations

from typing import Any

from ...app.edits import editing
from ...app.mockup_settings import find_preset, fitted, picture_parameters, settings_of_pair
from ...app.pair import Pair
from ...app.shots import shot_of, shots_of
from ...core.errors import SceneError
from ...store import PresetRow
from ...store.models.mockups import MockupSettings, ShotModel
from ..context import jobs, load_pair, services
from ..presenters.jobs import job_out
from ..presenters.mockups import mockups_out
from ..routing import Routes
from ..schemas.common import PAIR_AT, EditQuery, PairPath
from ..schemas.mockups import (
    FilmIn,
    MockupSettingsIn,
    MockupStateOut,
    PairPresetPath,
    PresetIn,
    PresetListOut,
    PresetOut,
    PresetPath,
)
from ..schemas.printing import JobOut

api = Routes("mockup_settings")


def _start(pair: Pair, kind: str, more: dict[str, Any], title: str) -> dict[str, Any]:
    parameters = {**picture_parameters(pair, settings_of_pair(pair)), **more}
    return job_out(services, jobs.start(kind, parameters, f"{title} of {pair.title}", *pair.ids)).model_dump()


@api.get(f"{PAIR_AT}/mockup-settings", responses={200: MockupStateOut})
def get_mockup_settings(path: PairPath) -> dict[str, Any]:
    """Return a pair's mock-up settings and findings."""
    return mockups_out(load_pair(path)).model_dump()


@api.put(f"{PAIR_AT}/mockup-settings", responses={200: MockupStateOut})
def set_mockup_settings(path: PairPath, query: EditQuery, body: MockupSettingsIn) -> dict[str, Any]:
    """Set a pair's mock-up settings."""
    pair = load_pair(path)
    shots_of(pair, body)  # refuses impossible settings before they are stored
    for artwork_id in {art for places in body.places.values() for art in places.values()}:
        services.artworks.get(artwork_id)
    edited = body.model_dump()
    with editing(services.store.database, query.based_on, lambda: settings_of_pair(load_pair(path)).model_dump(), edited):
        services.store.pairs.set_mockup_settings(path.artwork_id, path.template_id, edited)
    return mockups_out(load_pair(path)).model_dump()


@api.post(f"{PAIR_AT}/mockup-job", responses={200: JobOut})
def make_mockups(path: PairPath) -> dict[str, Any]:
    """Start a job that makes all selected pictures.

    Raises :class:`SceneError` where no scene is selected.
    """
    pair = load_pair(path)
    if not settings_of_pair(pair).shots:
        raise SceneError("No scene is chosen: select one first.")
    return _start(pair, "pictures", {}, "Pictures")


@api.post(f"{PAIR_AT}/film-job", responses={200: JobOut})
def make_film(path: PairPath, body: FilmIn) -> dict[str, Any]:
    """Start a job that films one turn of the blank."""
    pair = load_pair(path)
    shot_of(pair, ShotModel(scene_id=body.scene_id, angle=0), settings_of_pair(pair))  # refuses a blank that does not rotate
    return _start(pair, "film", {"film": body.model_dump()}, "Film")


@api.get("/api/presets", responses={200: PresetListOut})
def list_presets() -> dict[str, Any]:
    """List all presets."""
    return _presets().model_dump()


def _presets() -> PresetListOut:
    return PresetListOut(
        presets=[
            PresetOut(name=row.name, mockup_settings=MockupSettings.model_validate(row.mockup_settings), colours=row.colours)
            for row in services.store.presets.all()
        ]
    )


@api.put("/api/presets/<name>", responses={200: PresetListOut})
def save_preset(path: PresetPath, body: PresetIn) -> dict[str, Any]:
    """Save mock-up settings as a preset."""
    services.store.presets.keep(PresetRow(path.name, body.mockup_settings.model_dump(), body.colours))
    return _presets().model_dump()


@api.delete("/api/presets/<name>", responses={200: PresetListOut})
def remove_preset(path: PresetPath) -> dict[str, Any]:
    """Remove a preset."""
    services.store.presets.forget(path.name)
    return _presets().model_dump()


@api.post(f"{PAIR_AT}/presets/<name>", responses={200: MockupStateOut})
def apply_preset(path: PairPresetPath) -> dict[str, Any]:
    """Apply a preset to a pair, with scenes that show its blank or else its own scenes of the same kind."""
    row = find_preset(services, path.name)
    pair = load_pair(path)
    wanted = MockupSettings.model_validate(row.mockup_settings)
    services.store.pairs.set_mockup_settings(pair.art.id, pair.template.id, fitted(pair, wanted).model_dump())
    colours = {**pair.row.colours, **row.colours}
    services.store.pairs.set_choices(pair.art.id, pair.template.id, pair.row.route, pair.row.angle, colours)
    return mockups_out(load_pair(path)).model_dump()
