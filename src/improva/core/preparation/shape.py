"""Trim, rotate, flip and crop pictures."""

from __future__ import annotations

import math

import numpy as np
import pyvips

from ..artwork.pixels import TRANSPARENT, as_array, as_bytes, with_alpha
from ..errors import StepError
from .picture import CLEAR, MOST_PREPARED_PX, Picture, Pixels, bounds, vips_of
from .step import Field, StepKind


def padded(pixels: Pixels, left: int, top: int, right: int, bottom: int) -> Pixels:
    """Add transparent margins to pixels (h, w, 4); negative margins crop.

    Raises :class:`StepError` where the result is larger than can be prepared.
    """
    h, w = pixels.shape[:2]
    if (h + top + bottom) * (w + left + right) > MOST_PREPARED_PX:
        raise StepError("The picture would grow beyond what can be prepared: use a smaller margin.")
    out = np.zeros((h + top + bottom, w + left + right, 4), np.uint8)
    inside = pixels[max(0, -top) : h + min(0, bottom), max(0, -left) : w + min(0, right)]
    out[max(0, top) :, max(0, left) :][: inside.shape[0], : inside.shape[1]] = inside
    return out


def trim(picture: Picture, *, margin: float = 0) -> Picture:
    """Remove transparent margins, except for a margin in mm.

    Raises:
        StepError: the picture is transparent all over.
    """
    extent = bounds(np.ascontiguousarray(picture.alpha) > CLEAR)
    if extent is None:
        raise StepError("The picture is transparent all over: there is nothing to trim to.")
    h, w = picture.pixels.shape[:2]
    m = round(margin * picture.px_per_mm)
    left, top, right, bottom = extent
    return picture.changed(pixels=padded(picture.pixels, m - left, m - top, right + m - w, bottom + m - h))


def turn(picture: Picture, *, degrees: float = 90) -> Picture:
    """Rotate the picture clockwise; quarter turns change no pixel values. New corners are transparent.

    Raises :class:`StepError` where the result is larger than can be prepared.
    """
    quarters, odd = divmod(degrees % 360, 90)
    if not odd:
        return picture.changed(pixels=np.ascontiguousarray(np.rot90(picture.pixels, -int(quarters))))
    h, w = picture.pixels.shape[:2]
    angle = math.radians(degrees)
    grown = (w * abs(math.cos(angle)) + h * abs(math.sin(angle))) * (w * abs(math.sin(angle)) + h * abs(math.cos(angle)))
    if grown > MOST_PREPARED_PX:
        raise StepError("Turned, the picture would be larger than can be prepared: crop it first.")
    smooth = pyvips.Interpolate.new("bicubic")
    turned = vips_of(picture.pixels)
    turned = with_alpha(turned).premultiply()
    turned = turned.rotate(degrees, interpolate=smooth, background=TRANSPARENT).unpremultiply()
    return picture.changed(pixels=as_array(as_bytes(turned)))


def flip(picture: Picture, *, way: str = "across") -> Picture:
    """Mirror the picture: ``across`` swaps left and right, ``down`` swaps top and bottom."""
    flipped = picture.pixels[:, ::-1] if way == "across" else picture.pixels[::-1]
    return picture.changed(pixels=np.ascontiguousarray(flipped))


def crop(picture: Picture, *, box: tuple[float, float, float, float] = (0, 0, 1, 1)) -> Picture:
    """Keep a part of the picture, given in fractions; at least one pixel."""
    h, w = picture.pixels.shape[:2]
    left, top = min(w - 1, round(box[0] * w)), min(h - 1, round(box[1] * h))
    right, bottom = max(left + 1, round((box[0] + box[2]) * w)), max(top + 1, round((box[1] + box[3]) * h))
    return picture.changed(pixels=np.ascontiguousarray(picture.pixels[top:bottom, left:right]))


TRIM = StepKind(
    "trim",
    "Trim",
    "Removes transparent margins.",
    (Field("margin", "Margin", "number", 0, "mm", 0, 1000),),
    trim,
    reshapes=True,
)
TURN = StepKind(
    "turn",
    "Rotate",
    "Rotates the picture clockwise.",
    (Field("degrees", "Angle", "number", 90, "°", -3600, 3600),),
    turn,
    reshapes=True,
)
FLIP = StepKind(
    "flip",
    "Flip",
    "Swaps left and right, or top and bottom.",
    (Field("way", "Direction", "choice", "across", choices=(("across", "Left and right"), ("down", "Top and bottom"))),),
    flip,
    reshapes=True,
)
CROP = StepKind(
    "crop",
    "Crop",
    "Keeps a part of the picture.",
    (Field("box", "Crop area", "box", (0.0, 0.0, 1.0, 1.0)),),
    crop,
    reshapes=True,
)
