"""Cache slow shapes beside the code that makes them, until that code changes."""

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
    """Return the cache path of a module's shape for its current code."""
    return FOLDER / f"{name}-{hashlib.sha256(inspect.getsource(code).encode()).hexdigest()[:12]}.npz"


def kept(name: str, code: ModuleType, make: Callable[[], tuple[NDArray[np.float64], ...]]) -> tuple[NDArray[np.float64], ...]:
    """Return a shape's parts from the cache, or make and store them."""
    path = place_of(name, code)
    if not path.exists():
        FOLDER.mkdir(exist_ok=True)
        for old in FOLDER.glob(f"{name}-*.npz"):
            old.unlink()
        np.savez_compressed(path, *(part.astype(np.float32) for part in make()))
    with np.load(path) as parts:
        return tuple(parts[each].astype(np.float64) for each in parts.files)
