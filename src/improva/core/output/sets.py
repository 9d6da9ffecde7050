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
from .print_file import write_print_file
from .settings import PrintSettings
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
              settings_of: Callable[[Panel], PrintSettings], art_title: str, path: Path, watch: Watch = ALONE) -> list[str]:  # fmt: skip
    """Make every panel's file and answer with the names in the ZIP.

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
            name = print_name(art_title, template, panel, settings.dpi, settings.mirror, "png")
            part = watch.part(i / len(designs), (i + 1) / len(designs))
            write_print_file(design, open_art, Path(folder) / name, settings, part)
            files.append((name, Path(folder) / name))
        pictures = []
        if template.faces:
            pictures.append((assembly_name(art_title, template), encode(assembly(template, designs, open_art, {}), ".png")))
        write_zip(path, files, pictures)
    return [name for name, _ in (*files, *pictures)]
