"""The same core from a shell. Options and JSON keys are a contract: see docs/command-line.md."""

from . import batching, blanks, keeping, making, preparing, pressing, pricing, serving, working
from .group import main

__all__ = ["batching", "blanks", "keeping", "main", "making", "preparing", "pressing", "pricing", "serving", "working"]
