"""Preparation steps: functions on a picture with declared values, from which the page and the shell build their controls."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from ..colour import parse_hex
from ..errors import PlacementError, StepError
from .picture import Picture

FieldKind = Literal["number", "choice", "colour", "switch", "points", "box", "pairs", "text", "font", "file", "files"]
FILES: tuple[FieldKind, ...] = ("font", "file", "files")
"""Names of values that refer to files; the caller supplies the files' bytes."""

MOST_POINTS = 500
LONGEST_TEXT = 2000


@dataclass(frozen=True)
class Field:
    """A value of a step.

    Attributes:
        kind: ``number``; ``choice`` of some names; ``colour`` as #rrggbb; ``switch``; ``points`` on the picture and a
            ``box`` (x, y, width, height), both in fractions of its width and height; ``pairs`` of colours, from and to;
            ``text``; a ``font``, a ``file`` or ``files`` by their names.
        default: the value where none is given. None stands for one that is found from the picture.
        unit: ``mm``, ``px``, ``°``, ``%``, ``×`` or ``steps`` (of 255).
    """

    name: str
    title: str
    kind: FieldKind
    default: Any
    unit: str = ""
    least: float = -math.inf
    most: float = math.inf
    choices: tuple[tuple[str, str], ...] = ()
    hint: str = ""

    def checked(self, value: Any) -> Any:
        """Validate a value and convert it for the step. Raises :class:`StepError`."""
        if self.default is None and value in (None, "none"):
            return None
        try:
            return _CHECKS[self.kind](self, value)
        except (TypeError, ValueError, PlacementError):
            raise StepError(f"'{value}' is not a value for {self.name}: {self.wanted}.") from None

    def text(self, value: Any) -> str:
        """Return a value as written in a shell."""
        if self.kind == "switch":
            return "yes" if value else "no"
        if self.kind == "points":
            return ";".join("/".join(f"{v:g}" for v in point) for point in value)
        if self.kind == "files":
            return ";".join(value)
        if self.kind == "pairs":
            return ";".join(">".join(pair) for pair in value)
        if self.kind == "box":
            return "/".join(f"{v:g}" for v in value)
        return f"{value:g}" if isinstance(value, float | int) else str(value)

    @property
    def wanted(self) -> str:
        """Return a description of valid values."""
        if self.kind == "number":
            return f"give a number from {self.least:g} to {self.most:g}" + (f" {self.unit}" if self.unit else "")
        if self.kind == "choice":
            return "choose one of " + ", ".join(name for name, _ in self.choices)
        return {
            "colour": "write a colour as #rrggbb",
            "switch": "write yes or no",
            "points": "write points as x/y;x/y, in fractions of the picture",
            "box": "write x/y/width/height, in fractions of it",
            "pairs": "write pairs as #rrggbb>#rrggbb;…",
            "text": "write some words",
            "font": "name a font that ships, or a file",
            "file": "name a file",
            "files": "name files, with ; between them",
        }[self.kind]


def _number(field: Field, value: Any) -> float:
    number = float(value)
    if isinstance(value, bool) or not field.least <= number <= field.most:
        raise ValueError
    return number


def _choice(field: Field, value: Any) -> str:
    if value not in dict(field.choices):
        raise ValueError
    return str(value)


def _colour(_: Field, value: Any) -> str:
    parse_hex(value)
    return str(value).lower()


def _switch(_: Field, value: Any) -> bool:
    if isinstance(value, str):
        value = {"yes": True, "no": False, "true": True, "false": False, "on": True, "off": False}.get(value.lower())
    if not isinstance(value, bool):
        raise ValueError
    return value


def _split(text: str, between: str) -> list[str]:
    return [part for part in text.split(between) if part]


def _fractions(values: Any, count: int) -> tuple[float, ...]:
    numbers = tuple(float(v) for v in values)
    if len(numbers) != count or not all(0 <= v <= 1 for v in numbers):
        raise ValueError
    return numbers


def _points(_: Field, value: Any) -> tuple[tuple[float, ...], ...]:
    parts = [_split(point, "/") for point in _split(value, ";")] if isinstance(value, str) else value
    if len(parts) > MOST_POINTS:
        raise ValueError
    return tuple(_fractions(point, 2) for point in parts)


def _box(_: Field, value: Any) -> tuple[float, ...]:
    x, y, w, h = _fractions(_split(value, "/") if isinstance(value, str) else value, 4)
    if min(w, h) <= 0 or x + w > 1 + 1e-9 or y + h > 1 + 1e-9:
        raise ValueError
    return x, y, w, h


def _pairs(field: Field, value: Any) -> tuple[tuple[str, str], ...]:
    parts = [_split(pair, ">") for pair in _split(value, ";")] if isinstance(value, str) else value
    return tuple((_colour(field, one), _colour(field, other)) for one, other in parts)


def _text(_: Field, value: Any) -> str:
    if not isinstance(value, str) or len(value) > LONGEST_TEXT:
        raise ValueError
    return value


def _files(_: Field, value: Any) -> tuple[str, ...]:
    return tuple(_split(value, ";")) if isinstance(value, str) else tuple(str(name) for name in value)


_CHECKS: dict[FieldKind, Callable[[Field, Any], Any]] = {
    "text": _text,
    "font": _text,
    "file": _text,
    "files": _files,
    "number": _number,
    "choice": _choice,
    "colour": _colour,
    "switch": _switch,
    "points": _points,
    "box": _box,
    "pairs": _pairs,
}


@dataclass(frozen=True)
class StepKind:
    """A kind of step: its name, a one-sentence description, its values and its function.

    ``reshapes`` says that a place on the picture before it is another place after it.
    """

    id: str
    title: str
    says: str
    fields: tuple[Field, ...]
    run: Callable[..., Picture]
    reshapes: bool = False

    def values(self, settings: Mapping[str, Any]) -> dict[str, Any]:
        """Return all values of a step, validated. Raises :class:`StepError`."""
        known = {field.name: field for field in self.fields}
        for name in settings:
            if name not in known:
                raise StepError(f"'{self.id}' takes no '{name}': it takes {', '.join(known) or 'nothing'}.")
        return {name: field.checked(settings.get(name, field.default)) for name, field in known.items()}
