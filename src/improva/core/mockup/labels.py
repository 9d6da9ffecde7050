"""Captions, badges and measures on a picture."""

from __future__ import annotations

import io
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFont

from ..colour import Floats, parse_hex
from ..errors import OutputError
from ..units import inches
from .view import View

Place = Literal["top-left", "top", "top-right", "left", "right", "bottom-left", "bottom", "bottom-right"]
PLACES: dict[Place, tuple[float, float]] = {
    "top-left": (0, 0),
    "top": (0.5, 0),
    "top-right": (1, 0),
    "left": (0, 0.5),
    "right": (1, 0.5),
    "bottom-left": (0, 1),
    "bottom": (0.5, 1),
    "bottom-right": (1, 1),
}
MARGIN = 0.035
"""Distance between a caption and the picture's edge, in picture heights."""

TOUCHES = 0.02
"""Share of a caption's box that the product may cover."""

MOST_LETTERS = 120
SHRINKS = (1.0, 0.85, 0.7, 0.55, 0.45)
"""Factors by which a caption is made smaller before it is refused for lack of room."""
INK, PAPER = "#26231f", "#fbf9f4"
MEASURE_FONT = "sans-bold"
OpenFont = Callable[[str], bytes]
Box = tuple[int, int, int, int]


@dataclass(frozen=True)
class Caption:
    """A caption on a picture.

    Attributes:
        font: the key of a font that ships or of the seller's own.
        size: height of its letters in picture heights.
        plate: colour of the plate behind the text, None for none; ``round_`` makes a badge of it.
        over: it may lie over the product; else it gives way to it.
    """

    text: str
    font: str = "sans-bold"
    size: float = 0.045
    place: Place = "top-left"
    colour: str = INK
    plate: str | None = PAPER
    round_: bool = False
    over: bool = False

    def __post_init__(self) -> None:
        if not self.text.strip() or len(self.text) > MOST_LETTERS:
            raise OutputError(f"A caption needs words, and at most {MOST_LETTERS} letters.")
        if not 0.01 <= self.size <= 0.3:
            raise OutputError(f"Letters of {self.size:g} of the picture's height are out of reach: use 0.01 to 0.3.")
        for colour in (self.colour, self.plate or INK):
            parse_hex(colour)


def _font(data: bytes, px: float) -> ImageFont.FreeTypeFont:
    return ImageFont.truetype(io.BytesIO(data), max(8, round(px)))


def free_place(
    size: tuple[int, int], wanted: Place, picture: tuple[int, int], cover: Floats | None, occupied: Sequence[Box], over: bool
) -> Box | None:
    """Return where a box of ``size`` px goes: its wanted place, the nearest free one, or None if there is none.

    ``cover`` (h, w) is the product's mask in 0…1.
    """
    w, h = picture
    margin = round(MARGIN * h)

    def at(place: Place) -> Box:
        fx, fy = PLACES[place]
        x, y = margin + fx * (w - 2 * margin - size[0]), margin + fy * (h - 2 * margin - size[1])
        return round(x), round(y), round(x) + size[0], round(y) + size[1]

    def free(box: Box) -> bool:
        x0, y0, x1, y1 = box
        if x0 < 0 or y0 < 0 or x1 > w or y1 > h or any(x0 < b[2] and b[0] < x1 and y0 < b[3] and b[1] < y1 for b in occupied):
            return False
        return over or cover is None or float(cover[y0:y1, x0:x1].mean()) <= TOUCHES

    near = sorted(PLACES, key=lambda p: math.dist(PLACES[p], PLACES[wanted]))
    return next((box for box in map(at, near) if free(box)), None)


def captioned(
    picture: NDArray[np.uint8],
    captions: Sequence[Caption],
    cover: Floats | None,
    open_font: OpenFont,
    written: Sequence[Box] = (),
) -> NDArray[np.uint8]:
    """Draw captions on a picture (h, w, 3 or 4), in order; later ones avoid earlier ones.

    ``written`` are boxes where other words stand already.
    """
    if not captions:
        return picture
    image = Image.fromarray(np.ascontiguousarray(picture))
    draw = ImageDraw.Draw(image)
    occupied: list[Box] = [*written]
    for wanted in captions:
        caption, font, bounds, box = _fitted(draw, wanted, image.size, cover, occupied, open_font)
        occupied.append(box)
        if caption.plate:
            _plate(image, box, caption)
            draw = ImageDraw.Draw(image)
        left, top, right, bottom = bounds
        middle = ((box[0] + box[2] - (left + right)) / 2, (box[1] + box[3] - (top + bottom)) / 2)
        draw.multiline_text(middle, caption.text, font=font, fill=_ink(caption.colour, image), spacing=4, align="center")
    return np.asarray(image)


def _fitted(
    draw: ImageDraw.ImageDraw,
    wanted: Caption,
    picture: tuple[int, int],
    cover: Floats | None,
    occupied: list[Box],
    open_font: OpenFont,
) -> tuple[Caption, ImageFont.FreeTypeFont, tuple[float, ...], Box]:
    """Return a caption at its wanted size, or as large as there is room: its font, its letters' bounds and its box.

    Raises :class:`OutputError` where there is no room even at the least size.
    """
    for share in SHRINKS:
        caption = replace(wanted, size=max(0.01, wanted.size * share))
        font = _font(open_font(caption.font), caption.size * picture[1])
        left, top, right, bottom = draw.multiline_textbbox((0, 0), caption.text, font=font, spacing=4)
        pad = round(0.55 * caption.size * picture[1]) if caption.plate else 0
        size = (math.ceil(right - left) + 2 * pad, math.ceil(bottom - top) + 2 * pad)
        if caption.round_ and caption.plate:
            size = (max(size), max(size))
        box = free_place(size, caption.place, picture, cover, occupied, caption.over)
        if box is not None:
            return caption, font, (left, top, right, bottom), box
    raise OutputError(
        f"There is no room for '{wanted.text.splitlines()[0]}' beside the product: make it shorter or smaller, or let "
        "it lie over it."
    )


def _ink(colour: str, image: Image.Image) -> tuple[int, ...]:
    return (*parse_hex(colour), *((255,) if image.mode == "RGBA" else ()))


def _plate(image: Image.Image, box: Box, caption: Caption) -> None:
    """Draw a plate or badge with smooth edges: four times as large, then reduced."""
    w, h = box[2] - box[0], box[3] - box[1]
    mask = Image.new("L", (4 * w, 4 * h), 0)
    pen = ImageDraw.Draw(mask)
    if caption.round_:
        pen.ellipse((0, 0, 4 * w - 1, 4 * h - 1), fill=255)
    else:
        pen.rounded_rectangle((0, 0, 4 * w - 1, 4 * h - 1), radius=4 * h // 10, fill=255)
    image.paste(_ink(caption.plate or PAPER, image), box[:2], mask.resize((w, h), Image.Resampling.BOX))


def measure_text(mm: float) -> str:
    """Return a length in both units, for example ``8.2 in · 20.8 cm``."""
    return f"{inches(mm):.1f} in · {mm / 10:.1f} cm"


def measured(
    picture: NDArray[np.uint8], view: View, mirrored: bool, open_font: OpenFont
) -> tuple[NDArray[np.uint8], list[Box]]:
    """Draw the blank's dimensions on a picture (h, w, 3), and return it with the box around each label.

    Raises :class:`OutputError` where its scene has no measures.
    """
    if not view.info.measures:
        raise OutputError(f"{view.info.title} has no measures to draw: choose another scene for the size.")
    image = Image.fromarray(np.ascontiguousarray(picture))
    font = _font(open_font(MEASURE_FONT), 0.028 * image.height)
    thick = max(2, round(image.height / 420))
    boxes: list[Box] = []
    for measure in view.info.measures:
        a, b = (_on_view(view, point, mirrored) for point in (measure.start, measure.end))
        _dimension(image, a, b, measure_text(measure.mm), font, thick)
        x, y = sorted((round(a[0]), round(b[0]))), sorted((round(a[1]), round(b[1])))
        boxes.append((x[0] - 6 * thick, y[0] - 6 * thick, x[1] + 6 * thick, y[1] + 6 * thick))
    return np.asarray(image), boxes


def _on_view(view: View, point: tuple[float, float], mirrored: bool) -> tuple[float, float]:
    x, y = ((p - c) * view.scale for p, c in zip(point, view.corner, strict=True))
    return (view.size[0] - x if mirrored else x), y


def _dimension(
    image: Image.Image, a: tuple[float, float], b: tuple[float, float], text: str, font: ImageFont.FreeTypeFont, thick: int
) -> None:
    """Draw a line with ticks at its ends and its length in a gap in the middle."""
    draw = ImageDraw.Draw(image)
    length = max(math.dist(a, b), 1.0)
    along = ((b[0] - a[0]) / length, (b[1] - a[1]) / length)
    across = (-along[1] * 5 * thick, along[0] * 5 * thick)
    lines = [(a, b), *(((p[0] - across[0], p[1] - across[1]), (p[0] + across[0], p[1] + across[1])) for p in (a, b))]
    for colour, width in ((PAPER, thick + 4), (INK, thick)):
        for start, end in lines:
            draw.line((*start, *end), fill=_ink(colour, image), width=width)
    left, top, right, bottom = draw.textbbox((0, 0), text, font=font)
    pad = 3 * thick
    w, h = right - left + 2 * pad, bottom - top + 2 * pad
    x = min(max((a[0] + b[0] - w) / 2, pad), image.width - w - pad)
    y = min(max((a[1] + b[1] - h) / 2, pad), image.height - h - pad)
    draw.rectangle((x, y, x + w, y + h), fill=_ink(PAPER, image))
    draw.text((x + pad - left, y + pad - top), text, font=font, fill=_ink(INK, image))
