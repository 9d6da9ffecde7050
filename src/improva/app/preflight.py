"""Run the checks on pairs and store their reports."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..core.design import PanelContent
from ..core.errors import PlacementError
from ..core.pieces import piece_box
from ..core.preflight import CheckResult, Subject, run_checks, worst
from ..core.preflight.seam_measures import calm_roll
from ..core.render.contour import cut_shape, rings_of
from ..core.sewing.linked_panels import seam_of
from ..core.sewing.mismatch import colour_difference_along
from ..core.sewing.seams import Follow
from ..core.template import Panel
from ..store import Store
from .artworks import ArtworkLibrary
from .blanks import BlankShelf
from .cache import MB, Memo, SizedLru, size_of
from .pair import Pair
from .reports import panel_check_report, report_summary
from .turns import Turns

RESULTS_KEPT, REDUCED_PRINTS_SIZE = 2000, 30 * MB
"""Results of single panels and seams, and reduced prints, kept in memory: a change of one panel keeps those of the others."""


FINE_MM = 0.1
"""Corners of a cutting line that stand out less are left out."""


def _cut_lines(subject: Subject) -> list[list[tuple[float, float]]]:
    """Return the lines along which a shape is cut out round its artwork, in mm of the trim."""
    shape = cut_shape(subject.design, subject.opener).cut
    return [[(round(x, 2), round(y, 2)) for x, y in ring] for ring in rings_of(shape.simplify(FINE_MM))]


class Preflight:
    """The checks of one data folder's pairs."""

    def __init__(self, store: Store, blanks: BlankShelf, artworks: ArtworkLibrary, turns: Turns) -> None:
        self._store, self._blanks, self._artworks, self._turns = store, blanks, artworks, turns
        self.results: Memo[Any] = Memo(SizedLru(RESULTS_KEPT))
        self._reduced_prints: Memo[NDArray[np.uint8]] = Memo(SizedLru(REDUCED_PRINTS_SIZE, size_of))

    def check(self, pair: Pair, panel: Panel, content: PanelContent) -> dict[str, Any]:
        """Return the report of one panel with edited content; it is not stored. Checks take turns with renderings.

        Raises:
            PlacementError: the panel follows an empty panel.
            ArtworkError: the artwork does not decode.
        """
        subject = self.subject(pair, panel, content)
        boxes = [piece_box(extra, panel, subject.fonts) for extra in subject.extras]
        with self._turns.turn():
            report = run_checks(subject, self._seam_results(pair, panel, content, subject))
            more = {
                "pieces": boxes,
                "cut_lines": _cut_lines(subject) if panel.shape == "cutout" else [],
                "calm_roll_mm": calm_roll(subject),
            }
        return {**panel_check_report(pair.template, panel, pair.art.facts, report), **more}

    def _seam_results(self, pair: Pair, panel: Panel, content: PanelContent, subject: Subject) -> tuple[CheckResult, ...]:
        """Return the results of the seam that a panel follows; none where it follows no other."""
        if not isinstance(content, Follow):
            return ()
        seam = seam_of(pair.template, content.seam)
        leader = pair.template.panel(seam.leader)
        beneath = pair.content(leader)
        assert beneath is not None, "a panel that follows an empty one is not checked"
        labs = self.subject(pair, leader, beneath).file_lab, subject.file_lab
        return pair.runs_on(panel, content, colour_difference_along(seam, pair.template, pair.corrections, labs))

    def subject(self, pair: Pair, panel: Panel, content: PanelContent) -> Subject:
        """Return a panel as the checks take it.

        Raises:
            PlacementError: the panel follows an empty panel.
        """
        art, profile, proxy = pair.art, self._blanks.profile(pair.template), self._artworks.proxy
        if isinstance(content, Follow):
            linked = pair.design(panel, content).linked
            if linked is None or not linked.design.carries:
                raise PlacementError("The side that this one follows is empty: place the artwork there first.")
            arts = {art.sha256: art, **pair.pieces_on(linked.design.panel).arts}
            return Subject(
                pair.template,
                panel,
                proxy(art),
                linked.design.pieces[0].placement,
                profile,
                art.traits,
                art.origin,
                art.altered,
                others={key: proxy(row) for key, row in arts.items()},
                linked=linked,
            )
        pieces = pair.pieces_on(panel)
        return Subject(
            pair.template,
            panel,
            proxy(art),
            content,
            profile,
            art.traits,
            art.origin,
            art.altered or bool(pieces.extras),
            pieces.extras,
            pieces.fonts,
            {key: proxy(row) for key, row in pieces.arts.items()},
        )

    def report(self, pair: Pair) -> dict[str, Any]:
        """Return the stored content's reports of all printed panels, and the gravest verdict. Made once and stored."""

        def make() -> dict[str, Any]:
            reports = {p.id: self._panel_report(pair, p, content) for p in pair.printed if (content := pair.content(p))}
            return {"verdict": worst([report["verdict"] for report in reports.values()]), "panels": reports}

        return self._store.preflight_reports.get_or_make(pair.report_key, make, report_summary)

    def _panel_report(self, pair: Pair, panel: Panel, content: PanelContent) -> dict[str, Any]:
        return dict(self.results.get(pair.panel_key(panel), lambda: self.check(pair, panel, content)))

    def reduced_print(self, pair: Pair, panel: Panel, content: PanelContent) -> NDArray[np.uint8]:
        """Return the reduced print file of a panel's stored content on the blank's colour, (h, w, 3) sRGB."""
        return self._reduced_prints.get(pair.panel_key(panel), lambda: self.subject(pair, panel, content).seen)
