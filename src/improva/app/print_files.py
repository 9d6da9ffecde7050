"""Make a pair's print files, and store them."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..core.design import PanelContent
from ..core.errors import TemplateError
from ..core.mockup.render import encode
from ..core.output import (
    make_print,
    set_name,
)
from ..core.progress import Progress
from ..core.sewing.assembly_picture import assembly
from ..core.sewing.seams import Follow
from ..core.template import Panel
from ..io.print_file import write_print
from ..io.print_sets import assembly_name, write_zip
from ..io.sheet_file import write_sheets
from ..stages import versions
from ..store.database import key_of
from ..store.models.printing import PrintingModel
from .made_files import MadeFile, keep_file
from .pair import Pair, plain
from .print_plans import file_name_of, settings_of, sheets_of
from .services import Services


def printed_content(pair: Pair, panel: Panel) -> PanelContent:
    """Return the content printed on a panel. Raises :class:`TemplateError` where it is empty."""
    content = pair.content(panel)
    if content is None or panel not in pair.printed:
        raise TemplateError(f"Nothing is printed on this {panel.title.lower()}: place the artwork on it first.")
    return content


def make_side(services: Services, pair: Pair, panel: Panel, printing: PrintingModel, progress: Progress) -> MadeFile:
    """Return one panel's print file: key, name, path. It is made unless it exists.

    Raises:
        TemplateError: nothing is printed on the panel.
        OutputError, ArtworkError, PlacementError, Stopped: it cannot be made.
    """
    content = printed_content(pair, panel)
    settings = settings_of(services, pair, panel, printing)
    sheets = sheets_of(panel, printing, settings)
    name = file_name_of(pair, panel, printing, settings, sheets)
    profile = services.store.blanks.file(pair.template.id, "profile") if printing.own_profile else None
    made_as = printing.model_dump(exclude={"copies", "notes"})
    key = key_of(
        "print",
        versions("print_files"),
        pair.subject,
        plain({panel.id: content}),
        name,
        made_as,
        pair.pieces_on(panel).key,
        profile.sha256 if profile else None,
        pair.placement_key if isinstance(content, Follow) else None,
    )
    open_art = pair.opener(services.artworks.open(pair.art), services.artworks.open)

    def make(path: Path) -> None:
        print_image = make_print(pair.design(panel, content), open_art, settings)
        if sheets:
            write_sheets(print_image, sheets, path, name.removesuffix(".pdf"), progress)
        else:
            write_print(print_image, path, progress)

    return keep_file(services, pair, "print", key, name, make)


def make_set(services: Services, pair: Pair, printing: PrintingModel, progress: Progress) -> MadeFile:
    """Return the files of all printed panels in one ZIP: key, name, path. It is made unless it exists.

    Raises :class:`TemplateError` where nothing is printed, and what the renderer and the writers raise.
    """
    panels = pair.printed
    if not panels:
        raise TemplateError("Nothing is printed on this blank: place the artwork on a side first.")
    sides = []
    for i, panel in enumerate(panels):
        sides.append(make_side(services, pair, panel, printing, progress.part(i / len(panels), (i + 0.9) / len(panels))))
    name = set_name(pair.art.title, pair.template, printing.dpi or panels[0].dpi, pair.mirrored, "zip")
    key = key_of("set", [side[0] for side in sides], name)

    def pack(path: Path) -> None:
        write_zip(path, [(inside, file) for _, inside, file in sides], _assembly(services, pair))

    return keep_file(services, pair, "print", key, name, pack)


def _assembly(services: Services, pair: Pair) -> list[tuple[str, bytes]]:
    """Return a picture of the panels sewn together, for a sewn blank."""
    if not pair.template.faces:
        return []
    designs = {panel.id: pair.design(panel, pair.content(panel)) for panel in pair.template.panels}
    open_art = pair.opener(services.artworks.proxy(pair.art), services.artworks.proxy)
    picture = assembly(pair.template, designs, open_art, pair.corrections)
    return [(assembly_name(pair.art.title, pair.template), encode(picture, ".png"))]


def print_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Run a job that makes the print file of one panel or of all."""
    pair = services.pairs.load(parameters["artwork_id"], parameters["template_id"])
    printing = PrintingModel.model_validate(parameters["printing"])
    if parameters["panel"] is None:
        return [make_set(services, pair, printing, progress)[0]]
    return [make_side(services, pair, pair.template.panel(parameters["panel"]), printing, progress)[0]]
