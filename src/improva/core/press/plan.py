"""The steps of pressing, from the printed sheet to the cooled blank."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from ..output.sheets import Part, press_positions
from ..template import Panel, Template
from ..units import fahrenheit, mm_from_in
from .figures import Figures, Method

PLATEN_MM = (mm_from_in(15), mm_from_in(15))
"""Size of a common heat-press platen, in mm. Common practice, no published source."""
POSITION_OVERLAP_MM = 25.0
"""Overlap of two platen positions, in mm: an inch, so that no cooler edge is left. From memory."""

Lie = Literal["sheet", "wrapped", "seam-down", "seam-up", "side-left", "side-right", "bottom", "top", "flat", "mug", "cooling"]
StepKind = Literal["ready", "press", "peek", "again", "if-pale"]


@dataclass(frozen=True)
class PressStep:
    """One step.

    Attributes:
        seconds: how long; 0 where it takes what it takes.
        temperature_c: None where there is no heat in it.
        kind: ``ready`` by hand, ``press`` under heat, ``peek`` where it is decided whether ``again`` and ``if-pale``
            follow.
        lie: how the blank lies.
        part: what of a print larger than the platen lies under it, in mm of the print.
    """

    do: str
    kind: StepKind
    lie: Lie
    seconds: float = 0.0
    temperature_c: float | None = None
    pressure: str = ""
    part: Part | None = None

    @property
    def temperature_f(self) -> float | None:
        """Return the temperature in °F."""
        return None if self.temperature_c is None else fahrenheit(self.temperature_c)


def _heat(figures: Figures, do: str, lie: Lie, seconds: float, kind: StepKind = "press", part: Part | None = None) -> PressStep:
    return PressStep(do, kind, lie, seconds, figures.temperature_c, figures.pressure, part)


def _ready(do: str, lie: Lie) -> PressStep:
    return PressStep(do, "ready", lie)


COOL = _ready(
    "Take it out with heat gloves, set it down on something that bears heat, and let it cool before you touch it.", "cooling"
)
PEEK = PressStep("Lift one corner of the paper without moving it. Is the print even and deep?", "peek", "wrapped")


def _tumbler(figures: Figures) -> list[PressStep]:
    steps = [
        _ready("Wipe the blank with a lint-free cloth. Trim the print flush at the end without the tab.", "sheet"),
        _ready(
            "Lay it round the blank, print inward, ends butted, and tape the tab down. Tape rim and foot. No air beneath.",
            "wrapped",
        ),
        _heat(figures, "Press with the seam down.", "seam-down", figures.main_s),
        _heat(figures, "Turn it over and press with the seam up.", "seam-up", figures.main_s),
    ]
    if figures.side_s:
        steps += [
            _heat(figures, "A quarter turn: press the left side.", "side-left", figures.side_s),
            _heat(figures, "A half turn: press the right side.", "side-right", figures.side_s),
        ]
    steps.append(PEEK)
    steps.append(_heat(figures, "Pale: press it once more, seam up.", "seam-up", figures.again_s, "again"))
    if figures.end_s:
        ends: tuple[Lie, Lie] = ("bottom", "top")
        for end in ends:
            for turn in ("press that end", "turn it half round and press that end again"):
                steps.append(_heat(figures, f"Pale at the {end}: {turn}.", end, figures.end_s, "if-pale"))
    return [*steps, COOL]


def _mug(figures: Figures) -> list[PressStep]:
    return [
        _ready("Wipe the mug with a lint-free cloth. Check the print's height against the mug.", "sheet"),
        _ready(
            "Lay it round the mug, print inward, even at both sides of the handle, and tape its edges. No air beneath.",
            "wrapped",
        ),
        _heat(figures, "Close the press round it, the handle free.", "mug", figures.main_s),
        PEEK,
        _heat(figures, "Pale: close it once more.", "mug", figures.again_s, "again"),
        COOL,
    ]


def _flat(figures: Figures, panel: Panel, platen_mm: tuple[float, float]) -> list[PressStep]:
    positions = press_positions(panel.file_mm, platen_mm, POSITION_OVERLAP_MM)
    steps = [
        _ready("Press the bare cloth for some seconds to drive out damp, and lift lint off with a roller.", "flat"),
        _ready("Lay the print face down, tape it so that it cannot move, and cover it with clean paper on both sides.", "flat"),
    ]
    for number, part in enumerate(positions, 1):
        several = len(positions) > 1
        do = f"Position {number} of {len(positions)}: column {part.column + 1}, row {part.row + 1}." if several else "Press."
        under = part if several else None
        pale = "Pale: press this position once more." if several else "Pale: press it once more where it is pale."
        steps += [
            _heat(figures, do, "flat", figures.main_s, part=under),
            replace(PEEK, lie="flat", part=under),
            _heat(figures, pale, "flat", figures.again_s, "again", under),
        ]
    return [*steps, COOL]


def press_plan(
    template: Template, panel: Panel, method: Method, figures: Figures, platen_mm: tuple[float, float] = PLATEN_MM
) -> list[PressStep]:
    """Return the steps of pressing a panel's print on a blank.

    Order and turns: common practice, no published source; the figures carry their own source.

    Args:
        platen_mm: of a flat press; a larger print is pressed in positions that overlap.
    """
    if method == "tumbler":
        return _tumbler(figures)
    return _mug(figures) if method == "mug" else _flat(figures, panel, platen_mm)


def total_seconds(steps: list[PressStep]) -> float:
    """Return the seconds under heat in a normal run, without the steps that only follow a pale print."""
    return sum(step.seconds for step in steps if step.kind == "press")
