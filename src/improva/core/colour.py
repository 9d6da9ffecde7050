"""Colour arithmetic: sRGB transfer, CIE Lab under D65, and the CIEDE2000 difference."""

from __future__ import annotations

import math
import re

import cv2
import numpy as np
from numpy.typing import NDArray

from .errors import PlacementError

Floats = NDArray[np.float32]
Plane = NDArray[np.float64]


def linear_from_srgb(encoded: NDArray[np.floating]) -> Floats:
    """Convert sRGB values in 0…1 to linear light in 0…1, shape (…) kept (IEC 61966-2-1)."""
    x = np.asarray(encoded, dtype=np.float32)
    return np.where(x <= 0.04045, x / 12.92, ((x + 0.055) / 1.055) ** 2.4).astype(np.float32)


def srgb_from_linear(light: NDArray[np.floating]) -> Floats:
    """Convert linear light in 0…1 to sRGB values in 0…1, shape (…) kept (IEC 61966-2-1). Values outside are clipped."""
    x = np.clip(np.asarray(light, dtype=np.float32), 0.0, 1.0)
    return np.where(x <= 0.0031308, x * 12.92, 1.055 * x ** (1 / 2.4) - 0.055).astype(np.float32)


LINEAR_OF_BYTE: Floats = linear_from_srgb(np.arange(256, dtype=np.float32) / 255.0)
"""Linear light of each 8-bit sRGB value, shape (256,)."""

XYZ_OF_SRGB: Floats = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]], np.float32)
"""Linear sRGB to CIE XYZ: IEC 61966-2-1."""

SRGB_OF_XYZ = np.linalg.inv(XYZ_OF_SRGB.astype(np.float64))
LUMINANCE: Floats = XYZ_OF_SRGB[1]

D65: Floats = XYZ_OF_SRGB.sum(axis=1)
"""White point for which R = G = B is neutral."""


(COS_6, SIN_6), (COS_30, SIN_30), (COS_63, SIN_63) = (
    (math.cos(math.radians(d)), math.sin(math.radians(d))) for d in (6, 30, 63)
)

LAB_OF_ROOTS: Floats = np.array([[0, 116, 0, -16], [500, -500, 0, 0], [0, 200, -200, 0]], np.float32)
"""The f of X, Y and Z and 1 to L*, a*, b*: CIE 15, 8.2.1."""


def parse_hex(text: str) -> tuple[int, int, int]:
    """Convert ``#rrggbb`` to 8-bit R, G, B.

    Raises:
        PlacementError: the text is not six hexadecimal digits after a ``#``.
    """
    if not re.fullmatch(r"#[0-9a-fA-F]{6}", text):
        raise PlacementError(f"'{text}' is not a colour: write it as #rrggbb, for example #f4efe6.")
    return int(text[1:3], 16), int(text[3:5], 16), int(text[5:7], 16)


def lab(rgb: NDArray[np.uint8]) -> Floats:
    """Convert 8-bit sRGB (h, w, 3) to CIE L*a*b* under D65 (h, w, 3), L in 0…100 (CIE 15, 8.2.1)."""
    planes = np.asarray(cv2.LUT(np.ascontiguousarray(rgb), LINEAR_OF_BYTE.reshape(1, 256)), np.float32)
    cv2.transform(planes, XYZ_OF_SRGB / D65[:, None], planes)  # in place: fresh memory costs more than the arithmetic
    # Below the threshold the cube root continues as its tangent; without a mask, because masks are slow in NumPy.
    bend = np.float32((6 / 29) ** 3)
    f = np.maximum(planes, bend)
    cv2.pow(f, 1 / 3, f)
    np.minimum(planes, bend, out=planes)
    planes -= bend
    planes *= np.float32((29 / 6) ** 2 / 3)
    f += planes
    cv2.transform(f, LAB_OF_ROOTS, planes)
    np.maximum(planes[..., 0], 0, out=planes[..., 0])  # black, rounded
    return planes


def lab_distance(first: NDArray[np.floating], second: NDArray[np.floating]) -> Floats:
    """Return the Euclidean distance (…) of Lab colours (…, 3): CIE 1976 ΔE*ab, for finding edges, not for judging colours."""
    apart = _difference(np.asarray(first, np.float32), np.asarray(second, np.float32))
    if not apart.size:  # OpenCV takes no empty arrays
        return np.zeros(apart.shape[:-1], np.float32)
    np.multiply(apart, apart, out=apart)
    squared = np.asarray(cv2.transform(apart.reshape(-1, 1, 3), np.ones((1, 3), np.float32)))
    return np.asarray(np.sqrt(squared, out=squared), np.float32).reshape(apart.shape[:-1])


def _difference(first: Floats, second: Floats) -> Floats:
    """Return the difference of colours (…, 3). NumPy subtracts one colour from many slowly, OpenCV fast."""
    if second.size == 3 and first.ndim == 3 and first.size:
        shift = np.hstack([np.eye(3, dtype=np.float32), -second.reshape(3, 1)])
        return np.asarray(cv2.transform(first, shift), np.float32)
    return np.subtract(first, second)


def rgb_of_lab(colours: NDArray[np.floating]) -> Floats:
    """Convert CIE L*a*b* (…, 3) under D65 to sRGB values in 0…1 (…, 3), clipped: the reverse of :func:`lab`."""
    lightness, a, b = np.moveaxis(np.asarray(colours, np.float64), -1, 0)
    y = (lightness + 16) / 116
    f = np.stack([y + a / 500, y, y - b / 200], axis=-1)
    xyz = np.where(f > 6 / 29, f**3, 3 * (6 / 29) ** 2 * (f - 4 / 29)) * D65
    return srgb_from_linear(xyz @ SRGB_OF_XYZ.T)


def hex_of_lab(colour: NDArray[np.floating]) -> str:
    """Convert one CIE L*a*b* colour (3,) under D65 to ``#rrggbb``, clipped to sRGB."""
    return "#" + "".join(f"{round(float(v) * 255):02x}" for v in rgb_of_lab(colour))


def contrast(first: str, second: str) -> float:
    """Return the contrast of two ``#rrggbb`` colours, 1 to 21: WCAG 2.2, "contrast ratio" and "relative luminance"."""
    one, other = (float(LINEAR_OF_BYTE[list(parse_hex(c))] @ LUMINANCE) for c in (first, second))
    return (max(one, other) + 0.05) / (min(one, other) + 0.05)


BLOCK = 6000
"""Colours compared at a time, so that intermediate results stay in the processor's cache."""


def delta_e_2000(first: NDArray[np.floating], second: NDArray[np.floating]) -> Floats:
    """Return the CIEDE2000 difference (…) of two Lab arrays (…, 3).

    Source: Sharma, Wu and Dalal, "The CIEDE2000 Color-Difference Formula: Implementation Notes,
    Supplementary Test Data, and Mathematical Observations", Color Res. Appl. 30 (2005).
    """
    one, other = np.broadcast_arrays(np.asarray(first), np.asarray(second))
    shape = one.shape[:-1]
    one, other = one.reshape(-1, 3), other.reshape(-1, 3)
    differences = np.empty(len(one), np.float32)
    for start in range(0, len(one), BLOCK):
        part = slice(start, start + BLOCK)
        differences[part] = _delta_e_2000(*one[part].T.astype(np.float64), *other[part].T.astype(np.float64))
    return differences.reshape(shape)


def _delta_e_2000(l1: Plane, a1: Plane, b1: Plane, l2: Plane, a2: Plane, b2: Plane) -> Plane:
    """Return CIEDE2000 of planes. Cosines of multiples of the mean hue are computed from those of the hue itself."""
    power7 = _power7((np.sqrt(a1 * a1 + b1 * b1) + np.sqrt(a2 * a2 + b2 * b2)) / 2)
    g = 1.5 - 0.5 * np.sqrt(power7 / (power7 + 25.0**7))
    a1, a2 = g * a1, g * a2
    c1, c2 = np.sqrt(a1 * a1 + b1 * b1), np.sqrt(a2 * a2 + b2 * b2)
    h1, h2 = (np.where(h < 0, h + 2 * np.pi, h) for h in (np.arctan2(b1, a1), np.arctan2(b2, a2)))
    colourless = c1 * c2 == 0
    turn, both = h2 - h1, h1 + h2
    apart = np.abs(turn) > np.pi
    turn = np.where(colourless, 0, np.where(apart, turn - np.sign(turn) * 2 * np.pi, turn))
    dl, dc, dh = l2 - l1, c2 - c1, 2 * np.sqrt(c1 * c2) * np.sin(turn / 2)
    mean_l, mean_c = (l1 + l2) / 2, (c1 + c2) / 2
    mean_h = np.where(colourless, both, (both + np.where(apart, np.where(both < 2 * np.pi, 2, -2) * np.pi, 0)) / 2)
    x, y = np.cos(mean_h), np.sin(mean_h)
    x2, y2 = x * x - y * y, 2 * x * y
    x3, y3, x4, y4 = x2 * x - y2 * y, y2 * x + x2 * y, x2 * x2 - y2 * y2, 2 * x2 * y2
    t = 1 - 0.17 * (x * COS_30 + y * SIN_30) + 0.24 * x2 + 0.32 * (x3 * COS_6 - y3 * SIN_6) - 0.20 * (x4 * COS_63 + y4 * SIN_63)
    lighter = (mean_l - 50) ** 2
    sl, sc, sh = 1 + 0.015 * lighter / np.sqrt(20 + lighter), 1 + 0.045 * mean_c, 1 + 0.015 * mean_c * t
    power7 = _power7(mean_c)
    blue = np.exp(-(((mean_h - np.radians(275)) / np.radians(25)) ** 2))
    rt = -2 * np.sin(np.radians(60) * blue) * np.sqrt(power7 / (power7 + 25.0**7))
    l_, c_, h_ = dl / sl, dc / sc, dh / sh
    return np.asarray(np.sqrt(np.maximum(l_ * l_ + c_ * c_ + h_ * h_ + rt * c_ * h_, 0)))


def _power7(chroma: Plane) -> Plane:
    squared = chroma * chroma
    return squared * squared * squared * chroma
