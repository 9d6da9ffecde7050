"""Adjust levels, brightness, saturation and warmth; make white transparent; exchange colours."""

from __future__ import annotations

from collections.abc import Callable

import cv2
import numpy as np
from PIL import Image, ImageFilter

from ..colour import Floats, lab, lab_distance, parse_hex, rgb_of_lab
from ..errors import StepError
from .palette import ALIKE, palette
from .picture import Picture, Pixels
from .step import Field, StepKind

NODES = 33
"""Points per side of the colour cubes that change pictures; colours between them are interpolated."""

WARMTH_LAB = np.array([0.0, 12.0, 36.0], np.float32)
"""Shift in Lab for a full step of warmth: towards amber, as under a warmer lamp. From memory."""


def _by_cube(pixels: Pixels, change: Callable[[Floats], Floats]) -> Pixels:
    """Apply a function of Lab (…, 3) by a look-up cube of :data:`NODES` points a side."""
    axis = np.linspace(0, 255, NODES).round().astype(np.uint8)
    blue, green, red = np.meshgrid(axis, axis, axis, indexing="ij")
    nodes = np.stack([red, green, blue], axis=-1).reshape(1, -1, 3)
    table = rgb_of_lab(change(lab(nodes))).reshape(-1, 3)
    cube = ImageFilter.Color3DLUT(NODES, table.astype(np.float64).ravel().tolist(), channels=3)
    out = pixels.copy()
    out[..., :3] = np.asarray(Image.fromarray(np.ascontiguousarray(pixels[..., :3])).filter(cube))
    return out


def tone(
    picture: Picture,
    *,
    black: float = 0,
    white: float = 255,
    gamma: float = 1,
    brightness: float = 0,
    saturation: float = 0,
    warmth: float = 0,
) -> Picture:
    """Apply levels, then brightness, saturation and warmth in Lab.

    Args:
        black, white: values of 255 that become black and white; what lies between is stretched.
        gamma: over 1 lightens the middle, under 1 darkens it.
        brightness, saturation, warmth: per cent, from -100 to 100; 0 changes nothing.

    Raises :class:`StepError` where the white point is not above the black point.
    """
    if white <= black:
        raise StepError(f"The white point ({white:g}) must lie above the black point ({black:g}).")
    pixels = picture.pixels
    if (black, white, gamma) != (0, 255, 1):
        ramp = np.clip((np.arange(256) - black) / (white - black), 0, 1) ** (1 / gamma)
        table = np.repeat((255 * ramp + 0.5).astype(np.uint8)[None, :, None], 4, axis=2)
        table[..., 3] = np.arange(256)
        pixels = np.asarray(cv2.LUT(np.ascontiguousarray(pixels), table), np.uint8)
    if not (brightness or saturation or warmth):
        return picture.changed(pixels=pixels)

    def change(colours: Floats) -> Floats:
        out = colours + WARMTH_LAB * (warmth / 100)
        out[..., 1:] *= 1 + saturation / 100
        light = out[..., 0] / 100  # a curve of lightness that keeps black and white
        out[..., 0] = 100 * light ** (2 ** (-brightness / 50))
        return np.asarray(out, np.float32)

    return picture.changed(pixels=_by_cube(pixels, change))


def clear_white(picture: Picture, *, ink: str | None = None) -> Picture:
    """Make white transparent in one-colour art: darker pixels keep more of the ink.

    Args:
        ink: the ink's colour; the picture's darkest tone where not given. Every pixel becomes this colour with the
            alpha that gives the picture back when it is laid on white, as far as one ink can.

    Raises :class:`StepError` for a picture without ink.
    """
    rgb = picture.pixels[..., :3]
    if ink:
        colour = np.array(parse_hex(ink), np.float32)
    else:
        seen = rgb[picture.alpha > 127].reshape(-1, 3)
        if not len(seen):
            raise StepError("The picture is transparent all over: there is no ink in it.")
        seen = seen[:: max(1, len(seen) // 200_000)]
        depth = seen.astype(np.int32).sum(axis=1)
        colour = np.median(seen[depth <= np.percentile(depth, 0.5)], axis=0).astype(np.float32)
    away = 255 - colour
    if float(away.max()) < 8:
        raise StepError("No ink in this picture differs from white: choose the ink's colour.")
    # Least squares for α in white − I = α (white − F), the mixture with white.
    weights = away / float(away @ away)
    dark = cv2.transform(picture.pixels.astype(np.float32), np.append(weights, 0)[None])
    alpha = 255 * float(weights.sum()) - dark
    out = np.empty_like(picture.pixels)
    out[..., :3] = colour.round().astype(np.uint8)
    out[..., 3] = (np.clip(alpha, 0, 1) * picture.alpha + 0.5).astype(np.uint8)
    return picture.changed(pixels=out)


def recolour(picture: Picture, *, pairs: tuple[tuple[str, str], ...] = ()) -> Picture:
    """Exchange colours: each first one for its second, and colours between them accordingly.

    A colour moves in Lab by the moves of the given ones, each weighted by its nearness (inverse distance to the
    fourth power; D. Shepard, "A two-dimensional interpolation function for irregularly-spaced data", 1968). Black,
    white and the picture's other main colours stay unless they are given; shades of a colour go with it.
    """
    if not pairs:
        return picture
    changes = dict(pairs)
    old = lab(np.array([[parse_hex(c) for c in changes]], np.uint8))[0]
    new = lab(np.array([[parse_hex(c) for c in changes.values()]], np.uint8))[0]
    main = "#000000", "#ffffff", *(swatch.colour for swatch in palette(picture))
    stay = lab(np.array([[parse_hex(c) for c in main]], np.uint8))[0]
    stay = stay[lab_distance(stay[:, None], old).min(axis=1) > ALIKE]
    old, new = np.concatenate([old, stay]), np.concatenate([new, stay])

    def change(colours: Floats) -> Floats:
        far = lab_distance(colours[..., None, :], old)
        near = 1 / np.maximum(far, 0.5) ** 4
        near /= near.sum(axis=-1, keepdims=True)
        return np.asarray(colours + near @ (new - old), np.float32)

    return picture.changed(pixels=_by_cube(picture.pixels, change))


TONE = StepKind(
    "tone",
    "Light and colour",
    "Levels, brightness, saturation and warmth.",
    (
        Field("black", "Black point", "number", 0, "steps", 0, 254),
        Field("white", "White point", "number", 255, "steps", 1, 255),
        Field("gamma", "Gamma", "number", 1, "×", 0.2, 5, hint="over 1 is lighter"),
        Field("brightness", "Brightness", "number", 0, "%", -100, 100),
        Field("saturation", "Saturation", "number", 0, "%", -100, 100),
        Field("warmth", "Warmth", "number", 0, "%", -100, 100),
    ),
    tone,
)
CLEAR_WHITE = StepKind(
    "clear",
    "White to transparent",
    "For drawings in one colour of ink: removes white and keeps every shade.",
    (Field("ink", "Ink", "colour", None, hint="found: the picture's darkest tone"),),
    clear_white,
)
RECOLOUR = StepKind(
    "recolour",
    "Recolour",
    "Replaces colours, together with their shades and edges.",
    (Field("pairs", "Colours", "pairs", (), hint="from the palette"),),
    recolour,
)
