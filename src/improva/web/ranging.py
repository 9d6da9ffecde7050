"""A whole range made from a shell: the same desk and the same jobs as the board's, in a folder of its own."""

from __future__ import annotations

import os
import shutil
import time
from collections.abc import Callable
from pathlib import Path

from pydantic import ValidationError

from ..catalogue import template
from ..core.artwork.pixels import Artwork
from ..core.artwork.reading import read_file
from ..core.artwork.traits import Traits, find_traits
from ..core.errors import ImprovaError
from ..core.output import beside, slug
from ..core.output.writing import sweep
from ..range_file import BadRange, Range
from ..scenes import scenes_of
from ..store import Batches, Database
from .artworks import title_of
from .batch_shapes import BatchBody, LeftOut, PairRef
from .batching import every_scene, planned
from .desk import Desk
from .errands import jobs_of
from .print_shapes import PrintingBody
from .show_shapes import Showing
from .work import Work

RECORDS = ".improva"
"""Folder within the output's that holds what makes a second run short: originals, results by their content, records."""

LOOKED_EVERY_S = 0.2
Told = Callable[[str, float, str], None]
"""Is told what is made, the share that is done of it, and each file that has come."""


def _checked(asked: Range) -> list[Traits]:
    """What each artwork's pixels tell, once all that is asked was found to be there; before anything is written.

    Raises :class:`BadRange`.
    """
    known = {info.id for name in (*asked.templates, *asked.fit) for info in scenes_of(template(name))}
    if strange := [scene for scene in asked.scenes if scene not in known]:
        raise BadRange(f"None of these blanks has a scene '{strange[0]}'. Theirs: {', '.join(sorted(known))}.")
    try:
        Showing(sizes=list(asked.sizes), shots=[])
        PrintingBody.model_validate(asked.printing)
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise BadRange(f"'{first['loc'][0]}' cannot be {first['input']!r}: {first['msg'].lower()}.") from wrong
    found = []
    for path in asked.arts:
        try:
            found.append(find_traits(Artwork.read(read_file(path)).proxy()))
        except ImprovaError as broken:
            raise BadRange(f"{path.name}: {broken}") from broken
    return found


def _laid_out(desk: Desk, asked: Range, traits: list[Traits]) -> list[PairRef]:
    """Put a range's artworks and blanks on the desk."""
    arts = [desk.artworks.add(title_of(path.name), path.name, Artwork.read(read_file(path)), told)
            for path, told in zip(asked.arts, traits, strict=True)]  # fmt: skip
    pairs = [PairRef(artwork_id=art.id, template_id=name) for art in arts for name in asked.templates]
    printing = PrintingBody.model_validate(asked.printing).model_dump()
    for pair in pairs:
        desk.pairs.set_printing(pair.artwork_id, pair.template_id, printing)
        work = desk.work(pair.artwork_id, pair.template_id)
        desk.pairs.move(pair.artwork_id, pair.template_id, -work.row.step)  # what an earlier run was told holds no more
        if (placing := asked.fit.get(pair.template_id)) is not None:
            desk.pairs.place(pair.artwork_id, pair.template_id, {work.template.panels[0].id: placing})
        desk.pairs.set_showing(pair.artwork_id, pair.template_id, _showing(work, asked).model_dump())
    return pairs


def _showing(work: Work, asked: Range) -> Showing:
    every = every_scene(work)
    shots = [shot for shot in every.shots if not asked.scenes or shot.scene_id in asked.scenes]
    return every.model_copy(update={"shots": shots, "sizes": list(asked.sizes), "format": asked.picture_format})


def make_range(asked: Range, folder: Path, tell: Told) -> tuple[int, list[LeftOut]]:
    """Make all that a range asks for; answers with the number of files, and with what could not be made.

    What an earlier run has made is not made again. Raises :class:`BadRange`.
    """
    traits = _checked(asked)
    database = Database(folder / RECORDS)
    desk = Desk(database)
    jobs = jobs_of(desk)
    batches = Batches(database)
    for row in batches.shown():  # of a run that was broken off: what it has made is found by its content
        batches.stop(row.id)
        batches.put_away(row.id)
    database.sweep()
    for place in folder.glob("*/*/"):
        sweep(place)
    files, left_out = 0, list[LeftOut]()
    try:
        pairs = _laid_out(desk, asked, traits)
        for kind in asked.make:
            wanted, left = planned(desk, BatchBody(kind=kind, pairs=pairs))  # type: ignore[arg-type]  # checked when it was read
            left_out += left
            if wanted:
                row_id = batches.add(kind, kind, wanted)
                jobs.wake()
                files += _follow(desk, batches, row_id, folder, tell)
                left_out += [LeftOut(title=title, why=why) for title, why in batches.problems(row_id, 1000)]
    finally:
        jobs.close()
    return files, left_out


def _follow(desk: Desk, batches: Batches, batch_id: int, folder: Path, tell: Told) -> int:
    """Wait for a batch, and lay each of its files out under its telling name as it comes."""
    laid: set[str] = set()
    titles = _folders(desk)
    while True:
        row = batches.get(batch_id)
        assert row is not None
        for artwork_id, template_id, key in batches.files(batch_id):
            if key in laid or (found := desk.made.named(key)) is None:
                continue
            name, source = found
            place = folder / titles.get(artwork_id, str(artwork_id)) / template_id
            _lay(source, place / name)
            laid.add(key)
            tell(row.kind, row.share, str((place / name).relative_to(folder)))
        if not row.under_way:
            return len(laid)
        time.sleep(LOOKED_EVERY_S)


def _folders(desk: Desk) -> dict[int, str]:
    """A folder's name for each artwork: its title, and a number where an earlier one has that already."""
    found: dict[int, str] = {}
    for art in desk.artworks.all():
        name, number = slug(art.title), 2
        while name in found.values():
            name, number = f"{slug(art.title)}-{number}", number + 1
        found[art.id] = name
    return found


def _lay(source: Path, target: Path) -> None:
    target.parent.mkdir(parents=True, exist_ok=True)
    if target.exists() and target.samefile(source):
        return
    with beside(target) as temporary:
        temporary.unlink()
        try:
            os.link(source, temporary)  # the same file under another name takes no more room
        except OSError:
            shutil.copyfile(source, temporary)
