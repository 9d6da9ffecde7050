"""Make a whole range from the command line, with the same services and jobs as the board, in its own folder."""

from __future__ import annotations

import hashlib
import os
import shutil
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

from pydantic import ValidationError

from ..app.artworks import title_of
from ..app.batches import SkippedPair, every_scene, plan_batch
from ..app.pair import Pair
from ..app.scenes import SceneLibrary
from ..app.services import Services
from ..catalogue import template
from ..core.artwork.pixels import Artwork
from ..core.artwork.traits import Traits, find_traits
from ..core.errors import ImprovaError
from ..core.output import slug
from ..core.proposal import contain_scale
from ..io.artwork_file import read_file
from ..io.atomic import atomic_path, sweep
from ..io.range_file import Range, RangeError
from ..store import Batches, Database
from ..store.models.mockups import MockupSettings
from ..store.models.printing import PrintingModel
from .handlers import make_dispatcher

RECORDS = ".improva"
"""Folder inside the output folder that makes a second run short: originals, results by content hash, records."""

BATCH_CHECK_S = 0.2
RangeReport = Callable[[str, float, str], None]
"""Called with what is being made, the finished share, and each file as it is written."""


def _checked(plan: Range) -> list[Traits]:
    """Check that all files and blanks of a range exist, and return the traits of each artwork. Nothing is written.

    Raises :class:`RangeError`.
    """
    known = {info.id for name in (*plan.templates, *plan.fit) for info in SceneLibrary().of(template(name))}
    if strange := [scene for scene in plan.scenes if scene not in known]:
        raise RangeError(f"None of these blanks has a scene '{strange[0]}'. Theirs: {', '.join(sorted(known))}.")
    try:
        MockupSettings(sizes=list(plan.sizes), shots=[])
        PrintingModel.model_validate(plan.printing, extra="forbid")
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise RangeError(f"'{first['loc'][0]}' cannot be {first['input']!r}: {first['msg'].lower()}.") from wrong
    problems = []
    for path in plan.arts:
        try:
            problems.append(find_traits(Artwork.read(read_file(path)).proxy()))
        except ImprovaError as broken:
            raise RangeError(f"{path.name}: {broken}") from broken
    return problems


def _without_twins(plan: Range) -> tuple[Range, list[SkippedPair]]:
    """Return a range in which no artwork is the same file as another, and those left out."""
    first: dict[str, Path] = {}
    left_out = []
    for path in plan.arts:
        before = first.setdefault(hashlib.sha256(read_file(path)).hexdigest(), path)
        if before is not path:
            left_out.append(SkippedPair(title=path.name, why=f"it is the same file as {before.name}, byte for byte"))
    return replace(plan, arts=tuple(first.values())), left_out


def _laid_out(services: Services, plan: Range, traits: list[Traits]) -> list[tuple[int, str]]:
    """Add a range's artworks and blanks to the data folder."""
    arts = [
        services.store.artworks.add(title_of(path.name), path.name, Artwork.read(read_file(path)), found_traits)
        for path, found_traits in zip(plan.arts, traits, strict=True)
    ]
    pairs = [(art.id, name) for art in arts for name in plan.templates]
    printing = PrintingModel.model_validate(plan.printing).model_dump()
    for artwork_id, template_id in pairs:
        services.store.pairs.set_printing(artwork_id, template_id, printing)
        pair = services.pairs.load(artwork_id, template_id)
        services.store.pairs.move(artwork_id, template_id, -pair.row.step)  # settings of an earlier run no longer apply
        if (placement := plan.fit.get(template_id)) is not None:
            panel = pair.template.panels[0]
            if template_id in plan.roomy and pair.art.traits is not None:
                placement = placement.changed(scale=contain_scale(panel, pair.art.traits.kind))
            services.store.pairs.place(artwork_id, template_id, {panel.id: placement})
        services.store.pairs.set_mockup_settings(artwork_id, template_id, _mockup_settings(pair, plan).model_dump())
    return pairs


def _mockup_settings(pair: Pair, plan: Range) -> MockupSettings:
    every = every_scene(pair)
    shots = [shot for shot in every.shots if not plan.scenes or shot.scene_id in plan.scenes]
    return every.model_copy(update={"shots": shots, "sizes": list(plan.sizes), "format": plan.picture_format})


def make_range(plan: Range, folder: Path, report: RangeReport) -> tuple[int, list[SkippedPair]]:
    """Make all files of a range, and return their number and what could not be made.

    What an earlier run has made is not made again. Raises :class:`RangeError`.
    """
    plan, left_out = _without_twins(plan)
    traits = _checked(plan)
    database = Database(folder / RECORDS)
    services = Services(database)
    jobs = make_dispatcher(services)
    batches = Batches(database)
    for row in batches.shown():  # left by an interrupted run: its results are found by their content
        batches.stop(row.id)
        batches.put_away(row.id)
    database.sweep()
    for place in folder.glob("*/*/"):
        sweep(place)
    files = 0
    try:
        pairs = _laid_out(services, plan, traits)
        for kind in plan.make:
            wanted, left = plan_batch(services, kind, pairs)  # type: ignore[arg-type]  # checked when the file was read
            left_out += left
            if wanted:
                row_id = batches.add(kind, kind, wanted)
                jobs.wake()
                files += _follow(services, batches, row_id, folder, report)
                left_out += [SkippedPair(title=title, why=why) for title, why in batches.problems(row_id, 1000)]
    finally:
        jobs.close()
    return files, left_out


def _follow(services: Services, batches: Batches, batch_id: int, folder: Path, report: RangeReport) -> int:
    """Wait for a batch, and copy each finished file to its name in the output folder."""
    linked: set[str] = set()
    titles = _folders(services)
    while True:
        row = batches.get(batch_id)
        assert row is not None
        for artwork_id, template_id, key in batches.files(batch_id):
            if key in linked or (file := services.store.made_files.named(key)) is None:
                continue
            name, source = file
            place = folder / titles.get(artwork_id, str(artwork_id)) / template_id
            _lay(source, place / name)
            linked.add(key)
            report(row.kind, row.share, str((place / name).relative_to(folder)))
        if not row.under_way:
            return len(linked)
        time.sleep(BATCH_CHECK_S)


def _folders(services: Services) -> dict[int, str]:
    """Return a folder name for each artwork: its title, with a number where titles repeat."""
    folders: dict[int, str] = {}
    for art in services.store.artworks.all():
        name, number = slug(art.title), 2
        while name in folders.values():
            name, number = f"{slug(art.title)}-{number}", number + 1
        folders[art.id] = name
    return folders


def _lay(source: Path, target: Path) -> None:
    target.parent.mkdir(parents=True, exist_ok=True)
    if target.exists() and target.samefile(source):
        return
    with atomic_path(target) as temporary:
        temporary.unlink()
        try:
            os.link(source, temporary)  # the same file under another name takes no more room
        except OSError:
            shutil.copyfile(source, temporary)
