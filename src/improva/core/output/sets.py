"""Every panel's print file in one ZIP, with a picture of them sewn together where the blank is sewn."""

from __future__ import annotations

import tempfile
import zipfile
from collections.abc import Callable, Sequence
from pathlib import Path

from ..design import Design
from ..errors import BadOutput
from ..mockup.picture import encode
from ..render import Opener
from ..sewing.picture import assembly
from ..template import Panel, Template
from .naming import print_name, slug
from .print_file import make_print, write_print
from .settings import PrintSettings
from .sheet_file import write_sheets
from .sheets import SheetPlan
from .watch import ALONE, Watch
from .writing import beside


def assembly_name(art_title: str, template: Template) -> str:
    """For example ``summit-line_hoodie-all-over_assembly.png``."""
    return f"{slug(art_title)}_{template.id}_assembly.png"


def write_zip(path: Path, files: Sequence[tuple[str, Path]], pictures: Sequence[tuple[str, bytes]] = ()) -> None:
    """Files and pictures under their names in one ZIP; print files are compressed already."""
    with beside(path) as temporary, zipfile.ZipFile(temporary, "w", zipfile.ZIP_STORED) as archive:
        for name, file in files:
            archive.write(file, name)
        for name, data in pictures:
            archive.writestr(name, data)


def write_set(template: Template, designs: dict[str, Design], open_art: Opener,
              settings_of: Callable[[Panel], PrintSettings], art_title: str, path: Path,
              plan_of: Callable[[tuple[float, float]], SheetPlan] | None = None, watch: Watch = ALONE) -> list[str]:  # fmt: skip
    """Make every panel's file and answer with the names in the ZIP. With ``plan_of``, which plans the sheets of a file of that
    size in mm, each is cut into sheets in a PDF of its own.

    Raises:
        BadOutput: it is no ``.zip``, or a file cannot be made. Further as :func:`.print_file.make_print`.
    """
    if path.suffix.lower() != ".zip":
        raise BadOutput(f"'{path.name}': all panels come as one .zip: choose that ending.")
    with tempfile.TemporaryDirectory() as folder:
        files = []
        for i, (panel_id, design) in enumerate(designs.items()):
            panel = template.panel(panel_id)
            settings = settings_of(panel)
            name = print_name(art_title, template, panel, settings.dpi, settings.mirror, "pdf" if plan_of else "png")
            part = watch.part(i / len(designs), (i + 1) / len(designs))
            made = make_print(design, open_art, settings)
            if plan_of:
                write_sheets(made, plan_of(made.size_mm), Path(folder) / name, Path(name).stem, part)
            else:
                write_print(made, Path(folder) / name, part)
            files.append((name, Path(folder) / name))
        pictures = []
        if template.faces:
            pictures.append((assembly_name(art_title, template), encode(assembly(template, designs, open_art, {}), ".png")))
        write_zip(path, files, pictures)
    return [name for name, _ in (*files, *pictures)]
