"""Names by a pattern of the seller's: file names in archives, and titles of artworks."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from pathlib import PurePosixPath
from string import Formatter

from ..errors import PlacementError
from .file_names import slug

BATCH_FILES = "{id}-{title}/{blank}/{name}"
PACK_FILES = "{number}_{name}"
FILE_FIELDS = ("id", "title", "blank", "number", "name")
"""Number and title of the artwork, id of the blank, place in the archive from 1, and the usual name without its ending."""

TITLE_FIELDS = ("title", "number", "file")
"""The title so far, place in the selection from 1, and the name of the imported file without its ending."""

LONGEST = 200


def checked_pattern(pattern: str, fields: Iterable[str]) -> str:
    """Return a pattern without spaces around it. Raises :class:`PlacementError` for one that names no field, or an unknown one."""
    known, pattern = tuple(fields), pattern.strip()
    try:
        parts = list(Formatter().parse(pattern))
    except ValueError:
        raise PlacementError(f"'{pattern}' is not a pattern: each {{ needs its }}.") from None
    named = [name for _, name, spec, conversion in parts if name is not None]
    plain = all(not spec and not conversion for _, name, spec, conversion in parts if name is not None)
    if not named or not plain or any(name not in known for name in named) or len(pattern) > LONGEST:
        raise PlacementError(f"'{pattern[:80]}' is not a pattern: use {', '.join(f'{{{name}}}' for name in known)} in it.")
    return pattern


def numbered(number: int, count: int) -> str:
    """Return a number with leading zeros, so that names sort by it: two digits at least."""
    return f"{number:0{max(2, len(str(count)))}d}"


def filled(pattern: str, values: Mapping[str, str]) -> str:
    """Return a pattern with its fields filled."""
    return Formatter().vformat(pattern, (), values)


def file_path(pattern: str, values: Mapping[str, str], ending: str) -> str:
    """Return a path within an archive; its parts are safe on every system, and none leads out of the archive."""
    whole = filled(pattern, {name: value.replace("/", "-") for name, value in values.items()})
    parts = [re.sub(r"[^\w.,()+=@ -]+", "-", part, flags=re.ASCII).strip(" .") for part in whole.split("/")]
    return "/".join(part or "file" for part in parts if part or len(parts) == 1) + ending


class ArchiveNames:
    """Names files of an archive, one after another: a name that was given already gets the next free number."""

    def __init__(self, pattern: str, count: int) -> None:
        """``count`` files will be named by ``pattern``."""
        self._pattern, self._count, self._number = pattern, count, 0
        self._given: set[str] = set()

    def __call__(self, artwork_id: int, title: str, blank: str, file_name: str) -> str:
        """Return the path of the next file in the archive; it keeps the ending of its usual name."""
        self._number += 1
        usual = PurePosixPath(file_name)
        values = {
            "id": str(artwork_id),
            "title": slug(title),
            "blank": blank,
            "number": numbered(self._number, self._count),
            "name": usual.stem,
        }
        return self.distinct(file_path(self._pattern, values, usual.suffix))

    def distinct(self, path: str) -> str:
        """Return the path, or the next one of its kind that is still free."""
        stem, dot, ending = path.rpartition(".")
        stem, ending = (stem, dot + ending) if dot and "/" not in ending else (path, "")
        now, count = path, 1
        while now.casefold() in self._given:
            count += 1
            now = f"{stem}-{count}{ending}"
        self._given.add(now.casefold())
        return now


def renamed(pattern: str, titles: Iterable[tuple[str, str]], find: str = "", replace: str = "") -> list[str]:
    """Return new titles of artworks from their titles and file names; ``find`` is replaced in the titles first."""
    rows, pattern = list(titles), checked_pattern(pattern, TITLE_FIELDS)
    found = []
    for i, (title, file_name) in enumerate(rows, 1):
        changed = title.replace(find, replace) if find else title
        values = {"title": changed, "number": numbered(i, len(rows)), "file": file_name.rsplit(".", 1)[0]}
        found.append(" ".join(filled(pattern, values).split())[:120] or "Artwork")
    return found
