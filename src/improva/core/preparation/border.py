"""The border of a cut-out: its outline offset in mm, holes kept or filled, thin necks detected and thickened."""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import parse_hex
from ..errors import StepError
from .picture import SOLID, Mask, Picture, Pixels, bounds, over
from .shape import padded
from .step import Field, StepKind

SHAPE_ALPHA = 128
NECK_PX = 1200
"""Longest side of the copy on which necks are searched, in px."""

RIDGE = 0.97
"""A pixel is on a middle line if almost none of its neighbours is farther from the edge."""

ARM_FACTOR = 1.15
"""A thin part must be longer than this many times half the limit; blunt corners are shorter. From memory."""

EDGE_PX = 0.25
"""How far an outline lies outside the centre of the nearest pixel set, at a mean: half a pixel along rows and columns, and
almost nothing along slopes, where some centre lies close to it. So a border is right to a quarter of a pixel."""

Distance = NDArray[np.float32]


def distance_to(mask: Mask) -> Distance:
    """Return the exact Euclidean distance (h, w) in px from each pixel's centre to the nearest set pixel (Felzenszwalb and
    Huttenlocher)."""
    return np.asarray(cv2.distanceTransform((~mask).view(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE), np.float32)


def filled(mask: Mask) -> Mask:
    """Return a mask with its holes filled. Its outermost row and column must be empty."""
    outside = np.zeros((mask.shape[0] + 2, mask.shape[1] + 2), np.uint8)
    outside[1:-1, 1:-1] = mask
    cv2.floodFill(outside, None, (0, 0), 2, flags=4)
    return np.asarray(outside[1:-1, 1:-1] != 2)


def carried_out(pixels: Pixels, solid: Mask) -> Pixels:
    """Return (h, w, 3): the colour of the nearest pixel of ``solid``, smoothed along the edge."""
    _, labels = cv2.distanceTransformWithLabels(
        (~solid).view(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    colours = np.zeros((int(labels.max()) + 1, 3), np.uint8)
    colours[labels[solid]] = pixels[..., :3][solid]
    return np.asarray(cv2.medianBlur(colours[labels], 5), np.uint8)


@dataclass(frozen=True)
class Neck:
    """A part of a shape thinner than a limit: its centre in fractions of the picture, and its width in mm."""

    at: tuple[float, float]
    width_mm: float


def _shape(picture: Picture) -> Mask:
    return np.asarray(np.ascontiguousarray(picture.alpha) >= SHAPE_ALPHA)


def _thin(shape: Mask, limit_px: float) -> tuple[list[tuple[Mask, float]], Mask]:
    """Return the thin parts of a shape with their widths in px, and the middle lines of all parts.

    Thin is what a disc of the limit's width cannot reach (a morphological opening), if it joins two parts or sticks out.
    """
    inside = distance_to(~shape)
    core = inside > limit_px / 2  # an opening by a disc: what a disc of the limit's width can reach
    reach = distance_to(core) if core.any() else np.full(shape.shape, math.inf, np.float32)
    rest = shape & (reach > limit_px / 2 + 1)
    _, pieces = cv2.connectedComponents((shape & ~rest).view(np.uint8), connectivity=4)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(rest.view(np.uint8), connectivity=8)
    ridge = shape & (inside >= RIDGE * cv2.dilate(inside, np.ones((5, 5), np.uint8)))
    necks = []
    for i in range(1, count):
        x, y, w, h, _ = stats[i]
        window = np.s_[max(0, y - 2) : y + h + 2, max(0, x - 2) : x + w + 2]
        part = labels[window] == i
        touched = pieces[window][cv2.dilate(part.view(np.uint8), np.ones((5, 5), np.uint8)).view(bool)]
        joins = len(np.unique(touched[touched > 0])) > 1
        spine = inside[window][part & ridge[window]]
        if len(spine) and (joins or float(reach[window][part].max()) > limit_px / 2 * (1 + ARM_FACTOR)):
            whole = np.zeros_like(shape)
            whole[window] = part
            necks.append((whole, 2 * float(np.percentile(spine, 10)) - 1))
    return necks, ridge


def _small(picture: Picture) -> Picture:
    h, w = picture.pixels.shape[:2]
    factor = min(1.0, NECK_PX / max(h, w))
    if factor == 1:
        return picture.changed(pixels=padded(picture.pixels, 2, 2, 2, 2))
    alpha = cv2.resize(np.ascontiguousarray(picture.alpha), None, fx=factor, fy=factor, interpolation=cv2.INTER_AREA)
    pixels = np.zeros((*alpha.shape, 4), np.uint8)
    pixels[..., 3] = alpha
    return picture.changed(pixels=padded(pixels, 2, 2, 2, 2), px_per_mm=picture.px_per_mm * alpha.shape[1] / w)


def find_necks(picture: Picture, limit_mm: float) -> list[Neck]:
    """Return the parts of a cut-out thinner than ``limit_mm``, the thinnest first, without corners."""
    small = _small(picture)
    shape = _shape(small)
    if not shape.any() or shape[2:-2, 2:-2].all():
        return []
    _, labels, stats, _ = cv2.connectedComponentsWithStats(shape.view(np.uint8), connectivity=8)
    large = stats[:, cv2.CC_STAT_AREA] >= math.pi * (limit_mm * small.px_per_mm) ** 2  # an isolated part is not a neck
    large[0] = False
    shape = np.asarray(large[labels])
    thin, _ = _thin(shape, limit_mm * small.px_per_mm)
    h, w = shape.shape
    necks = []
    for part, width in thin:
        ys, xs = np.nonzero(part)
        at = ((float(xs.mean()) + 0.5 - 2) / (w - 4), (float(ys.mean()) + 0.5 - 2) / (h - 4))
        necks.append(Neck(at, max(0.0, width) / small.px_per_mm))
    return sorted(necks, key=lambda neck: neck.width_mm)


def thickening(shape: Mask, limit_px: float) -> Distance:
    """Return the cover (h, w) in 0…1 that widens thin parts to a limit in px: discs along their middle lines."""
    h, w = shape.shape
    factor = min(1.0, NECK_PX / max(h, w))
    size = (max(1, round(w * factor)), max(1, round(h * factor)))
    small = cv2.resize(shape.view(np.uint8) * 255, size, interpolation=cv2.INTER_AREA) >= 128
    necks, ridge = _thin(small, limit_px * factor)
    spine = np.zeros_like(small)
    for part, _ in necks:
        spine |= part & ridge
    if not spine.any():
        return np.zeros(shape.shape, np.float32)
    far = cv2.resize(distance_to(spine), (w, h), interpolation=cv2.INTER_LINEAR) / factor
    return np.asarray(np.clip(limit_px / 2 + 0.5 - far, 0, 1), np.float32)


def border(
    picture: Picture, *, mm: float = 8, colour: str = "#ffffff", fill: str = "colour", holes: str = "filled", necks: float = 0
) -> Picture:
    """Add a border behind a cut-out: its outline offset by ``mm`` and rounded; the picture grows to hold it.

    Args:
        fill: ``colour``, or ``edge``: the colour at the picture's edge, extended outward.
        holes: ``filled`` with border, or ``kept`` open as far as the border leaves them.
        necks: what comes out thinner than so many mm, border included, is thickened to it; 0 leaves it.

    Raises:
        StepError: the picture has no transparent ground, or nothing on it.
    """
    picture.cut_out("A border follows the outline of what is not transparent.")
    r = mm * picture.px_per_mm
    grow = math.ceil(r + max(0.0, necks * picture.px_per_mm / 2 - r)) + 2
    extent = bounds(_shape(picture))
    if extent is None:
        raise StepError("The picture is transparent all over: there is nothing to put a border round.")
    pixels = padded(picture.pixels, grow, grow, grow, grow)
    shape = _shape(picture.changed(pixels=pixels))
    base = filled(shape) if holes == "filled" else shape
    cover = np.clip(r + 0.5 + EDGE_PX - distance_to(base), 0, 1)
    if necks:
        outline = filled(cover >= 0.5) if holes == "filled" else cover >= 0.5
        cover = np.maximum(cover, thickening(outline, necks * picture.px_per_mm))
    if holes == "filled":
        cover = np.maximum(cover, filled(cover >= 0.5).astype(np.float32))
    back = np.empty_like(pixels)
    if fill == "edge":
        solid = cv2.erode(shape.view(np.uint8), np.ones((3, 3), np.uint8)).view(bool) & (pixels[..., 3] >= SOLID)
        back[..., :3] = carried_out(pixels, solid if solid.any() else shape)
    else:
        back[..., :3] = parse_hex(colour)
    back[..., 3] = (cover * 255 + 0.5).astype(np.uint8)
    return picture.changed(pixels=over(pixels, back))


KIND = StepKind(
    "border",
    "Cut-out border",
    "A border around the cut-out, for cutting and sewing.",
    (
        Field("mm", "Width", "number", 8, "mm", 0, 200),
        Field("fill", "Fill", "choice", "colour", choices=(("colour", "A colour"), ("edge", "The edge's colour"))),
        Field("colour", "Colour", "colour", "#ffffff"),
        Field("holes", "Holes", "choice", "filled", choices=(("filled", "Filled"), ("kept", "Kept"))),
        Field(
            "necks", "Thicken parts below", "number", 0, "mm", 0, 200, hint="what comes out thinner, border included; 0 is off"
        ),
    ),
    border,
    reshapes=True,
)
