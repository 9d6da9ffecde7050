"""Set words in lines: shaping, tracking and alignment; contours in em."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..errors import PieceError
from .font import Contour, Font

Align = Literal["left", "centre", "right"]
MOST_LETTERS = 600
COLUMN_GAP = 0.3
"""Space between columns of stacked letters, in em."""
TRACKING_LIMITS = (-0.2, 3.0)
LEADING_LIMITS = (0.4, 5.0)


@dataclass(frozen=True)
class Setting:
    """Font, tracking, alignment and line spacing of words.

    Attributes:
        leading: from one baseline to the next, times the letters' size.
        tracking: space added between letters, times the size.
        stacked: letters stand upright one below another, a column for each line; ``leading`` is then from one letter to
            the next, and ``tracking`` the space added between columns. ``left`` aligns columns at the top.
    """

    align: Align = "centre"
    leading: float = 1.15
    tracking: float = 0.0
    stacked: bool = False

    def __post_init__(self) -> None:
        for value, (low, high), what in (
            (self.leading, LEADING_LIMITS, "leading"),
            (self.tracking, TRACKING_LIMITS, "tracking"),
        ):
            if not low <= value <= high:
                raise PieceError(f"A {what} of {value:g} is out of reach: use {low:g} to {high:g} times the size.")


@dataclass(frozen=True)
class Block:
    """Words set in lines, y upward, around the centre of the block; lengths in em.

    Attributes:
        contours: closed, each (n, 2). Filled by the non-zero rule.
        width: the widest line's advance.
        height: from the first line's capitals to the last baseline.
        missing: characters the font does not have; nothing is drawn for them.
    """

    contours: tuple[Contour, ...]
    width: float
    height: float
    missing: tuple[str, ...]


def _line(font: Font, text: str, setting: Setting) -> tuple[list[Contour], float]:
    """Return one line starting at x = 0 on its baseline, and its width; missing characters take no room."""
    drawable = "".join(c for c in text if c.isspace() or c not in font.missing(text))
    x, contours = 0.0, []
    glyphs = font.shape(drawable, ligatures=setting.tracking == 0)
    for glyph, _, dx, dy, advance in glyphs:
        contours += [np.add(contour, (x + dx, dy)) for contour in font.outline(glyph)]
        x += advance + setting.tracking
    return contours, max(0.0, x - setting.tracking)


def _columns(font: Font, lines: list[str], setting: Setting) -> Block:
    """Set each line as a column of upright letters, the first one on the left."""
    missing = tuple(font.missing("".join(lines)))
    columns = [[_line(font, letter, setting) for letter in line] for line in lines]
    wide = [max((w for _, w in column), default=0.0) for column in columns]
    most = max(len(column) for column in columns)
    width = sum(wide) + (len(wide) - 1) * (COLUMN_GAP + setting.tracking)
    height = font.cap_height + (most - 1) * setting.leading
    contours: list[Contour] = []
    x = -width / 2
    for column, across in zip(columns, wide, strict=True):
        spare = (most - len(column)) * setting.leading
        top = height / 2 - font.cap_height - {"left": 0.0, "centre": spare / 2, "right": spare}[setting.align]
        for i, (letter, w) in enumerate(column):
            contours += [np.add(contour, (x + (across - w) / 2, top - i * setting.leading)) for contour in letter]
        x += across + COLUMN_GAP + setting.tracking
    return _block(contours, width, height, missing)


def _block(contours: list[Contour], width: float, height: float, missing: tuple[str, ...]) -> Block:
    """Return contours as a block. Raises :class:`PieceError` where there are none."""
    if not contours:
        raise PieceError(f"The font has none of these letters ({' '.join(missing[:8])}): choose another font.")
    return Block(tuple(np.asarray(c) for c in contours), width, height, missing)


def set_words(font: Font, text: str, setting: Setting) -> Block:
    """Set words in lines, with line breaks where the text has them.

    Raises:
        PieceError: there are no letters, too many of them, or none that the font has.
    """
    lines = text.strip("\n").split("\n")
    if not text.strip():
        raise PieceError("There are no words yet: write some.")
    if len(text) > MOST_LETTERS:
        raise PieceError(f"These are {len(text)} letters: set {MOST_LETTERS} at most in one piece.")
    if setting.stacked:
        return _columns(font, lines, setting)
    set_lines = [_line(font, line, setting) for line in lines]
    width = max(w for _, w in set_lines)
    height = font.cap_height + (len(lines) - 1) * setting.leading
    missing = tuple(font.missing(text))
    contours: list[Contour] = []
    for i, (line, w) in enumerate(set_lines):
        left = {"left": -width / 2, "centre": -w / 2, "right": width / 2 - w}[setting.align]
        down = height / 2 - font.cap_height - i * setting.leading
        contours += [np.add(contour, (left, down)) for contour in line]
    return _block(contours, width, height, missing)
