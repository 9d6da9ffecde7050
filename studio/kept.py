"""Shapes that take long to come by, kept beside the code that makes them and made anew when that code changes."""

from __future__ import annotations

import hashlib
import inspect
from collections.abc import Callable
from pathlib import Path
from types import ModuleType

import numpy as np
from numpy.typing import NDArray

FOLDER = Path(__file__).parent / "shapes_kept"


def place_of(name: str, code: ModuleType) -> Path:
    """Where a shape is kept that a module makes as it is written now."""
    return FOLDER / f"{name}-{hashlib.sha256(inspect.getsource(code).encode()).hexdigest()[:12]}.npz"


def kept(name: str, code: ModuleType, make: Callable[[], tuple[NDArray[np.float64], ...]]) -> tuple[NDArray[np.float64], ...]:
    """A shape's parts, read if they are kept, else made and kept."""
    path = place_of(name, code)
    if not path.exists():
        FOLDER.mkdir(exist_ok=True)
        for old in FOLDER.glob(f"{name}-*.npz"):
            old.unlink()
        np.savez_compressed(path, *(part.astype(np.float32) for part in make()))
    with np.load(path) as parts:
        return tuple(parts[each].astype(np.float64) for each in parts.files)
