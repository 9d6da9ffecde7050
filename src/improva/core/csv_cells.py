"""Text cells of CSV files that spreadsheets open as text."""

from __future__ import annotations

FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""First characters that make a spreadsheet take a cell for a formula: OWASP, CSV Injection."""


def text_cell(text: str) -> str:
    """Return a text for a cell, after an apostrophe where a spreadsheet would compute it; it shows the apostrophe as nothing."""
    return f"'{text}" if text.startswith(FORMULA) else text


def read_text_cell(cell: str) -> str:
    """Reverse :func:`text_cell`."""
    return cell[1:] if cell[:1] == "'" and cell[1:].startswith(FORMULA) else cell
