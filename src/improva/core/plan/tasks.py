"""Tasks of the seller's work, and the batches in which blanks are pressed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Literal, get_args

Kind = Literal["print", "press", "order", "fix", "picture", "list"]
KINDS: tuple[Kind, ...] = get_args(Kind)
"""In the order in which they are planned: what buyers wait for comes first."""


@dataclass(frozen=True)
class Minutes:
    """How long work takes by hand, in minutes for one piece. First values from memory; the seller sets their own.

    ``press`` is the handling of a blank beside the time under heat: taping, laying in, taking out.
    """

    print: float = 2.0
    press: float = 3.0
    order: float = 3.0
    fix: float = 5.0
    picture: float = 2.0
    list: float = 10.0

    def of(self, kind: Kind) -> float:
        """Return the minutes of one piece of a kind."""
        return float(getattr(self, kind))


@dataclass(frozen=True, order=True)
class Heat:
    """How a blank is pressed: what pieces of one batch have in common.

    Attributes:
        temperature_c, seconds: of the press, and under heat in all for one piece.
    """

    method: str
    temperature_c: float
    seconds: float
    pressure: str

    @property
    def title(self) -> str:
        """For example "Tumbler press, 196 °C, 170 s"."""
        return f"{self.method}, {self.temperature_c:.0f} °C, {self.seconds:.0f} s"


@dataclass(frozen=True)
class Task:
    """Some pieces of the same work on one pair.

    Attributes:
        minutes_each: for one of ``count`` pieces.
        why: what is to be fixed, or whose orders they are.
        heat: how it is pressed; None for other work.
    """

    kind: Kind
    artwork_id: int
    template_id: str
    title: str
    count: int
    minutes_each: float
    why: str = ""
    heat: Heat | None = None

    @property
    def minutes(self) -> float:
        """Return the minutes of all pieces."""
        return self.count * self.minutes_each

    def part(self, count: int) -> Task:
        """Return the same work on fewer pieces."""
        return replace(self, count=count)


def in_order(tasks: Iterable[Task]) -> list[Task]:
    """Return tasks in the order of work: by kind, and pressing by its heat, so that a press is set up once for each batch."""
    return sorted(tasks, key=lambda task: (KINDS.index(task.kind), task.heat or Heat("", 0, 0, "")))


@dataclass(frozen=True)
class PressBatch:
    """Pieces that are pressed one after another at the same heat."""

    heat: Heat
    tasks: tuple[Task, ...]

    @property
    def count(self) -> int:
        """Return the number of pieces."""
        return sum(task.count for task in self.tasks)

    @property
    def minutes(self) -> float:
        """Return the minutes of all pieces, with their handling."""
        return sum(task.minutes for task in self.tasks)


def press_batches(tasks: Iterable[Task]) -> list[PressBatch]:
    """Group the pressing of some tasks by method, temperature, time and pressure."""
    pressed = [task for task in in_order(tasks) if task.heat is not None]
    return [PressBatch(heat, tuple(group)) for heat, group in groupby(pressed, lambda task: task.heat) if heat is not None]
