"""A sample line in a font."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..artwork.pixels import as_array
from ..errors import FontError
from ..pieces import Lettering
from ..template import Panel
from ..words.font import Font
from .words import words_layer

SAMPLE_MM, SAMPLE_PX_MM = (60.0, 8.0), 6
LETTERS_SHOWN = 24


def font_sample(font: Font, title: str) -> NDArray[np.uint8]:
    """Return the start of a title set in a font, (h, w, 4), cropped at the left so that samples stand flush in a list.

    Raises:
        FontError: the font draws none of its letters.
    """
    words = Lettering(title[:LETTERS_SHOWN], "sample", sizing="box", width_mm=SAMPLE_MM[0] - 1, height_mm=SAMPLE_MM[1] - 2)
    size = (round(SAMPLE_MM[0] * SAMPLE_PX_MM), round(SAMPLE_MM[1] * SAMPLE_PX_MM))
    layer = words_layer(words, font, Panel("sample", "Sample", SAMPLE_MM), size)
    drawn = np.zeros((1, 1, 4), np.uint8) if layer is None else as_array(layer)
    inked = np.flatnonzero(drawn[..., 3].any(axis=0))
    if len(inked) == 0:
        raise FontError("This font draws none of the letters of its name: choose another.")
    return np.ascontiguousarray(drawn[:, inked[0] :])
