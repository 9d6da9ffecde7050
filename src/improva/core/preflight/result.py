"""The result of a check: measurement, limit, a sentence, and a fix where one can be computed."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from ..template import Box

Status = Literal["pass", "warn", "fail"]
_ORDER: tuple[Status, ...] = ("pass", "warn", "fail")


@dataclass(frozen=True)
class Fix:
    """A fix: its button's label, and the values that it changes on the placement or on a piece."""

    label: str
    placement: dict[str, Any]
    piece: int | None = None
    values: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class CheckResult:
    """The result of one check.

    Attributes:
        measured, limit: numbers in ``unit``; None where the check has nothing to measure.
        where: boxes that the finding is about, in mm from the trim's corner of the level panel.
        more: further fixes.
    """

    id: str
    title: str
    status: Status
    measured: float | None
    limit: float | None
    unit: str
    message: str
    fix: Fix | None = None
    where: tuple[Box, ...] = field(default=())
    more: tuple[Fix, ...] = field(default=())

    @property
    def why(self) -> str:
        """Return why the check matters, in one sentence."""
        return WHY.get(self.id, "")


WHY = {
    "resolution": "Too few pixels for the size print as steps and blur, and providers send such files back.",
    "eye": "Finer detail than the eye resolves at the usual distance is wasted, coarser is seen.",
    "tag": "The resolution tag is only a note in the file: pixels per printed inch decide how sharp a print is.",
    "bare-edge": "Where the picture does not reach, the buyer sees the blank.",
    "bleed": "Cutting and sewing wander by a millimetre or two, and a print without bleed shows it as a pale edge.",
    "crop": "What falls outside the trim is never seen by the buyer.",
    "distortion": "The eye forgives a crop but not a stretched face or circle.",
    "safe-area": "Trimming, sewing and pressing wander, so words and faces near the edge may be cut or curl away.",
    "keep-out": "What lies there is covered, folded under or sewn over.",
    "lettering": "Words that look large on a screen come out too small to read on the thing itself.",
    "stroke": "Thin lines fill in or break up in transfer and coat.",
    "seam-match": "Where the two ends meet, a step in colour is the first thing a buyer's finger finds.",
    "seam-zone": "Tape, trimming and the press spoil the last millimetres on either side of the seam.",
    "handle-zone": "Beside the handle the print is hidden by it and by the fingers that hold it.",
    "handle-gap": "A dark wrap makes the bare stretch at the handle stand out like a missing piece.",
    "repeat-joint": "A tile whose edges do not meet shows as a grid of lines over the whole print.",
    "transparency": "Cloth takes half-transparent ink as a hard, pale film.",
    "haze": "A faint pale veil left by cutting out prints as a smudge that the screen does not show.",
    "white-on-blank": "White is not printed: it is the blank, so white parts vanish on it.",
    "tint": "Sublimated colour lies over the blank's own, which tints all of it.",
    "colour-mode": "Colours from a press profile cannot all be kept, so they may shift.",
    "gamut": "Colours that the printer cannot make come out duller than on the screen.",
    "pieces-safe": "Trimming and sewing wander, so words and pictures near the edge may be cut.",
    "words-contrast": "Words in nearly the colour of what lies behind them are not read.",
    "letters": "A letter that the font lacks leaves a hole in the word.",
    "pieces-sharp": "Every picture on the print is looked at as closely as the first.",
    "slots": "An empty frame is printed as an empty frame.",
    "origin": "A licence binds you, not the buyer; a shop can be closed over one picture.",
    "runs-on": "Where a design breaks at a seam, the eye goes there first.",
    "seam-colours": "A break is seen by its step in colour, not by its millimetres.",
    "near-seam": "No two pieces are sewn alike, so what lies at a seam is cut, bent or hidden on some of them.",
    "guide": "A template's guide lines are printed like everything else in the file.",
}
"""Why each check matters, in one sentence for a newcomer."""


def worst(statuses: list[Status]) -> Status:
    """Return the gravest of some statuses; *pass* for none."""
    return max(statuses, key=_ORDER.index, default="pass")
