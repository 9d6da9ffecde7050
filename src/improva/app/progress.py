"""How far every pair has come: to fix, to picture, to list, listed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from ..store import ArtRow, PairRow
from .pair import Pair
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


def progress_of_art(services: Services, art: ArtRow) -> list[Progress]:
    """Return how far an artwork has come on each blank of the board. No check is run."""
    store = services.store
    rows = store.pairs.of_art(art.id)
    pairs = [services.pairs.assemble(art, blank, rows.get(blank.id, PairRow())) for blank in services.blanks.on_board()]
    summaries = store.preflight_reports.summaries([pair.report_key for pair in pairs])
    kinds, pressed, listed = store.made_files.kinds_of_art(art.id), store.pressings.pressed(), store.listings.listed()
    return [
        Progress(
            pair,
            summaries.get(pair.report_key),
            kinds.get((pair.template.id, pair.placement_key), set()),
            pair.ids in pressed,
            pair.ids in listed,
        )
        for pair in pairs
    ]


def progress_of_board(services: Services) -> list[Progress]:
    """Return how far all pairs of the board have come."""
    return [each for art in services.artworks.all() for each in progress_of_art(services, art)]
