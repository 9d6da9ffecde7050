"""All panels' print files in one ZIP, with an assembly picture for sewn blanks."""

from __future__ import annotations

import zipfile
from collections.abc import Callable, Sequence
from pathlib import Path

from ..core.design import Design
from ..core.errors import OutputError
from ..core.mockup.render import encode
from ..core.output.file_names import print_name, slug
from ..core.output.print_image import make_print
from ..core.output.settings import PrintSettings
from ..core.output.sheets import SheetPlan
from ..core.progress import UNWATCHED, Progress
from ..core.render import Opener
from ..core.sewing.assembly_picture import assembly
from ..core.template import Panel, Template
from .atomic import atomic_path, work_folder
from .print_file import write_print
from .sheet_file import write_sheets


def assembly_name(art_title: str, template: Template) -> str:
    """Return a name such as ``summit-line_hoodie-all-over_assembly.png``."""
    return f"{slug(art_title)}_{template.id}_assembly.png"


def write_zip(path: Path, files: Sequence[tuple[str, Path]], pictures: Sequence[tuple[str, bytes]] = ()) -> None:
    """Write files under their names in one ZIP, without compression."""
    with atomic_path(path) as temporary, zipfile.ZipFile(temporary, "w", zipfile.ZIP_STORED) as archive:
        for name, file in files:
            archive.write(file, name)
        for name, data in pictures:
            archive.writestr(name, data)


def write_set(
    template: Template,
    designs: dict[str, Design],
    open_art: Opener,
    settings_of: Callable[[Panel], PrintSettings],
    art_title: str,
    path: Path,
    plan_of: Callable[[tuple[float, float]], SheetPlan] | None = None,
    progress: Progress = UNWATCHED,
) -> list[str]:
    """Write every panel's file; return the names in the ZIP. ``plan_of`` maps a file size in mm to a sheet plan: each file is
    then split into a PDF of sheets.

    Raises:
        OutputError: it is no ``.zip``, or a file cannot be made. Further as :func:`.print_file.make_print`.
    """
    if path.suffix.lower() != ".zip":
        raise OutputError(f"'{path.name}': all panels come as one .zip: choose that ending.")
    with work_folder(path.parent, path.stem) as folder:
        files = []
        for i, (panel_id, design) in enumerate(designs.items()):
            panel = template.panel(panel_id)
            settings = settings_of(panel)
            name = print_name(art_title, template, panel, settings.dpi, settings.mirror, "pdf" if plan_of else "png")
            part = progress.part(i / len(designs), (i + 1) / len(designs))
            print_image = make_print(design, open_art, settings)
            if plan_of:
                write_sheets(print_image, plan_of(print_image.size_mm), folder / name, Path(name).stem, part)
            else:
                write_print(print_image, folder / name, part)
            files.append((name, folder / name))
        pictures = []
        if template.faces:
            pictures.append((assembly_name(art_title, template), encode(assembly(template, designs, open_art, {}), ".png")))
        write_zip(path, files, pictures)
    return [name for name, _ in (*files, *pictures)]
