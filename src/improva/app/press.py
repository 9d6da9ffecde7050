"""Pressing a blank: which press, which figures, which plan."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..core.press import METHODS, PLATEN_MM, Figures, PressStep, Suggestion, common_figures, methods_of, press_plan, suggest
from ..core.template import Panel, Template
from ..store import PressingRow, PressRow, Store


@dataclass(frozen=True)
class PressChoice:
    """A choice of press, finish and side of a blank; an empty field means the blank's default.

    Attributes:
        method: a key of :data:`METHODS`.
        press: the name of one of the seller's presses.
        by: whose figures: ``maker``, ``log``, or empty for the maker's where they are known.
        panel: id of the side.
    """

    method: Any = None
    press: str = ""
    finish: str = ""
    by: str = ""
    panel: str | None = None


@dataclass(frozen=True)
class PressSetup:
    """How a blank is pressed: the press, the figures and their source, and the steps."""

    method: Any
    press: PressRow
    finish: str
    panel: Panel
    by_maker: bool
    figures: Figures
    common: Figures
    maker: Figures | None
    suggestion: Suggestion
    log: list[PressingRow]
    steps: list[PressStep]


def choose_press(store: Store, template: Template, choice: PressChoice) -> tuple[Any, PressRow, str]:
    """Return the method, press and finish of a choice.

    Raises:
        PressError: the blank does not go into such a press.
    """
    method = choice.method or methods_of(template)[0]
    common_figures(template, method)
    finish = choice.finish if choice.finish in template.finishes else next(iter(template.finishes), "")
    return method, _press_of(store, method, choice.press), finish


def _press_of(store: Store, method: Any, name: str) -> PressRow:
    known = store.pressings.presses(method)
    chosen = next((press for press in known if press.name == name), None) or (None if name else next(iter(known), None))
    return chosen or PressRow(name or f"My {METHODS[method].lower()}", method, PLATEN_MM)


def press_setup(store: Store, template: Template, choice: PressChoice) -> PressSetup:
    """Return how a blank is pressed: by the maker's figures where known, else by the log's suggestion.

    Raises:
        PressError: the blank does not go into such a press.
    """
    method, press, finish = choose_press(store, template, choice)
    common, maker = common_figures(template, method), store.pressings.maker(template.id, finish, method)
    log = store.pressings.log(template.id, finish, method, press.name)
    suggestion = suggest([row.pressing for row in log], maker or common)
    panel = template.panel(choice.panel)
    by_maker = maker is not None and choice.by != "log"
    figures = maker if maker is not None and by_maker else suggestion.figures
    steps = press_plan(template, panel, method, figures, press.platen_mm)
    return PressSetup(method, press, finish, panel, by_maker, figures, common, maker, suggestion, log, list(steps))
