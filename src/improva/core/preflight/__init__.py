"""Preflight: check an artwork on a blank before anything is made."""

from .report import PreflightReport, run_checks, run_preflight
from .result import CheckResult, Fix, Status, worst
from .subject import Subject

__all__ = [
    "CheckResult",
    "Fix",
    "PreflightReport",
    "Status",
    "Subject",
    "run_checks",
    "run_preflight",
    "worst",
]
