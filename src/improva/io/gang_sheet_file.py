"""Write a gang sheet as a PDF, each print at its true size."""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path

import pyvips

from ..core.output.gang_sheet import GangPlan
from ..core.output.marks import Marks
from ..core.output.print_image import Print
from ..core.progress import UNWATCHED, Progress
from ..core.render import on_blank
from .atomic import atomic_path, temporary_prefix
from .pdf import Page, PlacedPicture, write_pages
from .print_file import write_error


def write_gang(
    plan: GangPlan, open_print: Callable[[int], Print], path: Path, cut_lines: bool = True, progress: Progress = UNWATCHED
) -> None:
    """Write a gang sheet as a PDF, one page for each sheet.

    Args:
        open_print: returns an item's print; called once per item.
        cut_lines: dashed lines round every print.

    Raises:
        OutputError, ArtworkError, Stopped: as :func:`write_print`.
    """
    try:
        with (
            atomic_path(path) as temporary,
            tempfile.TemporaryDirectory(dir=path.parent, prefix=temporary_prefix("gang")) as folder,
        ):
            done = sorted({put.item for put in plan.puts})
            images = {}
            profile: bytes | None = None
            for n, item in enumerate(done):
                print_image = open_print(item)
                profile = print_image.profile
                copy = Path(folder) / f"{item}.v"
                progress.part(0.7 * n / len(done), 0.7 * (n + 1) / len(done)).follow(on_blank(print_image.image)).write_to_file(
                    str(copy)
                )
                images[item] = pyvips.Image.new_from_file(str(copy))
            write_pages(_pages(plan, images, cut_lines, progress), temporary, profile)
    except pyvips.Error as broken:
        progress.check()
        raise write_error(broken, path) from broken


def _pages(plan: GangPlan, images: dict[int, pyvips.Image], cut_lines: bool, progress: Progress) -> Iterator[Page]:
    turned: dict[int, pyvips.Image] = {}
    for number, size in enumerate(plan.sheets_mm):
        puts = [put for put in plan.puts if put.sheet == number]
        marks = Marks(size[1])
        if cut_lines:
            for put in puts:
                marks.box(*put.box, dashed=True)
        for put in puts:
            if put.turned and put.item not in turned:
                turned[put.item] = images[put.item].rot90()
        yield Page(
            size, tuple(PlacedPicture((turned if put.turned else images)[put.item], put.box) for put in puts), marks.content()
        )
        progress.at(0.7 + 0.29 * (number + 1) / len(plan.sheets_mm))
