"""Cache slow shapes beside the code that makes them, until that code changes."""

from __future__ import annotations

import hashlib
import inspect
from collections.abc import Callable, Mapping
from pathlib import Path
from types import ModuleType
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio.cloth.surface import Surface

FOLDER = Path(__file__).parent / "shapes_kept"
HASH = 12

KINDS = ("flat", "at")
"""Of a panel's points: their places on the flat, and in space."""

Part = NDArray[np.float64]


def place_of(name: str, code: ModuleType) -> Path:
    """Return the cache path of a module's shape for its current code."""
    return FOLDER / f"{name}-{hashlib.sha256(inspect.getsource(code).encode()).hexdigest()[:HASH]}.npz"


def _kept(name: str, code: ModuleType, make: Callable[[], Mapping[str, Part]]) -> dict[str, Part]:
    """Return the named parts of a shape from the cache, or make and store them."""
    path = place_of(name, code)
    if not path.exists():
        FOLDER.mkdir(exist_ok=True)
        for old in FOLDER.glob(f"{name}-{'?' * HASH}.npz"):
            old.unlink()
        stored: dict[str, Any] = {each: part.astype(np.float32) for each, part in make().items()}
        np.savez_compressed(path, **stored)
    with np.load(path) as parts:
        return {each: parts[each].astype(np.float64) for each in parts.files}


def kept(name: str, code: ModuleType, make: Callable[[], tuple[Part, ...]]) -> tuple[Part, ...]:
    """Return a shape's parts from the cache, or make and store them."""
    return tuple(_kept(name, code, lambda: {f"arr_{i}": part for i, part in enumerate(make())}).values())


def kept_surface(name: str, code: ModuleType, make: Callable[[], Surface]) -> Surface:
    """Return a settled cloth from the cache, or make and store it.

    ``code`` arranges it: a cloth is not settled anew when only the simulation changes.
    """

    def parts() -> dict[str, Part]:
        panels = make().panels
        return {f"{panel}.{kind}": part for panel, pair in panels.items() for kind, part in zip(KINDS, pair, strict=True)}

    found = _kept(name, code, parts)
    names = dict.fromkeys(each.rpartition(".")[0] for each in found)
    return Surface({panel: (found[f"{panel}.flat"], found[f"{panel}.at"]) for panel in names})
