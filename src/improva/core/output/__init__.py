"""Print files at true size: layout on paper and platen, and file names."""

from .carrier import Carrier, carries, marks_of, tab_of
from .file_names import film_name, list_name, pack_name, picture_name, print_name, set_name, sheet_name, size_name, slug
from .gang_sheet import GangItem, GangPlan, GangSheet, plan_gang_sheet
from .mirror import is_mirrored
from .print_image import Print, make_print
from .profile import INTENTS, Intent, soft_proof
from .settings import PrintSettings
from .sheets import PAPERS_MM, Part, SheetPlan, paper_size, plan_sheets, press_positions

__all__ = [
    "INTENTS",
    "PAPERS_MM",
    "Carrier",
    "GangItem",
    "GangPlan",
    "GangSheet",
    "Intent",
    "Part",
    "Print",
    "PrintSettings",
    "SheetPlan",
    "carries",
    "film_name",
    "is_mirrored",
    "list_name",
    "make_print",
    "marks_of",
    "pack_name",
    "paper_size",
    "picture_name",
    "plan_gang_sheet",
    "plan_sheets",
    "press_positions",
    "print_name",
    "set_name",
    "sheet_name",
    "size_name",
    "slug",
    "soft_proof",
    "tab_of",
]
