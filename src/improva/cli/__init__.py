"""The same core from a shell. Options and JSON keys are a contract: see docs/command-line.md."""

from . import blanks, making, preparing, pressing, serving, working
from .group import main

__all__ = ["blanks", "main", "making", "preparing", "pressing", "serving", "working"]
