"""Pieces with an open name and an open photograph, which each order fills."""

from __future__ import annotations

from typing import Any

FRAMES: dict[str, Any] = {
    "kind": "frames",
    "layout": "single",
    "across": 1,
    "down": 1,
    "size_mm": [60, 45],
    "shift_mm": [0, -12],
    "slots": [{"art": None, "field": "photo"}],
}


def open_words(least_caps: float) -> dict[str, Any]:
    """Words with an open name, whose capitals are at least ``least_caps`` mm high."""
    shape = {"sizing": "width", "width_mm": 60, "shift_mm": [0, 25], "least_caps": least_caps}
    return {"kind": "words", "text": "For {name}", **shape}
