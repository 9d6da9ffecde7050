"""Scatter a cut-out motif over a seamless tile: evenly and without overlap."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ..colour import Floats, parse_hex
from ..errors import StepError
from .picture import CLEAR, MOST_PREPARED_PX, Mask, Picture, Pixels, bounds, over, premultiplied, straight
from .step import Field, StepKind

GRID_PX = 320
"""Longest side of the search grid. It rounds outward: motifs may be kept apart a little too far, and never overlap."""

MOST_MOTIFS = 200
ROUNDS = 2


def _scaled(soft: Floats, scale: float) -> Floats:
    if scale >= 1:
        return soft
    h, w = soft.shape[:2]
    size = (max(1, round(w * scale)), max(1, round(h * scale)))
    return np.asarray(cv2.resize(soft, size, interpolation=cv2.INTER_AREA), np.float32)


def _motif(soft: Floats, scale: float, degrees: float) -> Pixels:
    """Scale and rotate a premultiplied motif, in its smallest bounding box, with straight alpha."""
    small = _scaled(soft, scale)
    h, w = small.shape[:2]
    matrix = cv2.getRotationMatrix2D((w / 2, h / 2), -degrees, 1)
    corners = np.array([[0, 0, 1], [w, 0, 1], [0, h, 1], [w, h, 1]]) @ matrix.T
    low, high = np.floor(corners.min(axis=0)), np.ceil(corners.max(axis=0))
    matrix = np.asarray(matrix, np.float64)
    matrix[:, 2] += matrix[:, :2] @ [0.5, 0.5] - 0.5 - low  # OpenCV counts from the centre of the first pixel
    size = tuple(int(v) for v in np.maximum(1, high - low))
    turned = np.asarray(cv2.warpAffine(small, matrix, size, flags=cv2.INTER_CUBIC), np.float32)
    pixels = straight(turned)
    box = bounds(np.ascontiguousarray(pixels[..., 3]) > CLEAR)
    return pixels if box is None else np.ascontiguousarray(pixels[box[1] : box[3], box[0] : box[2]])


def _free(occupied: NDArray[np.float32], motif: Mask) -> Mask:
    """Return where a motif's corner may be on a torus without overlap: a correlation by FFT."""
    stamp = np.zeros(occupied.shape, np.float32)
    ys, xs = np.nonzero(motif)
    np.add.at(stamp, (ys % occupied.shape[0], xs % occupied.shape[1]), 1)
    meets = np.fft.irfft2(np.fft.rfft2(occupied) * np.conj(np.fft.rfft2(stamp)), s=occupied.shape)
    return np.asarray(meets < 0.5)


def _room(occupied: Mask) -> NDArray[np.float32]:
    """Return the distance to occupied pixels, across the edges too."""
    around = np.tile(~occupied, (3, 3)).view(np.uint8)
    h, w = occupied.shape
    return np.asarray(cv2.distanceTransform(around, cv2.DIST_L2, cv2.DIST_MASK_5), np.float32)[h : 2 * h, w : 2 * w]


def _wrapped(canvas: Pixels, motif: Pixels, left: int, top: int) -> None:
    """Draw a motif on a canvas whose edges meet."""
    rows = np.arange(top, top + motif.shape[0]) % canvas.shape[0]
    columns = np.arange(left, left + motif.shape[1]) % canvas.shape[1]
    at = np.ix_(rows, columns)
    canvas[at] = over(motif, np.ascontiguousarray(canvas[at]))


def _stamp(coarse: Floats, scale: float, degrees: float, apart: int) -> Mask:
    """Return a motif's outline on the grid, with half its clearance to others."""
    drawn = (_motif(coarse, scale, degrees)[..., 3] > 0).view(np.uint8)
    outline = cv2.copyMakeBorder(drawn, *(apart + 1,) * 4, cv2.BORDER_CONSTANT)
    return cv2.dilate(outline, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * apart + 1,) * 2)).view(bool)


def _toggle(occupied: NDArray[np.float32], stamp: Mask, at: tuple[int, int], by: int) -> None:
    ys, xs = np.nonzero(stamp)
    occupied[(ys + at[0]) % occupied.shape[0], (xs + at[1]) % occupied.shape[1]] += by


def _best(occupied: NDArray[np.float32], stamp: Mask, rng: np.random.Generator) -> tuple[int, int] | None:
    """Return the free corner with the most room around the motif's centre; None if there is none."""
    free = _free(occupied, stamp)
    if not free.any():
        return None
    room = np.roll(_room(occupied > 0), (-(stamp.shape[0] // 2), -(stamp.shape[1] // 2)), (0, 1))
    score = np.where(free, room * (1 + 0.05 * rng.random(occupied.shape)), -1)
    y, x = np.unravel_index(int(score.argmax()), score.shape)
    return int(y), int(x)


def arranged(stamps: list[Mask], shape: tuple[int, int], rng: np.random.Generator) -> list[tuple[int, int] | None]:
    """Return non-overlapping corners on a torus (rows, columns) for outlines: each goes where it has the most room.

    Then each in turn is taken up and laid again, some rounds, which evens out what the order of laying left.
    """
    occupied = np.zeros(shape, np.float32)
    places: list[tuple[int, int] | None] = [None] * len(stamps)
    for _ in range(1 + ROUNDS):
        for i, stamp in enumerate(stamps):
            before = places[i]
            if before:
                _toggle(occupied, stamp, before, -1)
            corner = (
                _best(occupied, stamp, rng) if occupied.any() else (int(rng.integers(shape[0])), int(rng.integers(shape[1])))
            )
            places[i] = corner or before
            if places[i]:
                _toggle(occupied, stamp, places[i], 1)  # type: ignore[arg-type]
    return places


def scatter(
    picture: Picture,
    *,
    width: float = 120,
    height: float = 120,
    count: float = 12,
    least: float = 18,
    most: float = 30,
    turned: float = 30,
    gap: float = 3,
    seed: float = 1,
    ground: str | None = None,
) -> Picture:
    """Scatter a cut-out motif over a seamless tile: evenly and without overlap.

    Args:
        width, height: of the tile in mm.
        count: number of motifs; if there is no room for all, fewer are placed and the report says so.
        least, most: their longest side in mm.
        turned: each is turned by up to so many degrees either way; 180 is any.
        gap: bare mm between them at least.
        seed: another number is another arrangement.
        ground: colour of the tile, or None for transparent.

    Raises:
        StepError: the picture is no cut-out, or the motif is larger than the tile.
    """
    picture.cut_out("A motif is scattered by its outline.")
    box = bounds(np.ascontiguousarray(picture.alpha) > CLEAR)
    if box is None:
        raise StepError("The picture is transparent all over: there is no motif on it.")
    if most < least:
        raise StepError(f"The largest motif ({most:g} mm) is smaller than the smallest ({least:g} mm).")
    if most > min(width, height):
        raise StepError(f"A motif of {most:g} mm does not go on a tile of {width:g} × {height:g} mm: make the tile larger.")
    motif = np.ascontiguousarray(picture.pixels[box[1] : box[3], box[0] : box[2]])
    longest = max(motif.shape[:2])
    px_per_mm = picture.px_per_mm * min(1.0, longest / picture.px_per_mm / least)
    size = (round(height * px_per_mm), round(width * px_per_mm))
    if size[0] * size[1] > MOST_PREPARED_PX:
        raise StepError("The tile would be larger than can be prepared: make it smaller.")
    grid = GRID_PX / max(width, height)
    fine, coarse = (_scaled(premultiplied(motif), most * density / longest) for density in (px_per_mm, grid))
    rng = np.random.default_rng(int(seed))
    lengths = np.sort(rng.uniform(least, most, int(count)))[::-1]
    angles = rng.uniform(-turned, turned, int(count))
    apart = max(1, round(gap * grid / 2))
    stamps = [_stamp(coarse, n * grid / max(coarse.shape[:2]), a, apart) for n, a in zip(lengths, angles, strict=True)]
    cells = (max(1, round(height * grid)), max(1, round(width * grid)))
    canvas, placed = np.zeros((*size, 4), np.uint8), 0
    for place, stamp, length, degrees in zip(arranged(stamps, cells, rng), stamps, lengths, angles, strict=True):
        if place is None:
            continue
        copy = _motif(fine, length * px_per_mm / max(fine.shape[:2]), degrees)
        middle = (np.array(place) + np.array(stamp.shape) / 2) * size / cells
        _wrapped(canvas, copy, round(middle[1] - copy.shape[1] / 2), round(middle[0] - copy.shape[0] / 2))
        placed += 1
    if ground:
        canvas = over(canvas, np.full_like(canvas, (*parse_hex(ground), 255)))
    full = ": no more found room" if placed < int(count) else ""
    return picture.changed(pixels=canvas, px_per_mm=px_per_mm).noting(f"{placed} motifs were scattered{full}.")


KIND = StepKind(
    "scatter",
    "Scatter a motif",
    "Repeats a cut-out on a seamless tile, evenly and never overlapping.",
    (
        Field("width", "Tile width", "number", 120, "mm", 5, 2000),
        Field("height", "Tile height", "number", 120, "mm", 5, 2000),
        Field("count", "Motifs", "number", 12, "", 1, MOST_MOTIFS),
        Field("least", "Smallest", "number", 18, "mm", 1, 1000),
        Field("most", "Largest", "number", 30, "mm", 1, 1000),
        Field("turned", "Largest rotation", "number", 30, "°", 0, 180),
        Field("gap", "Spacing", "number", 3, "mm", 0, 200),
        Field("seed", "Arrangement", "number", 1, "", 0, 999_999, hint="another number is another arrangement"),
        Field("ground", "Background", "colour", None, hint="transparent"),
    ),
    scatter,
    reshapes=True,
)
