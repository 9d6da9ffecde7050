"""A contact sheet: small pictures on one page, each with its name."""

from __future__ import annotations

import math
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFont

from ..core.errors import OutputError

GAP, LINE = 24, 26
PAPER, INK = (250, 248, 243), (40, 38, 34)


def contact_sheet(pictures: list[tuple[str, Path]], side_px: int) -> NDArray[np.uint8]:
    """Return pictures in a grid that is about square, (h, w, 3) sRGB.

    Args:
        pictures: name and file of each; what is transparent lies on the paper.
        side_px: the longer side of each.

    Raises :class:`OutputError` where there is no picture.
    """
    if not pictures:
        raise OutputError("There is no picture for a contact sheet: choose a scene first.")
    columns = math.ceil(math.sqrt(len(pictures)))
    rows = math.ceil(len(pictures) / columns)
    cell = side_px + GAP
    sheet = Image.new("RGB", (columns * cell + GAP, rows * (cell + LINE) + GAP), PAPER)
    draw, font = ImageDraw.Draw(sheet), ImageFont.load_default(size=16)
    for i, (name, path) in enumerate(pictures):
        x, y = GAP + i % columns * cell, GAP + i // columns * (cell + LINE)
        with Image.open(path) as picture:
            picture.draft("RGB", (side_px, side_px))
            small = picture.convert("RGBA")
        small.thumbnail((side_px, side_px))
        sheet.paste(small, (x + (side_px - small.width) // 2, y + (side_px - small.height) // 2), small)
        draw.text((x, y + side_px + 6), name, fill=INK, font=font)
    return np.asarray(sheet)
