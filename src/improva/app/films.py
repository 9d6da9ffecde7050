"""A pair's turntable films, each made once."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..core.mockup.turntable import check_turns, turning
from ..core.output import film_name
from ..core.progress import Progress
from ..io.film import write_film
from ..stages import versions
from ..store.database import key_of
from ..store.models.mockups import FilmModel, MockupSettings, ShotModel
from .made_files import MadeFile, keep_file
from .mockups import lit_shot, others_key
from .pair import Pair
from .scenes import fingerprint
from .services import Services
from .shots import shot_of


def film_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job that makes a film."""
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    film, settings = FilmModel.model_validate(parameters["film"]), MockupSettings.model_validate(parameters["mockup_settings"])
    return [make_film(services, pair, film, settings, progress)[0]]


def make_film(services: Services, pair: Pair, film: FilmModel, mockup_settings: MockupSettings, progress: Progress) -> MadeFile:
    """Return a turning film's key, name and path. It is made unless it exists. Raises :class:`SceneError`."""
    shot = shot_of(pair, ShotModel(scene_id=film.scene_id), mockup_settings)
    check_turns(shot.info)
    name = film_name(pair.art.title, shot.info.id, film.seconds, film.size, film.format)
    key = key_of(
        "film",
        versions("mockups", "packs"),
        pair.subject,
        fingerprint(shot.info),
        pair.placement_key,
        name,
        shot.colours,
        repr(shot.grade),
        others_key(services, pair, shot),
    )

    def make(path: Path) -> None:
        shaded, prints = lit_shot(services, pair, shot, film.size)
        write_film(path, turning(shaded, prints), film.seconds, progress)

    return keep_file(services, pair, "picture", key, name, make)
