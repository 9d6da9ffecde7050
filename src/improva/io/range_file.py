"""A product range as a TOML file: artworks, blanks, and what to make of them."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, get_args

from ..core.design import Fit, Placement
from ..core.errors import ImprovaError, PlacementError
from ..core.mockup.render import PICTURE_FORMATS

MAKES = ("pictures", "print")
PRINT_FORMATS = ("png", "tif", "pdf", "jpg")
KEYS = {
    "": {"art", "templates", "make", "pictures", "print", "fit"},
    "pictures": {"scenes", "sizes", "format"},
    "print": {"dpi", "format", "paper"},
}


class RangeError(ImprovaError):
    """A range file that is missing, malformed, or names something unknown."""


@dataclass(frozen=True)
class Range:
    """The contents of a range file.

    Attributes:
        arts: files, in order, each once.
        templates: ids of blanks.
        make: of ``pictures`` and ``print``.
        scenes: ids of scenes; empty for all of each blank.
        sizes: of pictures, in px.
        printing: how print files are made, as the Print station takes it.
        fit: fits by blank; blanks that are not there get what is proposed.
        roomy: blanks that contain the artwork at no scale of the file's: they get the scale that the page gives.
    """

    arts: tuple[Path, ...]
    templates: tuple[str, ...]
    make: tuple[str, ...] = MAKES
    scenes: tuple[str, ...] = ()
    sizes: tuple[tuple[int, int], ...] = ((2000, 2000),)
    picture_format: str = "jpg"
    printing: dict[str, Any] = field(default_factory=dict)
    fit: dict[str, Placement] = field(default_factory=dict)
    roomy: frozenset[str] = frozenset()


def _words(data: dict[str, Any], key: str, where: str = "") -> tuple[str, ...]:
    words = data.get(key, [])
    if not isinstance(words, list) or not all(isinstance(word, str) for word in words):
        raise RangeError(f"'{where}{key}' must be a list of words in quotes, for example {key} = [\"…\"].")
    return tuple(dict.fromkeys(words))


def _size(text: str) -> tuple[int, int]:
    w, _, h = text.lower().partition("x")
    if not (w.isdigit() and h.isdigit() and int(w) and int(h)):
        raise RangeError(f"'{text}' is no size of a picture: write for example \"2000x2000\".")
    return int(w), int(h)


def _arts(patterns: tuple[str, ...], folder: Path) -> tuple[Path, ...]:
    paths: dict[Path, None] = {}
    for pattern in patterns:
        try:
            here = [Path(pattern)] if Path(pattern).is_absolute() else sorted(folder.glob(pattern))
        except ValueError as wrong:
            raise RangeError(f"'{pattern}' names no file: {wrong}.") from wrong
        files = [path for path in here if path.is_file()]
        if not files:
            raise RangeError(f"There is no file '{pattern}' in {folder}: correct 'art'.")
        paths.update(dict.fromkeys(files))
    return tuple(paths)


def _table(data: dict[str, Any], name: str) -> dict[str, Any]:
    part = data.get(name, {}) if name else data
    if not isinstance(part, dict):
        raise RangeError(f"'{name}' must be a table: write [{name}] on a line of its own.")
    if name in KEYS and (strange := sorted(set(part) - KEYS[name])):
        where = f" in [{name}]" if name else ""
        raise RangeError(f"'{strange[0]}' is not known{where}. Known: {', '.join(sorted(KEYS[name]))}.")
    return part


def read_range(path: Path) -> Range:
    """Read a range file. Its paths are relative to the file. Raises :class:`RangeError`."""
    try:
        data = tomllib.loads(path.read_text(encoding="utf-8"))
    except OSError as missing:
        raise RangeError(f"'{path}' cannot be read: {missing.strerror}.") from missing
    except (ValueError, RecursionError) as broken:  # not TOML, not UTF-8, a number of thousands of digits, nested too deeply
        raise RangeError(f"'{path.name}' is not valid TOML: {broken}.") from broken
    whole, pictures, printing = _table(data, ""), _table(data, "pictures"), _table(data, "print")
    templates, make = _words(whole, "templates"), _words(whole, "make") or MAKES
    if not templates or not _words(whole, "art"):
        raise RangeError("A range needs 'art' and 'templates': lists of files and of blanks; see 'improva templates'.")
    if strange := set(make) - set(MAKES):
        raise RangeError(f"'{min(strange)}' cannot be made. What can: {', '.join(MAKES)}.")
    picture_format = pictures.get("format", "jpg")
    if f".{picture_format}" not in PICTURE_FORMATS:
        raise RangeError(f"Pictures are made as jpg, png or webp, not as '{picture_format}'.")
    if printing.get("format", "png") not in PRINT_FORMATS:
        raise RangeError(f"Print files are made as {', '.join(PRINT_FORMATS)}, not as '{printing['format']}'.")
    return Range(
        _arts(_words(whole, "art"), path.parent),
        templates,
        make,
        _words(pictures, "scenes", "pictures."),
        tuple(_size(size) for size in _words(pictures, "sizes", "pictures.")) or ((2000, 2000),),
        picture_format,
        printing,
        _fits(_table(data, "fit")),
        frozenset(blank for blank, options in _table(data, "fit").items() if _is_roomy(options)),
    )


def _is_roomy(options: Any) -> bool:
    return options == "contain" or (isinstance(options, dict) and options.get("fit") == "contain" and "scale" not in options)


def _fits(table: dict[str, Any]) -> dict[str, Placement]:
    """Parse placements by blank: the name of a fit, or a table of placement values."""
    fits = {}
    for blank, options in table.items():
        values = {"fit": options} if isinstance(options, str) else options
        if not isinstance(values, dict) or values.get("fit", "cover") not in get_args(Fit):
            raise RangeError(f"'fit.{blank}' must be one of {', '.join(get_args(Fit))}, or a table with fit, scale and so on.")
        try:
            shift = values.get("shift_mm", (0.0, 0.0))
            fits[blank] = Placement(**{**values, "shift_mm": (float(shift[0]), float(shift[1]))})
        except (TypeError, ValueError, IndexError, PlacementError) as wrong:
            raise RangeError(f"'fit.{blank}' is no placement: {wrong}.") from wrong
    return fits
