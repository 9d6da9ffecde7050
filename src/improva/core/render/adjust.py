"""Brighten, mute or whiten a picture for one blank only, streamed by libvips; the artwork itself stays as it is."""

from __future__ import annotations

import numpy as np
import pyvips

from ..artwork.pixels import as_bytes
from ..design import Placement


def adjusted(image: pyvips.Image, placement: Placement) -> pyvips.Image:
    """Return an sRGB picture with a placement's white point, brightness and saturation.

    They mean what the preparation step of the same names does: levels first; then lightness L* by a curve that keeps
    black and white, L = 100 · (L / 100) ^ 2^(−brightness / 50), and chroma times 1 + saturation / 100, in CIE Lab.
    """
    if not placement.adjusts:
        return image
    alpha = image[3] if image.hasalpha() else None
    colour = image.extract_band(0, n=3) if alpha is not None else image
    if placement.white_point < 255:
        ramp = np.clip(np.arange(256) * 255 / placement.white_point + 0.5, 0, 255).astype(np.uint8)
        colour = colour.maplut(pyvips.Image.new_from_array(ramp[None, :]))
    if placement.brightness or placement.saturation:
        lab = colour.copy(interpretation="srgb").colourspace("lab")
        light = (lab[0] / 100) ** (2 ** (-placement.brightness / 50)) * 100
        lab = light.bandjoin(lab.extract_band(1, n=2) * (1 + placement.saturation / 100))
        colour = as_bytes(lab.copy(interpretation="lab").colourspace("srgb"))
    colour = colour if alpha is None else colour.bandjoin(alpha)
    return colour.copy(interpretation="srgb")
