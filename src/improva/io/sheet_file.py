"""Write a print split into sheets as one PDF with an assembly page."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pyvips

from ..core.artwork.pixels import resized
from ..core.errors import OutputError
from ..core.output.marks import Marks
from ..core.output.print_image import Print
from ..core.output.sheets import Part, SheetPlan, joins
from ..core.progress import UNWATCHED, Progress
from ..core.render import on_blank
from ..core.template import Box
from ..core.units import inches
from .atomic import atomic_path
from .pdf import Page, PlacedPicture, write_pages
from .print_file import write_error

ASSEMBLY_PX = 1400
LONGEST_MARK_MM = 4.0
LABEL_IN_MM = 20.0


def _crop(image: pyvips.Image, box: Box, per_mm: tuple[float, float]) -> tuple[pyvips.Image, Box]:
    """Return the pixels nearest to a box, and their exact box."""
    x, y, w, h = box
    left, top = round(x * per_mm[0]), round(y * per_mm[1])
    right, bottom = min(image.width, round((x + w) * per_mm[0])), min(image.height, round((y + h) * per_mm[1]))
    part = image.crop(left, top, max(1, right - left), max(1, bottom - top))
    return part, (left / per_mm[0], top / per_mm[1], part.width / per_mm[0], part.height / per_mm[1])


def _sheet_marks(plan: SheetPlan, part: Part, name: str, number: int, origin: tuple[float, float]) -> str:
    """Return targets and lines at every join of a sheet, outside the art, and its label."""
    marks = Marks(plan.paper_mm[1])
    x0, y0, w, h = part.box
    left, top = origin
    gap = (plan.marks_mm - LONGEST_MARK_MM) / 2
    for x in joins(plan.across):
        if x0 - 1e-6 <= x <= x0 + w + 1e-6:
            at = left + x - x0
            for y in (top - plan.marks_mm / 2, top + h + plan.marks_mm / 2):
                marks.target(at, y)
            marks.line(at, top - gap - LONGEST_MARK_MM, at, top - gap)
            marks.line(at, top + h + gap, at, top + h + gap + LONGEST_MARK_MM)
    for y in joins(plan.down):
        if y0 - 1e-6 <= y <= y0 + h + 1e-6:
            at = top + y - y0
            for x in (left - plan.marks_mm / 2, left + w + plan.marks_mm / 2):
                marks.target(x, at)
            marks.line(left - gap - LONGEST_MARK_MM, at, left - gap, at)
            marks.line(left + w + gap, at, left + w + gap + LONGEST_MARK_MM, at)
    if plan.sheets > 1:
        label = f"{name}   sheet {number} of {plan.sheets}: column {part.column + 1}, row {part.row + 1}"
        marks.text(left + LABEL_IN_MM, top + h + plan.marks_mm - 0.6, label, 5.5)  # clear of the targets at the joins
    return marks.content()


def _assembly(plan: SheetPlan, small: pyvips.Image, name: str) -> Page:
    """Return a page that shows how the sheets are joined."""
    pw, ph = plan.paper_mm
    w, h = plan.size_mm
    room = (pw - 30, ph - 50)
    scale = min(room[0] / w, room[1] / h)
    left, top = (pw - w * scale) / 2, 34.0
    marks = Marks(ph)
    for part in plan.parts:
        x, y, bw, bh = (v * scale for v in part.box)
        marks.box(left + x, top + y, bw, bh)
    for x in joins(plan.across):
        marks.line(left + x * scale, top - 2, left + x * scale, top + h * scale + 2, 0.6, dashed=True)
    for y in joins(plan.down):
        marks.line(left - 2, top + y * scale, left + w * scale + 2, top + y * scale, 0.6, dashed=True)
    for number, part in enumerate(plan.parts, 1):
        x, y, bw, bh = (v * scale for v in part.box)
        marks.text(left + x + bw / 2 - 1.5, top + y + bh / 2 + 1.5, str(number), 13, plate=True)
    marks.text(left, 15, name, 9)
    size = f"{inches(w):.4g} x {inches(h):.4g} in ({w:.1f} x {h:.1f} mm)"
    marks.text(left, 21, f"{plan.sheets} sheets, {len(plan.across)} across and {len(plan.down)} down, together {size}.", 8)
    marks.text(
        left,
        26,
        f"Each overlaps its neighbours by {plan.overlap_mm:g} mm. Lay target on target; cut along the dashed lines,",
        8,
    )
    marks.text(
        left,
        30,
        "where the marks on the sheets stand, butt the edges and tape them on the back. Print at 100 %, not fitted.",
        8,
    )
    return Page(plan.paper_mm, (PlacedPicture(small, (left, top, w * scale, h * scale)),), marks.content())


def write_sheets(print_image: Print, plan: SheetPlan, path: Path, name: str, progress: Progress = UNWATCHED) -> int:
    """Write a print as a PDF of sheets with an assembly page at the end; return the number of pages.

    Raises:
        OutputError: not a PDF's ending, or a folder or disk that cannot be written.
        ArtworkError, Stopped: as :func:`write_print`.
    """
    if path.suffix.lower() != ".pdf":
        raise OutputError(f"'{path.name}': sheets are made as one .pdf: choose this ending.")
    per_mm = print_image.image.width / print_image.size_mm[0], print_image.image.height / print_image.size_mm[1]

    def pages(whole: pyvips.Image) -> Iterator[Page]:
        for number, part in enumerate(plan.parts, 1):
            image, box = _crop(whole, part.box, per_mm)
            left, top = plan.origin(part)
            shift = box[0] - part.box[0], box[1] - part.box[1]
            on_paper = (left + shift[0], top + shift[1], box[2], box[3])
            yield Page(
                plan.paper_mm, (PlacedPicture(image, on_paper),), _sheet_marks(plan, part, name, number, (left, top)), on_paper
            )
            progress.at(0.5 + 0.48 * number / plan.sheets)
        if plan.sheets > 1:
            factor = min(1.0, ASSEMBLY_PX / max(whole.width, whole.height))
            yield _assembly(plan, resized(whole, factor, factor), name)

    try:
        with atomic_path(path) as temporary:
            whole = temporary.with_suffix(".v")
            try:
                progress.part(0, 0.5).follow(on_blank(print_image.image)).write_to_file(str(whole))
                write_pages(pages(pyvips.Image.new_from_file(str(whole))), temporary, print_image.profile)
            finally:
                whole.unlink(missing_ok=True)
    except pyvips.Error as broken:
        progress.check()
        raise write_error(broken, path) from broken
    return plan.sheets + (plan.sheets > 1)
