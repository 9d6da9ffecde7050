"""The addresses of the API, a module for each resource."""

from __future__ import annotations

from importlib import import_module
from pkgutil import iter_modules

from ..routing import Routes

ALL_ROUTES: dict[str, Routes] = {
    name: import_module(f"{__name__}.{name}").api for name in sorted(module.name for module in iter_modules(__path__))
}
"""The routes of every module of this package, by the module's name."""
