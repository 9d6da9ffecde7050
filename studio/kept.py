"""Cache slow shapes beside the code that makes them, until that code changes."""

from __future__ import annotations

import hashlib
import inspect
from collections.abc import Callable
from pathlib import Path
from types import ModuleType

import numpy as np
from numpy.typing import NDArray

from studio.cloth.surface import Surface

FOLDER = Path(__file__).parent / "shapes_kept"
HASH = 12


def place_of(name: str, code: ModuleType) -> Path:
    """Return the cache path of a module's shape for its current code."""
    return FOLDER / f"{name}-{hashlib.sha256(inspect.getsource(code).encode()).hexdigest()[:HASH]}.npz"


def kept(name: str, code: ModuleType, make: Callable[[], tuple[NDArray[np.float64], ...]]) -> tuple[NDArray[np.float64], ...]:
    """Return a shape's parts from the cache, or make and store them."""
    path = place_of(name, code)
    if not path.exists():
        FOLDER.mkdir(exist_ok=True)
        for old in FOLDER.glob(f"{name}-{'?' * HASH}.npz"):
            old.unlink()
        np.savez_compressed(path, *(part.astype(np.float32) for part in make()))
    with np.load(path) as parts:
        return tuple(parts[each].astype(np.float64) for each in parts.files)


def kept_surface(name: str, code: ModuleType, make: Callable[[], Surface]) -> Surface:
    """Return a settled cloth from the cache, or make and store it.

    ``code`` arranges it: a cloth is not settled anew when only the simulation changes.
    """

    def parts() -> tuple[NDArray[np.float64], ...]:
        made = make()
        names = np.array([[ord(letter) for letter in panel.ljust(40)] for panel in made.panels], float)
        return names, *(part for pair in made.panels.values() for part in pair)

    names, *pairs = kept(name, code, parts)
    panels = ["".join(chr(round(letter)) for letter in row).strip() for row in names]
    return Surface({panel: (pairs[2 * i], pairs[2 * i + 1]) for i, panel in enumerate(panels)})
