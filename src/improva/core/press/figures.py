"""Temperature, time and pressure: the maker's figures where the seller has entered them, else common practice."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Literal, get_args

from ..errors import PressError
from ..template import Template
from ..units import celsius

Method = Literal["tumbler", "flat", "mug"]
METHODS: dict[Method, str] = {"tumbler": "Tumbler press", "flat": "Flat press", "mug": "Mug press"}
Pressure = Literal["light", "medium", "firm"]
PRESSURES: tuple[Pressure, ...] = get_args(Pressure)
Source = Literal["maker", "log", "practice"]

HOTTEST_C, COOLEST_C = 232.0, 100.0
"""Limits of the temperature, °C: most presses end at about 450 °F; below 100 °C no dye turns to gas. From memory."""
LONGEST_S = 900.0


@dataclass(frozen=True)
class Figures:
    """Settings of a press for a blank.

    Attributes:
        main_s: the long press: on a tumbler seam down and again seam up; on a flat or mug press the only one.
        side_s, end_s: on a tumbler each side, and each turn at bottom and top where ends come out pale.
        again_s: once more, where a peek shows it pale.
        source, note: where the figures come from.
    """

    temperature_c: float
    main_s: float
    pressure: Pressure = "light"
    side_s: float = 0.0
    end_s: float = 0.0
    again_s: float = 40.0
    source: Source = "practice"
    note: str = ""

    def __post_init__(self) -> None:
        if not COOLEST_C <= self.temperature_c <= HOTTEST_C:
            raise PressError(
                f"{self.temperature_c:.0f} °C is out of a press's reach: use {COOLEST_C:.0f} to {HOTTEST_C:.0f} °C."
            )
        for what, seconds in (("press", self.main_s), ("side", self.side_s), ("end", self.end_s), ("repress", self.again_s)):
            if not 0 <= seconds <= LONGEST_S:
                raise PressError(f"{seconds:g} s for the {what} cannot be: use 0 to {LONGEST_S:.0f} s.")
        if not self.main_s:
            raise PressError("A press of 0 s does nothing: give its seconds.")
        if self.pressure not in PRESSURES:
            raise PressError(f"A pressure '{self.pressure}' is not known: choose one of {', '.join(PRESSURES)}.")

    def changed(self, **what: Any) -> Figures:
        """Return a copy with some values changed."""
        return replace(self, **what)


_TUMBLER = Figures(
    round(celsius(385), 1),
    55,
    "light",
    27,
    12,
    40,
    "practice",
    "common practice, no published source: 385 °F, 55 s seam down, 55 s seam up, 25 to 30 s on each side",
)
_FLAT = {
    "flag": Figures(
        round(celsius(390), 1), 60, "medium", note="common practice, no published source: 390 °F, 60 s; pressure from memory"
    ),
    "garment": Figures(round(celsius(385), 1), 50, "medium", note="from memory: polyester, 385 °F, 45 to 60 s"),
    "pillow": Figures(round(celsius(390), 1), 60, "medium", note="from memory: polyester cover, 390 °F, 60 s"),
    "blanket": Figures(
        round(celsius(390), 1), 60, "light", note="from memory: fleece, 390 °F, 60 s, light so that the pile stays up"
    ),
}
_FLAT_ELSE = Figures(round(celsius(390), 1), 60, "medium", note="from memory: polyester, 390 °F, 60 s")
_MUG = Figures(
    round(celsius(385), 1), 180, "medium", again_s=45, note="from memory: coated ceramic in a mug press, 385 °F, 180 s"
)


def methods_of(template: Template) -> tuple[Method, ...]:
    """Return the presses that fit a blank, the usual one first."""
    return {"tumbler": ("tumbler",), "bottle": ("tumbler",), "pen": ("tumbler",), "mug": ("mug", "tumbler")}.get(
        template.kind, ("flat",)
    )  # type: ignore[return-value]


def common_figures(template: Template, method: Method) -> Figures:
    """Return the commonly used settings for a kind of blank; their note says so.

    Raises:
        PressError: the blank does not go into such a press.
    """
    if method not in methods_of(template):
        raise PressError(f"{template.title} does not go into a {METHODS[method].lower()}: choose {methods_of(template)[0]}.")
    if method == "tumbler":
        return _TUMBLER
    return _MUG if method == "mug" else _FLAT.get(template.kind, _FLAT_ELSE)
