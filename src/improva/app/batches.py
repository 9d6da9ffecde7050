"""The jobs of a batch: many pairs at once."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any, Literal

from ..catalogue import order
from ..core.errors import ImprovaError, OutputError
from ..store import NewJob
from ..store.models.mockups import MockupSettings, ShotModel
from .listing_packs import pack_job_of
from .mockup_settings import find_preset, fitted, picture_parameters, settings_of_pair
from .pair import Pair
from .print_plans import plan_of, printing_of
from .services import Services

BatchKind = Literal["pictures", "print", "listing"]


@dataclass(frozen=True)
class SkippedPair:
    """A pair that a batch leaves out, and the reason."""

    title: str
    why: str


def every_scene(pair: Pair) -> MockupSettings:
    """List each scene of a blank once, in its first view."""
    return MockupSettings(shots=[ShotModel(scene_id=info.id, view=next(iter(info.views))) for info in pair.scenes])


def picture_jobs(pair: Pair, look: MockupSettings | None) -> Iterator[tuple[str, NewJob]]:
    """Return a job for each scene of a pair with its sort key. Jobs of one scene run in a row, so that it is lit once.

    Raises :class:`OutputError` where no scene is selected.
    """
    if not pair.printed:
        raise OutputError("nothing is printed on it yet")
    mockup_settings = fitted(pair, look) if look else settings_of_pair(pair) if pair.row.mockup_settings else every_scene(pair)
    if not mockup_settings.shots:
        raise OutputError("no scene is chosen")
    for scene_id in dict.fromkeys(shot.scene_id for shot in mockup_settings.shots):
        one = mockup_settings.model_copy(
            update={"shots": [s for s in mockup_settings.shots if s.scene_id == scene_id], "sheet": False, "listed": False}
        )
        yield scene_id, NewJob("pictures", picture_parameters(pair, one), f"{pair.title}: {scene_id}", *pair.ids)


def print_jobs(services: Services, pair: Pair) -> Iterator[tuple[str, NewJob]]:
    """Return the job of a pair's print files. Raises :class:`OutputError` where there are none."""
    panels = pair.printed
    if not panels:
        raise OutputError("nothing is printed on it yet")
    printing = printing_of(pair)
    for panel in panels:
        if problem := plan_of(services, pair, panel, printing).problem:
            raise OutputError(problem)
    side = None if len(panels) > 1 else panels[0].id
    parameters = {**pair.job_parameters, "panel": side, "printing": printing.model_dump()}
    yield "", NewJob("print", parameters, f"{pair.title}: print files", *pair.ids)


def listing_jobs(services: Services, pair: Pair) -> Iterator[tuple[str, NewJob]]:
    """Return the job of a pair's listing pack. Raises :class:`ListingError` where the pair must not or cannot be listed."""
    yield "", NewJob("listing", pack_job_of(services, pair), f"{pair.title}: listing pack", *pair.ids)


def jobs_of_kind(services: Services, pair: Pair, kind: BatchKind, look: MockupSettings | None) -> Iterator[tuple[str, NewJob]]:
    """Return a pair's jobs of a batch, each with its sort key."""
    if kind == "pictures":
        return picture_jobs(pair, look)
    return print_jobs(services, pair) if kind == "print" else listing_jobs(services, pair)


def plan_batch(
    services: Services, kind: BatchKind, pairs: Iterable[tuple[int, str]], preset: str | None = None
) -> tuple[list[NewJob], list[SkippedPair]]:
    """Return the jobs of a batch in their best order, and the pairs that are left out.

    Args:
        kind: what is made.
        pairs: ids of artworks and blanks.
        preset: the name of a preset for mock-ups; without one, what each pair has chosen, or all its scenes.

    Raises:
        NotFoundError: there is no such preset or artwork.
    """
    look = MockupSettings.model_validate(find_preset(services, preset).mockup_settings) if preset is not None else None
    planned: list[tuple[tuple[Any, ...], NewJob]] = []
    left_out = []
    for artwork_id, template_id in dict.fromkeys(pairs):
        pair = services.pairs.load(artwork_id, template_id)
        try:
            jobs = list(jobs_of_kind(services, pair, kind, look))
        except ImprovaError as problem:
            left_out.append(SkippedPair(title=pair.title, why=str(problem)))
            continue
        planned += [((order(pair.template), pair.template.id, scene, artwork_id), job) for scene, job in jobs]
    return [job for _, job in sorted(planned, key=lambda each: each[0])], left_out
