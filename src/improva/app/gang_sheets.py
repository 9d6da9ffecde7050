"""The gang sheet: prints of several pairs on one sheet or roll."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from ..core.cached_property import cached_property
from ..core.errors import ImprovaError
from ..core.output import GangItem, GangPlan, GangSheet, Print, PrintSettings, make_print, plan_gang_sheet, size_name
from ..core.progress import Progress
from ..io.gang_sheet_file import write_gang
from ..stages import versions
from ..store import MadeFileRow
from ..store.database import key_of
from ..store.models.gang_sheet import GangItemModel, GangModel
from .pair import Pair
from .print_files import printed_content
from .print_plans import printing_of, settings_of
from .services import Services

SETTING = "gang-sheet"


NO_PAIR = (0, "gang")


class GangPrints:
    """The prints of a gang sheet, loaded."""

    def __init__(self, services: Services, body: GangModel) -> None:
        self._services, self.body = services, body

    @cached_property
    def pairs(self) -> list[tuple[Pair, GangItemModel]]:
        """Return the pairs of the sheet, without those that were removed from the board."""
        prints = []
        there = {row.id for row in self._services.store.artworks.all()}
        for item in self.body.items:
            if item.artwork_id not in there:
                continue
            try:
                pair = self._services.pairs.load(item.artwork_id, item.template_id)
                printed_content(pair, pair.template.panel(item.panel))
            except ImprovaError:
                continue
            prints.append((pair, item))
        return prints

    def settings(self, pair: Pair, item: GangItemModel) -> PrintSettings:
        """Return settings in sRGB, since one sheet may hold prints for several printers."""
        printing = printing_of(pair).model_copy(update={"own_profile": False})
        return settings_of(self._services, pair, pair.template.panel(item.panel), printing)

    def size(self, pair: Pair, item: GangItemModel) -> tuple[float, float]:
        """Return an item's size in mm."""
        return self.settings(pair, item).file_mm(pair.template.panel(item.panel))

    def plan(self) -> GangPlan:
        """Return the layout of the sheet. Raises :class:`OutputError`."""
        body = self.body
        items = [GangItem(pair.title, self.size(pair, item), item.count) for pair, item in self.pairs]
        return plan_gang_sheet(items, GangSheet(body.width_mm, body.length_mm, body.margin_mm, body.gap_mm, body.turn))

    def open_print(self, index: int) -> Print:
        """Open the print of an item."""
        pair, item = self.pairs[index]
        panel = pair.template.panel(item.panel)
        open_art = pair.opener(self._services.artworks.open(pair.art), self._services.artworks.open)
        return make_print(pair.design(panel, pair.content(panel)), open_art, self.settings(pair, item))


def stored_gang_sheet(services: Services) -> GangModel:
    """Return the stored gang sheet."""
    return GangModel.model_validate(services.store.database.setting(SETTING) or {})


def gang_job(services: Services, parameters: dict[str, Any], progress: Progress) -> list[str]:
    """Write the file of a gang sheet."""
    body = GangModel.model_validate(parameters["gang"])
    prints = GangPrints(services, body)
    plan = prints.plan()
    parts = [[*pair.subject, pair.placement_key, pair.route, printing_of(pair).model_dump()] for pair, _ in prints.pairs]
    key = key_of("gang", versions("print_files"), body.model_dump(), parts)
    name = f"gang-sheet_{len(plan.puts)}-prints_{size_name(plan.sheets_mm[0])}.pdf"

    def make(path: Path) -> None:
        write_gang(plan, prints.open_print, path, body.cut_lines, progress)

    services.store.made_files.file(MadeFileRow(key, "print", "", name), prints.pairs[0][0].art.id, "gang", make)
    return [key]
