"""Cut a picture from its paper: select the background by colour, unmix the edge, keep washes."""

from __future__ import annotations

import cv2
import numpy as np

from ..artwork.content import border_of
from ..colour import parse_hex
from ..errors import StepError
from .light import evened, falloff, light_of
from .picture import CLEAR, Mask, Picture, Pixels
from .step import Field, StepKind
from .washes import has_washes, see_through

LIGHT_PAPER = 128
"""Paper darker than this in any channel is a coloured background; its white point is not set."""

WASH_PX = 9
"""Side of the square whose mean separates a pale wash from the grain of the paper, in px."""

PALEST_WASH = 2.5
"""Washes darker than the paper by so many steps on the whole stay, where the paint is see-through."""

EVEN_ENOUGH = 0.008
"""Falloff of light, as a share, up to which it is no more than two steps of 255 and stays as it is."""

LEAST_LEFT = 0.002
"""A cut that leaves less than this share of the picture is refused."""

Points = tuple[tuple[float, float], ...]


def paper_colour(pixels: Pixels, patch: tuple[float, float, float, float] | None = None) -> tuple[int, int, int]:
    """Return the paper's colour: the median of a bare patch (fractions of the picture), or of the picture's border."""
    h, w = pixels.shape[:2]
    if patch is None:
        step = max(1, max(h, w) // 1500)
        seen = border_of(pixels[::step, ::step, :3].astype(np.float32))
    else:
        x, y, pw, ph = patch
        left, top = min(w - 1, int(x * w)), min(h - 1, int(y * h))
        seen = (
            pixels[top : max(top + 1, round((y + ph) * h)), left : max(left + 1, round((x + pw) * w)), :3]
            .reshape(-1, 3)
            .astype(np.float32)
        )
    r, g, b = (round(float(v)) for v in np.median(seen, axis=0))
    return r, g, b


def with_white_point(pixels: Pixels, paper: tuple[int, int, int]) -> Pixels:
    """Scale the levels so that the paper's colour becomes white, channel by channel."""
    table = np.zeros((1, 256, 4), np.uint8)
    table[0, :, 3] = np.arange(256)
    for channel, white in enumerate(paper):
        table[0, :, channel] = np.minimum(255, np.round(np.arange(256) * 255 / max(1, white)))
    return np.asarray(cv2.LUT(np.ascontiguousarray(pixels), table), np.uint8)


def distance_from(pixels: Pixels, colour: tuple[int, int, int]) -> Pixels:
    """Return (h, w) uint8: the largest channel difference from a colour."""
    apart = cv2.absdiff(pixels, np.array([*colour, 0], np.float64))
    red, green, blue = (cv2.extractChannel(apart, channel) for channel in range(3))
    return np.asarray(cv2.max(cv2.max(red, green, red), blue, red), np.uint8)


def _reached(near: Mask) -> Mask:
    """Return the part of a mask that is connected to the picture's border."""
    h, w = near.shape
    padded = np.full((h + 2, w + 2), 1, np.uint8)
    padded[1:-1, 1:-1] = near
    cv2.floodFill(padded, None, (0, 0), 2, flags=4)
    return np.asarray(padded[1:-1, 1:-1] == 2)


def _at(points: Points, shape: tuple[int, ...]) -> list[tuple[int, int]]:
    h, w = shape[:2]
    return [(min(w - 1, int(x * w)), min(h - 1, int(y * h))) for x, y in points]


def _added(pixels: Pixels, ground: Mask, add: Points, tolerance: int, everywhere: bool) -> Mask:
    """Return the background plus the areas of one colour at some points."""
    h, w = ground.shape
    for x, y in _at(add, pixels.shape):
        r, g, b = (int(v) for v in pixels[y, x, :3])
        alike = distance_from(pixels, (r, g, b)) <= tolerance
        if not everywhere:
            filled = np.zeros((h + 2, w + 2), np.uint8)
            filled[1:-1, 1:-1] = ~alike  # pixels of another colour block the fill
            cv2.floodFill(alike.view(np.uint8).copy(), filled, (x, y), 2, flags=4 | cv2.FLOODFILL_MASK_ONLY | (2 << 8))
            alike = filled[1:-1, 1:-1] == 2
        ground = ground | alike
    return ground


def _spared(ground: Mask, spare: Points) -> Mask:
    """Return the background minus the areas connected to some points."""
    if not spare:
        return ground
    filled = ground.astype(np.uint8)
    for x, y in _at(spare, filled.shape):
        if filled[y, x] == 1:
            cv2.floodFill(filled, None, (x, y), 0, flags=4)
    return filled.view(np.bool_)


def _washes(pixels: Pixels, paper: tuple[int, int, int], least_steps: float) -> Mask:
    """Return where the picture is darker than the paper on average, although single pixels may differ little."""
    mean = cv2.blur(np.ascontiguousarray(pixels[..., :3]), (WASH_PX, WASH_PX)).astype(np.float32)
    return np.asarray((np.array(paper, np.float32) - mean).max(axis=2) >= least_steps)


def _check_left(distance: Pixels, ground: Mask, tolerance: float) -> None:
    left = 1 - np.count_nonzero(ground) / ground.size
    if left >= LEAST_LEFT:
        return
    counts = np.cumsum(np.bincount(distance.ravel(), minlength=256)[::-1])[::-1] / distance.size
    usable = int(np.flatnonzero(counts >= 5 * LEAST_LEFT)[-1]) - 1 if counts[1] >= 5 * LEAST_LEFT else 0
    advice = f"use {usable} at most" if 0 < usable < tolerance else "choose the paper's colour by a patch, or spare what stays"
    raise StepError(f"A tolerance of {tolerance:g} would remove everything: {advice}.")


def unmixed(
    pixels: Pixels, ground: Mask, distance: Pixels, paper: tuple[int, int, int], soften_px: float, decontaminate: bool
) -> Pixels:
    """Clear a picture's background and unmix it from the edge.

    An edge pixel is a mixture α·F + (1 − α)·P of a colour of the picture and the paper's (Porter and Duff 1984). Its
    distance from the paper is α times that of F, and F is found as what lies farthest from the paper within
    ``soften_px``; so α is the ratio of the two, and F follows. With 0 the edge is hard.
    """
    out = pixels.copy()
    if soften_px <= 0:
        out[..., 3][ground] = 0
        return out
    reach = max(1, round(soften_px))
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1,) * 2)
    band = (cv2.dilate(ground.view(np.uint8), kernel) > 0) & ~ground
    out[..., 3][ground] = 0
    ys, xs = np.nonzero(band)
    if not len(ys):
        return out
    farthest = cv2.dilate(distance, kernel)[ys, xs].astype(np.float32)
    alpha = np.clip(distance[ys, xs] / np.maximum(farthest, 1), 0.02, 1)
    mixed = pixels[ys, xs].astype(np.float32)
    if decontaminate:
        back = np.array(paper, np.float32)
        mixed[:, :3] = np.clip(back + (mixed[:, :3] - back) / alpha[:, None], 0, 255)
    mixed[:, 3] *= alpha
    out[ys, xs] = (mixed + 0.5).astype(np.uint8)
    return out


def cut(
    picture: Picture,
    *,
    paper: str | None = None,
    patch: tuple[float, float, float, float] | None = None,
    tolerance: float = 6,
    reach: str = "contiguous",
    add: Points = (),
    spare: Points = (),
    soften: float = 2,
    decontaminate: bool = True,
    washes: float = 0,
    even: bool = True,
    paint: str = "found",
) -> Picture:
    """Cut a picture from its paper.

    Args:
        paper: the paper's colour; measured in ``patch`` or at the picture's border if not given. Light paper is
            made white first (levels), so that yellowed paper and its shadows leave no tint.
        tolerance: largest difference between a pixel of paper and the paper's colour, in steps of 255.
        reach: ``contiguous``: only what hangs together with the border is cleared; ``everywhere``: all of that colour.
        add, spare: points whose areas are cleared as well, or stay.
        soften: px over which the edge may be a mixture with the paper.
        decontaminate: take the paper's colour out of the edge, so that no pale rim stays.
        washes: where the picture is darker than the paper by so many steps on the whole, it stays; 0 for no such care.
        even: even out the light over light paper first, so that its shadows are not taken for paint.
        paint: ``solid``: only the edge is mixed with paper; ``washes``: all paint may let paper through, and bare paper
            inside is cleared as well; ``found``: by how much of the paint is pale.

    Raises:
        StepError: nothing would be left; the message names the largest tolerance that would leave something.
    """
    pixels = picture.pixels
    white = parse_hex(paper) if paper else paper_colour(pixels, patch)
    light = min(white) >= LIGHT_PAPER
    if light:
        if even and (measured := light_of(pixels)) is not None and falloff(measured) > EVEN_ENOUGH:
            pixels = evened(pixels, measured)
            white = parse_hex(paper) if paper else paper_colour(pixels, patch)
        pixels, white = with_white_point(pixels, white), (255, 255, 255)
    distance = distance_from(pixels, white)
    near: Mask = distance <= tolerance
    if washes:
        near &= ~_washes(pixels, white, washes)
    ground = _reached(near) if reach == "contiguous" else near
    if paint == "found":
        paint = "washes" if light and has_washes(pixels, ground, white, soften * picture.reduced) else "solid"
    if paint == "washes":
        ground = near if washes else near & ~_washes(pixels, white, PALEST_WASH)
    ground = _added(pixels, ground, add, round(tolerance), reach == "everywhere")
    kept = _spared(ground, spare)
    _check_left(distance, kept, tolerance)
    if paint == "washes":
        out = see_through(pixels, kept, white)
        stays = ground & ~kept
        out[stays] = pixels[stays]
    else:
        out = unmixed(pixels, kept, distance, white, soften * picture.reduced, decontaminate)
    share = 100 * np.count_nonzero(out[..., 3] <= CLEAR) / ground.size
    how = " Its washes stay see-through." if paint == "washes" else ""
    return picture.changed(pixels=out).noting(f"Cut from paper: {share:.0f} % of the picture was cleared.{how}")


KIND = StepKind(
    "cut",
    "Cut from paper",
    "Removes the paper by its colour, and the pale rim at the edge.",
    (
        Field("paper", "Paper", "colour", None, hint="found at the picture's border"),
        Field("patch", "Bare patch", "box", None, hint="a piece of bare paper, whose colour becomes white"),
        Field("tolerance", "Tolerance", "number", 6, "steps", 0, 255, hint="of 255, how far a colour may lie from the paper's"),
        Field(
            "reach",
            "Clear",
            "choice",
            "contiguous",
            choices=(("contiguous", "From the edge"), ("everywhere", "Everywhere")),
            hint="from the edge inward, or all of that colour",
        ),
        Field("add", "Also clear", "points", (), hint="areas inside that are paper too"),
        Field("spare", "Keep", "points", (), hint="areas that are not paper"),
        Field("soften", "Soft edge", "number", 2, "px", 0, 40, hint="how wide the edge is mixed with paper"),
        Field("decontaminate", "Remove the paper rim", "switch", True, hint="no pale rim of paper stays in the edge"),
        Field(
            "washes",
            "Keep washes",
            "number",
            0,
            "steps",
            0,
            60,
            hint="those darker than paper by so much on the whole; 0 is off",
        ),
        Field("even", "Even out the light", "switch", True, hint="so that shadows on paper are not taken for paint"),
        Field(
            "paint",
            "Paint",
            "choice",
            "found",
            choices=(("found", "As found"), ("solid", "Solid"), ("washes", "See-through")),
            hint="found: see-through where much of it is pale, as washes are",
        ),
    ),
    cut,
)
