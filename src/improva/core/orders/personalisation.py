"""Fill the open places of texts for an order: no larger than the design's text, smaller where the text is longer."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

from ..errors import PieceError
from ..pieces import Lettering, lettering_shape
from ..template import Panel, Template
from ..words import Font

FIELD = re.compile(r"\{([^{}\n]{1,40})\}")
"""A placeholder in words, such as ``{name}``."""


@dataclass(frozen=True)
class Filled:
    """A text as printed for an order.

    Attributes:
        cap_mm: the height of their capitals.
        share: their size against that of the design's own words; 1 where they did not have to be made smaller.
    """

    lettering: Lettering
    cap_mm: float
    share: float


def least_cap(template: Template, lettering: Lettering, asked_mm: float) -> float:
    """Return the least height of capitals in mm: the seller's, else the least that can be read on this blank."""
    return asked_mm or template.limit("letter_mm")


def fill_words(lettering: Lettering, values: Mapping[str, str], font: Font, panel: Panel, least_mm: float) -> Filled:
    """Return words with their open places filled, within the space of the design's own words; longer texts are set smaller.

    Raises:
        PieceError: the font lacks a letter, or they would be smaller than ``least_mm``.
    """
    own = lettering_shape(lettering, font)
    em = own.cap_mm / font.cap_height
    text = FIELD.sub(lambda m: values.get(m[1].strip(), m[0]), lettering.text)
    # set at the size of the design's own words: a short name is not enlarged to fill their width
    now = replace(lettering, text=text, sizing="size", size_mm=em)
    shape = lettering_shape(now, font)
    if shape.missing:
        raise PieceError(f"The font has no {', '.join(f'“{letter}”' for letter in shape.missing)}: write '{text}' without.")
    room = _room(lettering, own.words[0], panel)
    share = min(1.0, room / max(shape.words[0], 1e-9))
    if share < 1:
        now = replace(now, size_mm=em * share)
    cap = own.cap_mm * share
    if cap < least_mm and share < 1:
        raise PieceError(f"'{text}' is too long: its capitals would be {cap:.2g} mm high, and {least_mm:.2g} mm are needed.")
    return Filled(now, cap, share)


def _room(lettering: Lettering, own_mm: float, panel: Panel) -> float:
    """Return the greatest width of an order's text: that of the design's text, else of the safe area."""
    if lettering.path.along == "circle":
        return math.inf  # words around a circle have no limiting width
    return lettering.width_mm if lettering.sizing != "size" else max(own_mm, panel.level().safe_box[2])
