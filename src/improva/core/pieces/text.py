"""Words on a panel: set in lines, bent along a path, sized to a width or a box, with outline, shadow and plaque."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Literal, get_args

import numpy as np

from ..errors import PieceError
from ..template import Box
from ..words import Block, Font, Setting, WordPath, bent, set_words
from ..words.font import Contour
from .blending import FARTHEST_MM, Mixing, between, colours

Sizing = Literal["size", "width", "box", "fill"]
Plaque = Literal["none", "oval", "box", "banner"]
SIZINGS: tuple[Sizing, ...] = get_args(Sizing)
PLAQUES: tuple[Plaque, ...] = get_args(Plaque)


@dataclass(frozen=True)
class Shadow:
    """A soft shadow: offset right and down, blurred by a Gaussian of ``blur_mm``."""

    colour: str = "#000000"
    shift_mm: tuple[float, float] = (0.8, 0.8)
    blur_mm: float = 0.8
    opacity: float = 0.5

    def __post_init__(self) -> None:
        colours(self.colour)
        between("shadow's blur", self.blur_mm, 0, 100)
        between("shadow's opacity", self.opacity, 0, 1)
        for value in self.shift_mm:
            between("shadow's shift", value, -200, 200)


@dataclass(frozen=True)
class Lettering:
    """Words with their font, size, path and decoration.

    Attributes:
        font: the font's key in the design's fonts.
        sizing: ``size``: letters of ``size_mm`` (an em); ``width``: as wide as ``width_mm``; ``box``: as large as goes in
            ``width_mm`` × ``height_mm``; ``fill``: stretched to fill it.
        shift_mm, rotate_deg: of the words' middle from the panel's middle, and clockwise about it.
        outline_mm: a line around the letters, outside their fill.
        plaque: a shape behind the words, ``plaque_margin_mm`` larger than they are.
    """

    text: str
    font: str
    setting: Setting = field(default_factory=Setting)
    path: WordPath = field(default_factory=WordPath)
    sizing: Sizing = "size"
    size_mm: float = 14.0
    width_mm: float = 80.0
    height_mm: float = 30.0
    shift_mm: tuple[float, float] = (0.0, 0.0)
    rotate_deg: float = 0.0
    fill: str = "#23211e"
    outline: str | None = None
    outline_mm: float = 0.6
    shadow: Shadow | None = None
    plaque: Plaque = "none"
    plaque_fill: str = "#f6ecd9"
    plaque_line: str | None = None
    plaque_margin_mm: float = 4.0
    mixing: Mixing = field(default_factory=Mixing)

    def __post_init__(self) -> None:
        if self.sizing not in SIZINGS or self.plaque not in PLAQUES:
            raise PieceError(f"Words are sized by {', '.join(SIZINGS)}, on a plaque of {', '.join(PLAQUES)}.")
        between("size", self.size_mm, 0.01, 2000)
        between("width", self.width_mm, 0.01, FARTHEST_MM)
        between("height", self.height_mm, 0.01, FARTHEST_MM)
        between("outline", self.outline_mm, 0, 50)
        between("plaque's margin", self.plaque_margin_mm, 0, 500)
        for value in (*self.shift_mm, self.rotate_deg):
            between("shift", value, -FARTHEST_MM, FARTHEST_MM)
        colours(self.fill, self.outline, self.plaque_fill, self.plaque_line)


@dataclass(frozen=True)
class LetteringShape:
    """Words before rotation, around their centre; lengths in mm, y downward.

    Attributes:
        contours: closed, each (n, 2), filled by the non-zero rule.
        words: width and height of the letters; ``whole`` the same with outline and plaque.
        cap_mm, x_mm: height of capitals and of small letters as they are printed.
        missing: characters that the font does not have.
    """

    contours: tuple[Contour, ...]
    words: tuple[float, float]
    whole: tuple[float, float]
    cap_mm: float
    x_mm: float
    missing: tuple[str, ...]


def _extent(contours: tuple[Contour, ...]) -> tuple[np.ndarray, np.ndarray]:
    points = np.concatenate(contours)
    return points.min(axis=0), points.max(axis=0)


def _spread(lettering: Lettering, font: Font) -> tuple[Block, WordPath]:
    """Return the words set for their path; a circle's diameter is given in mm and converted to em."""
    block = set_words(font, lettering.text, lettering.setting)
    path = lettering.path
    if path.along == "circle":
        path = WordPath("circle", across=math.copysign(lettering.width_mm / lettering.size_mm, path.amount or 1))
    return block, path


def lettering_shape(lettering: Lettering, font: Font) -> LetteringShape:
    """Set, bend and size words. Raises :class:`PieceError` where they do not fit."""
    block, path = _spread(lettering, font)
    contours = bent(block, path)
    low, high = _extent(contours)
    size = np.maximum(high - low, 1e-9)
    wanted = np.array([lettering.width_mm, lettering.height_mm])
    scale = np.array([lettering.size_mm] * 2)
    if lettering.sizing != "size" and path.along != "circle":
        scale = wanted / size
        if lettering.sizing == "width":
            scale = np.array([scale[0]] * 2)
        elif lettering.sizing == "box":
            scale = np.array([scale.min()] * 2)
    middle = (low + high) / 2
    moved = tuple((c - middle) * scale * (1, -1) for c in contours)
    words = size * scale
    grown = words + 2 * (lettering.outline_mm if lettering.outline else 0)
    whole = np.maximum(grown, plaque_size(lettering, (float(words[0]), float(words[1]))))
    return LetteringShape(
        moved,
        (float(words[0]), float(words[1])),
        (float(whole[0]), float(whole[1])),
        float(font.cap_height * scale[1]),
        float(font.x_height * scale[1]),
        block.missing,
    )


def plaque_size(lettering: Lettering, words: tuple[float, float]) -> tuple[float, float]:
    """Return width and height of the plaque behind words of a size; 0 without a plaque.

    An oval that holds a box has √2 times its sides; a banner has tails of its own height at both ends.
    """
    w, h = (side + 2 * lettering.plaque_margin_mm for side in words)
    if lettering.plaque == "oval":
        return words[0] * math.sqrt(2) + 2 * lettering.plaque_margin_mm, words[1] * math.sqrt(
            2
        ) + 2 * lettering.plaque_margin_mm
    if lettering.plaque == "banner":
        return w + 2 * h * 0.75, h * 1.25
    return (w, h) if lettering.plaque == "box" else (0.0, 0.0)


def lettering_box(lettering: Lettering, shape: LetteringShape, trim_mm: tuple[float, float], letters_only: bool = False) -> Box:
    """Return the bounding box of the rotated words in mm of the trim; with outline and plaque, or of the letters only."""
    w, h = shape.words if letters_only else shape.whole
    c, s = abs(math.cos(math.radians(lettering.rotate_deg))), abs(math.sin(math.radians(lettering.rotate_deg)))
    across, down = w * c + h * s, w * s + h * c
    cx, cy = trim_mm[0] / 2 + lettering.shift_mm[0], trim_mm[1] / 2 + lettering.shift_mm[1]
    return cx - across / 2, cy - down / 2, across, down
