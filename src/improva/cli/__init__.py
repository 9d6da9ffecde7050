"""The same core from a shell. Options and JSON keys are a contract: see docs/command-line.md."""

from . import batching, blanks, making, preparing, pressing, pricing, serving, working
from .group import main

__all__ = ["batching", "blanks", "main", "making", "preparing", "pressing", "pricing", "serving", "working"]
