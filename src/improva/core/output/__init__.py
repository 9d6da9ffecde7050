"""Files that go out: print files at true size, how they are cut for paper and platen, named and written."""

from .carrier import Carrier, carries, marks_of, tab_of
from .gang import GangItem, GangPlan, GangSheet, gang
from .gang_file import write_gang
from .naming import film_name, list_name, pack_name, picture_name, print_name, set_name, sheet_name, size_name, slug
from .pdf import PNG_COMPRESSION
from .print_file import ENDINGS, Print, check_ending, make_print, write_print, write_print_file
from .profile import INTENTS, Intent, proofed
from .settings import PrintSettings
from .sheet_file import write_sheets
from .sheets import PAPERS_MM, Part, SheetPlan, paper_size, plan_sheets, press_positions
from .watch import ALONE, Watch
from .writing import beside, write_beside

__all__ = [
    "ALONE", "ENDINGS", "INTENTS", "PAPERS_MM", "PNG_COMPRESSION", "Carrier", "GangItem", "GangPlan", "GangSheet", "Intent", "Part", "Print", "PrintSettings", "SheetPlan",
    "Watch", "beside", "carries", "check_ending", "film_name", "gang", "list_name", "make_print", "marks_of", "pack_name", "paper_size", "picture_name", "plan_sheets", "press_positions", "print_name",
    "proofed", "set_name", "sheet_name", "size_name", "slug", "tab_of", "write_beside", "write_gang", "write_print", "write_print_file", "write_sheets",
]  # fmt: skip
