"""The shelf of blanks: every blank with the seller's limits, and which of them stand on the board."""

from __future__ import annotations

import threading
from typing import NamedTuple

from ..catalogue import order
from ..catalogue import templates as shipped_templates
from ..core.errors import TemplateError
from ..core.template import Template
from ..store import Store
from ..store.database import key_of
from .reports import template_report
from .scenes import SceneLibrary, fingerprint

FIRST_ON_BOARD = (
    "tumbler-20oz-straight",
    "tumbler-20oz-tapered",
    "mug-11oz",
    "pillow-square",
    "blanket-upright",
    "garden-flag",
    "t-shirt",
)
"""Blanks on the board of a new seller: one of each kind."""


class ShelvedBlank(NamedTuple):
    """A blank with two hashes: of all that its checks depend on, and of its first scene."""

    template: Template
    key: str
    scene_key: str


class BlankShelf:
    """The blanks of one data folder: those that ship and the seller's own."""

    def __init__(self, store: Store, scenes: SceneLibrary) -> None:
        self._store, self._scenes = store, scenes
        self._lock = threading.Lock()
        self._shelved: dict[str, ShelvedBlank] | None = None

    def refresh(self) -> None:
        """Make the next use read the blanks again, after one was added or changed."""
        with self._lock:
            self._shelved = None

    def _all(self) -> dict[str, ShelvedBlank]:
        with self._lock:
            if self._shelved is None:
                stored_blanks = self._store.blanks
                limits, profiles = stored_blanks.limits(), stored_blanks.profiles()
                every = [t.with_limits(limits.get(t.id, {})) for t in [*shipped_templates().values(), *stored_blanks.own()]]
                self._shelved = {
                    t.id: ShelvedBlank(t, key_of(template_report(t), profiles.get(t.id)), fingerprint(self._scenes.first(t)))
                    for t in sorted(every, key=order)
                }
            return self._shelved

    def all(self) -> dict[str, Template]:
        """Return every blank by id, with the seller's limits."""
        return {key: shelved.template for key, shelved in self._all().items()}

    def get(self, template_id: str) -> Template:
        """Return a blank by its id.

        Raises:
            TemplateError: there is no such blank.
        """
        return self.shelved(template_id).template

    def shelved(self, template_id: str) -> ShelvedBlank:
        """Return a blank by its id, with its hashes.

        Raises:
            TemplateError: there is no such blank.
        """
        try:
            return self._all()[template_id]
        except KeyError:
            raise TemplateError(f"There is no blank '{template_id}': choose one on the shelf of blanks.") from None

    def shipped_limits(self, template_id: str) -> dict[str, float]:
        """Return the limits of a blank's template, without the seller's changes."""
        shipped = shipped_templates().get(template_id)
        template = shipped or next((t for t in self._store.blanks.own() if t.id == template_id), None)
        return dict(template.limits) if template else {}

    def on_board(self) -> list[Template]:
        """Return the blanks on the board, in their order."""
        known = self.all()
        return [known[i] for i in self._store.blanks.on_board() or FIRST_ON_BOARD if i in known]

    def profile(self, template: Template) -> bytes | None:
        """Return the printer's ICC profile for a blank, or None."""
        path = self._store.blanks.file(template.id, "profile")
        return self._store.database.blob(path.sha256) if path else None
