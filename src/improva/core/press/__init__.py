"""Heat pressing: the plan for a blank, faults and their causes, suggestions from the log, and safety advice."""

from .cautions import CAUTIONS
from .faults import FAULTS, Fault, likely_causes
from .figures import METHODS, Figures, Method, common_figures, methods_of
from .plan import PLATEN_MM, PressStep, press_plan, total_seconds
from .suggestion import Pressing, Suggestion, suggest

__all__ = [
    "CAUTIONS",
    "FAULTS",
    "METHODS",
    "PLATEN_MM",
    "Fault",
    "Figures",
    "Method",
    "PressStep",
    "Pressing",
    "Suggestion",
    "common_figures",
    "likely_causes",
    "methods_of",
    "press_plan",
    "suggest",
    "total_seconds",
]
