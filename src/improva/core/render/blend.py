"""Composite layers as W3C Compositing and Blending Level 1 defines, streamed by libvips."""

from __future__ import annotations

import pyvips

from ..artwork.pixels import as_bytes, with_alpha
from ..pieces.blending import Blend, Mixing

AS_IT_IS = Mixing()

LUMINOSITY = (0.3, 0.59, 0.11)
"""W3C Compositing and Blending Level 1, 9.2: Lum."""

_SEPARABLE = {
    "multiply": "multiply",
    "screen": "screen",
    "overlay": "overlay",
    "darken": "darken",
    "lighten": "lighten",
    "color-dodge": "colour-dodge",
    "color-burn": "colour-burn",
    "hard-light": "hard-light",
    "soft-light": "soft-light",
    "difference": "difference",
    "exclusion": "exclusion",
}


def _lum(colour: pyvips.Image) -> pyvips.Image:
    red, green, blue = LUMINOSITY
    return colour[0] * red + colour[1] * green + colour[2] * blue


def _least(colour: pyvips.Image) -> pyvips.Image:
    return colour[0].bandrank([colour[1], colour[2]], index=0)


def _most(colour: pyvips.Image) -> pyvips.Image:
    return colour[0].bandrank([colour[1], colour[2]], index=2)


def _with_lum(colour: pyvips.Image, lum: pyvips.Image) -> pyvips.Image:
    """SetLum with ClipColor."""
    moved = colour + (lum - _lum(colour))
    light, least, most = _lum(moved), _least(moved), _most(moved)
    raised = light + (moved - light) * light / (light - least)
    moved = (least < 0).ifthenelse(raised, moved)
    lowered = light + (moved - light) * (1 - light) / (most - light)
    return (most > 1).ifthenelse(lowered, moved)


def _with_sat(colour: pyvips.Image, sat: pyvips.Image) -> pyvips.Image:
    """SetSat: the least channel to 0, the most to the saturation, the middle one in proportion."""
    least, most = _least(colour), _most(colour)
    spread = most - least
    return (spread > 0).ifthenelse((colour - least) * sat / spread, colour * 0)


def _sat(colour: pyvips.Image) -> pyvips.Image:
    return _most(colour) - _least(colour)


def _blended(blend: Blend, back: pyvips.Image, front: pyvips.Image) -> pyvips.Image:
    """B(Cb, Cs) of 8-bit colours without alpha, in 0…1."""
    if blend in _SEPARABLE:
        return back.composite2(front, _SEPARABLE[blend]).extract_band(0, n=3) / 255
    back, front = back / 255, front / 255
    if blend == "hue":
        return _with_lum(_with_sat(front, _sat(back)), _lum(back))
    if blend == "saturation":
        return _with_lum(_with_sat(back, _sat(front)), _lum(back))
    if blend == "color":
        return _with_lum(front, _lum(back))
    return _with_lum(back, _lum(front))


def _composited(blend: Blend, back: pyvips.Image, front: pyvips.Image) -> pyvips.Image:
    """Blend, then composite source-over: 5.8.1 of the specification.

    libvips has the separable modes, but with alpha it does not follow the specification; so it blends without.
    """
    cb, ab = back.extract_band(0, n=3), back[3] / 255
    cs, as_ = front.extract_band(0, n=3), front[3] / 255
    mixed = cs / 255 * (1 - ab) + _blended(blend, cb, cs) * ab
    alpha = as_ + ab * (1 - as_)
    colour = (alpha > 0).ifthenelse((mixed * as_ + cb / 255 * ab * (1 - as_)) / alpha, 0)
    return as_bytes((colour * 255).bandjoin(alpha * 255)).copy(interpretation="srgb")


def times_alpha(image: pyvips.Image, factor: pyvips.Image | float) -> pyvips.Image:
    """Multiply an image's alpha by a number, or by a mask in 0…1."""
    if not isinstance(factor, pyvips.Image) and factor == 1:
        return image
    image = with_alpha(image)
    return image.extract_band(0, n=3).bandjoin(as_bytes(image[3] * factor)).copy(interpretation="srgb")


def mixed(back: pyvips.Image, front: pyvips.Image, mixing: Mixing) -> pyvips.Image:
    """Composite ``front`` over ``back`` with its blend mode and opacity."""
    front = times_alpha(front, mixing.opacity)
    if mixing.blend == "normal" and not front.hasalpha():
        return front
    if mixing.blend == "normal":
        pixels = as_bytes(with_alpha(back).composite2(with_alpha(front), "over"))
    else:
        pixels = _composited(mixing.blend, with_alpha(back), with_alpha(front))
    return pixels if back.hasalpha() else pixels.extract_band(0, n=3)


def atop(back: pyvips.Image, front: pyvips.Image, mixing: Mixing) -> pyvips.Image:
    """Composite ``front`` on ``back`` only where ``back`` has ink: Porter and Duff 1984, *atop*. The alpha does not change."""
    if not back.hasalpha():
        return mixed(back, front, mixing)
    colours = mixed(back.extract_band(0, n=3), front, mixing)
    return colours.bandjoin(back[3]).copy(interpretation="srgb")
