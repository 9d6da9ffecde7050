"""How far every pair has come: to fix, to picture, to list, listed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from ..store import ArtRow, PairRow
from .pair import Pair
from .reports import report_summary
from .services import Services

PairState = Literal["check", "fix", "picture", "list", "listed"]
"""The next thing to do: ``check`` until its checks have run."""


@dataclass(frozen=True)
class Progress:
    """How far a pair has come.

    Attributes:
        summary: its checks as the board shows them (see :func:`report_summary`); None until they have run.
        kinds: kinds of files made with its current placement.
    """

    pair: Pair
    summary: dict[str, Any] | None
    kinds: set[str]
    pressed: bool
    listed: bool

    @property
    def state(self) -> PairState:
        """Return the next thing to do."""
        if self.listed:
            return "listed"
        if self.summary is None:
            return "check"
        if self.summary["verdict"] == "fail":
            return "fix"
        return "list" if "picture" in self.kinds else "picture"


def progress_of_arts(services: Services, arts: Iterable[ArtRow]) -> list[Progress]:
    """Return how far some artworks have come on each blank of the board. No check is run."""
    store, blanks = services.store, services.blanks.on_board()
    pressed, listed = store.pressings.pressed(), store.listings.listed()
    found = []
    for art in arts:
        rows, kinds = store.pairs.of_art(art.id), store.made_files.kinds_of_art(art.id)
        pairs = [services.pairs.assemble(art, blank, rows.get(blank.id, PairRow())) for blank in blanks]
        summaries = store.preflight_reports.summaries([pair.report_key for pair in pairs])
        for pair in pairs:
            made = kinds.get((pair.template.id, pair.placement_key), set())
            found.append(Progress(pair, summaries.get(pair.report_key), made, pair.ids in pressed, pair.ids in listed))
    return found


def progress_of_pair(services: Services, pair: Pair) -> Progress:
    """Return how far a pair has come. Its checks run if they have not run yet."""
    store = services.store
    return Progress(
        pair,
        report_summary(services.preflight.report(pair)),
        store.made_files.kinds(*pair.ids, pair.placement_key),
        pair.ids in store.pressings.pressed(),
        pair.ids in store.listings.listed(),
    )
