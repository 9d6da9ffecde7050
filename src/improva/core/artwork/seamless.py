"""Make a picture tile without visible joints."""

from __future__ import annotations

import numpy as np
import pyvips

from .pixels import as_array, as_bytes


def blended_edges(image: pyvips.Image, blend: float) -> pyvips.Image:
    """Return the picture, smaller by ``blend`` of its width and height, with opposite edges cross-faded so that it tiles.

    In premultiplied values, so that hidden colour does not bleed in (Porter and Duff 1984, section 4.3).
    """
    if not blend:
        return image
    alpha = image.hasalpha()
    pixels = as_array(as_bytes(image.premultiply() if alpha else image)).astype(np.float32)
    for axis in (1, 0):
        n = pixels.shape[axis]
        b = min(n // 2, max(1, round(n * blend)))
        head, tail = np.take(pixels, range(b), axis), np.take(pixels, range(n - b, n), axis)
        shape = [1, 1, 1]
        shape[axis] = b
        t = (0.5 - 0.5 * np.cos(np.pi * (np.arange(b) + 0.5) / b)).reshape(shape).astype(np.float32)
        pixels = np.concatenate([tail * (1 - t) + head * t, np.take(pixels, range(b, n - b), axis)], axis)
    blended = pyvips.Image.new_from_array((pixels + 0.5).astype(np.uint8)).copy(interpretation="srgb")
    return as_bytes(blended.unpremultiply()) if alpha else blended
