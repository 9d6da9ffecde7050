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

KINDS = ("flat", "at", "triangles")
"""What is stored of a panel: its points' places on the flat and in space, and the triangles between them."""

Part = NDArray[Any]


Code = ModuleType | tuple[ModuleType, ...]
"""The modules that a shape comes from."""


def place_of(name: str, code: Code, details: str = "") -> Path:
    """Return the cache path of a shape for the current code of its modules and the details that they are given."""
    modules = code if isinstance(code, tuple) else (code,)
    said = "".join(inspect.getsource(module) for module in modules) + details
    return FOLDER / f"{name}-{hashlib.sha256(said.encode()).hexdigest()[:HASH]}.npz"


def _kept(path: Path, make: Callable[[], Mapping[str, Part]]) -> dict[str, Part]:
    """Return the named parts of a shape from the cache, or make and store them."""
    if not path.exists():
        FOLDER.mkdir(exist_ok=True)
        name = path.stem[: -HASH - 1]
        for old in FOLDER.glob(f"{name}-{'?' * HASH}.npz"):
            old.unlink()
        stored: dict[str, Any] = {
            each: part.astype(np.float32 if np.issubdtype(part.dtype, np.floating) else np.int32)
            for each, part in make().items()
        }
        np.savez_compressed(path, **stored)
    with np.load(path) as parts:
        return {
            each: parts[each].astype(np.float64 if np.issubdtype(parts[each].dtype, np.floating) else np.int64)
            for each in parts.files
        }


def kept_surface(name: str, code: Code, make: Callable[[], Surface], details: str = "") -> Surface:
    """Return a settled cloth from the cache, or make and store it.

    ``code`` arranges it as ``details`` say: a cloth is not settled anew when only the simulation changes.
    """

    def parts() -> dict[str, Part]:
        surface = make()
        return {
            f"{panel}.{kind}": part
            for panel, pair in surface.panels.items()
            for kind, part in zip(KINDS, (*pair, surface.triangles[panel]), strict=True)
        }

    found = _kept(place_of(name, code, details), parts)
    names = dict.fromkeys(each.rpartition(".")[0] for each in found)
    return Surface(
        {panel: (found[f"{panel}.flat"], found[f"{panel}.at"]) for panel in names},
        {panel: found[f"{panel}.triangles"] for panel in names if f"{panel}.triangles" in found},
    )
